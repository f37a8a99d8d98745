import type { Point2 } from '@jadebell/core/document';
import { c0 } from '@jadebell/core/numerics';
import type { GridScene } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const [permittivity, height, half] = [2.2, 1.575e-3, 50e-3];

/** A patch of an outline on a board over ground, turned by an angle in degrees with its feed 8 mm from the middle. */
function patch(outline: readonly Point2[], angle: number, accuracy: GridScene['accuracy']): GridScene {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const turned = ([x, y]: Point2): Point2 => [x * cos - y * sin, x * sin + y * cos];
  const [x, y] = turned([8e-3, 0]);
  return plainScene({
    bodies: [
      plainBody('board', 0, { name: 'board', kind: 'dielectric', permittivity }, { form: 'box', min: [-half, -half, 0], max: [half, half, height] }),
      plainBody('patch', 1, metal, { form: 'sheet', normal: 2, offset: height, loops: [outline.map(turned)] }),
    ],
    ports: [filament('feed', [x, y, 0], 2, height, 50)],
    min: [-half, -half, 0],
    max: [half, half, 25e-3],
    band: { from: 2.6e9, to: 3.6e9, points: 401 },
    boundaries: ['open', 'open', 'open', 'open', 'electric', 'open'],
    accuracy,
  });
}

/** Frequency, Hz, of the largest resistance at the port, between samples by a parabola. */
async function resonance(scene: GridScene, host: SolverHost): Promise<{ f: number; cells: number }> {
  const { arrays, meta } = await solvers.fdtd.solve(scene, { host });
  const f = arrays.frequency.data;
  const r = Array.from(f, (_, i) => {
    const [a, b] = [arrays.s.data[2 * i], arrays.s.data[2 * i + 1]];
    return (1 - a * a - b * b) / ((1 - a) ** 2 + b * b);
  });
  const top = r.indexOf(Math.max(...r));
  const [before, here, after] = [-1, 0, 1].map((k) => r[top + k]);
  return {
    f: f[top] + ((f[1] - f[0]) * (before - after)) / (2 * (before - 2 * here + after)),
    cells: meta.evidence.cells.reduce((p, n) => p * n, 1),
  };
}

const ghz = (f: number): string => `${(f / 1e9).toFixed(4)} GHz`;

/**
 * First resonance of a circular patch, Hz: J1' of the cavity with the radius that its rim field adds (L. C. Shen et al., IEEE Trans. Antennas Propag. 25, 595,
 * 1977).
 */
export function circularPatch(radius: number, h: number, er: number): number {
  const wider = 1 + ((2 * h) / (Math.PI * radius * er)) * (Math.log((Math.PI * radius) / (2 * h)) + 1.7726);
  return (1.84118 * c0) / (2 * Math.PI * radius * Math.sqrt(wider * er));
}

const rectangle: Point2[] = [[-15e-3, -19e-3], [15e-3, -19e-3], [15e-3, 19e-3], [-15e-3, 19e-3]]; // prettier-ignore
const disc = (radius: number): Point2[] => Array.from({ length: 128 }, (_, i) => [0, 0.25].map((turn) => radius * Math.cos(2 * Math.PI * ((i + 0.5) / 128 - turn))) as Point2); // prettier-ignore

/** A row on a resonance. */
async function row(quantity: string, source: string, reference: number, scene: GridScene, host: SolverHost, allowed: number): Promise<Row> {
  const started = host.now();
  const { f, cells } = await resonance(scene, host);
  return { quantity, reference: ghz(reference), source, computed: ghz(f), error: percent(f, reference), allowed, unit: '%', cells, seconds: host.now() - started }; // prettier-ignore
}

/** Patches turned by some angles, against the same along the axes. */
async function turnedPatches(angles: readonly number[], host: SolverHost): Promise<Row[]> {
  const straight = await resonance(patch(rectangle, 0, 'normal'), host);
  const rows: Row[] = [];
  for (const angle of angles)
    rows.push(await row(`patch turned by ${angle} degrees, normal: resonance`, 'the same along the axes', straight.f, patch(rectangle, angle, 'normal'), host, 0.4)); // prettier-ignore
  return rows;
}

/** Patches whose outlines run across no axis of the grid. */
export const turnedSheets: Case = {
  name: 'turned-sheets',
  title: 'Sheets whose outlines run across no axis',
  slow: true,
  async run(host) {
    const rows = await turnedPatches([20, 45], host);
    rows.push(await row('circular patch, normal: resonance', 'Shen 1977', circularPatch(17e-3, height, permittivity), patch(disc(17e-3), 0, 'normal'), host, 1)); // prettier-ignore
    return rows;
  },
};
