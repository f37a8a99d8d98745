import type { Point2 } from '@jadebell/core/document';
import { decibel, sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { halved, plainBody, plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';

const copper = { name: 'copper', kind: 'conductor', conductivity: 5.8e7 } as const;
const sheet = (name: string, offset: number, loop: readonly Point2[]) =>
  plainBody(name, 1, copper, { form: 'sheet', normal: 2, offset, loops: [[...loop]] });
const rectangle = (x0: number, x1: number, half: number): Point2[] => [[x0, -half], [x1, -half], [x1, half], [x0, half]]; // prettier-ignore
const guide = (name: string, order: number, x: number, into: 1 | -1, side: number, top: number, ends: boolean): SceneGuide => ({
  name,
  order,
  normal: 0,
  into,
  min: [x, -side, 0],
  max: [x, side, top],
  modes: 1,
  shift: 0,
  inhomogeneous: true,
  ...(ends ? { ends } : {}),
});

/** A microstrip of 1.8 mm on 0.8 mm of permittivity 3.5 in the open, between guided ports of five widths by five heights behind which it goes on. */
function openLine(accuracy: GridScene['accuracy']): GridScene {
  const [w, h, length] = [1.8e-3, 0.8e-3, 20e-3];
  return plainScene({
    bodies: [
      plainBody('board', 0, { name: 'board', kind: 'dielectric', permittivity: 3.5 }, { form: 'box', min: [-1, -15e-3, 0], max: [1, 15e-3, h] }),
      sheet('ground', 0, rectangle(-1, 1, 15e-3)),
      sheet('strip', h, rectangle(-1, 1, w / 2)),
    ].map((b) => (b.material.kind === 'conductor' ? { ...b, conductor: { ...b.conductor, perfect: true } } : b)),
    ports: [],
    guides: [guide('left', 0, 0, 1, 2.5 * w, 5 * h, false), guide('right', 1, length, -1, 2.5 * w, 5 * h, false)],
    min: [0, -23e-3, -8e-3],
    max: [length, 23e-3, 12e-3],
    band: { from: 4e9, to: 8e9, points: 9 },
    recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 18 }],
    recordAt: [6e9],
    accuracy,
  });
}

const [half, height, width] = [25e-3, 0.254e-3, 0.78e-3];
/** An inset patch on a thin board of 50 x 50 mm, fed at the board's edge: by a lumped port, or a guided one at which the model ends. */
function patch(fed: 'lumped' | 'guided'): GridScene {
  const [l, w, inset, notch] = [16.9e-3, 20e-3, 5.6e-3, 0.5e-3];
  const upper: Point2[] = [[l / 2, w / 2], [-l / 2, w / 2], [-l / 2, width / 2 + notch], [-l / 2 + inset, width / 2 + notch], [-l / 2 + inset, width / 2], [-half, width / 2]]; // prettier-ignore
  const outline = [...upper, ...upper.map(([x, y]): Point2 => [x, -y]).reverse()];
  const scene = plainScene({
    bodies: [
      plainBody('board', 0, { name: 'board', kind: 'dielectric', permittivity: 2.2 }, { form: 'box', min: [-half, -half, 0], max: [half, half, height] }), // prettier-ignore
      sheet('ground', 0, rectangle(-half, half, half)),
      sheet('patch', height, outline),
    ],
    ports:
      fed === 'lumped'
        ? [{ name: 'feed', order: 0, resistance: 50, axis: 2, direction: 1, min: [-half, -width / 2, 0], max: [-half, width / 2, height], across: 1 }]
        : [],
    guides: fed === 'guided' ? [guide('feed', 0, -half, 1, 2e-3, 1e-3, true)] : [],
    min: [-40e-3, -40e-3, -15e-3],
    max: [40e-3, 40e-3, 15e-3],
    band: { from: 5e9, to: 7e9, points: 201 },
    recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 36 }],
    recordAt: [5.83e9],
    accuracy: 'normal',
    // What is left of the resonance would tilt the balance of power by a percent.
    details: { stopAt: 2e-6 },
  });
  // Of the lumped port too the half above the plane is computed.
  const ports = scene.ports.map((p): GridScene['ports'][number] => ({ ...p, min: [p.min[0], 0, p.min[2]], halved: [false, true, false] }));
  return halved({ ...scene, ports }, 1, 0);
}

/** Directivities, dB, up to an angle from the zenith, and the gain, dB. */
async function read(scene: GridScene, host: SolverHost): Promise<{ level: (t: number, p: number) => number; gain: number; cells: number }> {
  const { meta, arrays } = await solvers.fdtd.solve(scene, { host });
  const { data, shape } = arrays.farField;
  const [{ gain, fromPattern }] = meta.farField!.figures;
  const level = (t: number, p: number): number => {
    const at = (t * shape[2] + p) * 4;
    const power = [0, 1, 2, 3].reduce((sum, q) => sum + data[at + q] ** 2, 0) / (2 * 376.730313668);
    return 10 * Math.log10((4 * Math.PI * power) / fromPattern);
  };
  return { level, gain: 10 * Math.log10(gain), cells: meta.evidence.cells.reduce((a, b) => a * b, 1) };
}

/** Far fields beside guided ports in several media, and open lines. */
export const portEnds: Case = {
  name: 'port-ends',
  title: 'Guided ports on printed lines: open rims, and far fields',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    const add = (quantity: string, source: string, value: number, allowed: number, of: Row['unit'], cells: number, started: number): void =>
      void rows.push({ quantity, reference: `below ${allowed} ${of || 'W'}`, source, computed: `${value.toPrecision(3)} ${of || 'W'}`, error: value, allowed, unit: of, cells, seconds: (host.now() - started) / 1e3 }); // prettier-ignore
    let started = host.now();
    const { arrays, meta } = await solvers.fdtd.solve(openLine('normal'), { host });
    const cells = meta.evidence.cells.reduce((a, b) => a * b, 1);
    const worst = Math.max(...sCurve(arrays.s, 0, 0).map(decibel));
    const title = 'open microstrip, 1.8 mm on 0.8 mm of permittivity 3.5, ports of five widths by five heights, 4 to 8 GHz';
    add(`${title}: largest |S11|`, 'no reflection', worst, -60, 'dB', cells, started);
    add(`${title}: power into the pattern at 6 GHz for 1 W`, 'the guided wave is no radiation', meta.farField!.figures[0].radiated, 5e-4, '', cells, started); // prettier-ignore
    started = host.now();
    const [lumped, guided] = [await read(patch('lumped'), host), await read(patch('guided'), host)];
    const board = 'inset patch on 0.254 mm of permittivity 2.2 at 5.83 GHz, guided against lumped';
    const source = 'the same board fed by a lumped port';
    add(`${board}: gain`, source, Math.abs(guided.gain - lumped.gain), 0.1, 'dB', guided.cells, started);
    const apart = Array.from({ length: 7 * 72 }, (_, n) => Math.abs(guided.level(n % 7, Math.floor(n / 7)) - lumped.level(n % 7, Math.floor(n / 7))));
    add(`${board}: pattern up to 30 degrees from the zenith`, source, Math.max(...apart), 0.2, 'dB', guided.cells, started);
    return rows;
  },
};
