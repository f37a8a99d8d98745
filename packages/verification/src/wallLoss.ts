import type { SheetRecipe } from '@jadebell/core/document';
import type { Exact } from '@jadebell/core/geometry';
import { cellCount, type Grid } from '@jadebell/core/grid';
import { c0, eps0, eta0, mu0 } from '@jadebell/core/numerics';
import type { SolverHost } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { decay, gradedLines, ringing } from './cavity.ts';

const [a, b, d] = [40e-3, 22e-3, 33e-3];
const f0 = (c0 / 2) * Math.hypot(1 / a, 1 / d);
const resistance = (conductivity: number): number => Math.sqrt((Math.PI * f0 * mu0) / conductivity);

/** Q of the TE101 mode with all walls of one surface resistance (D. M. Pozar, Microwave Engineering, 4th ed., eq. 6.46). */
const boxQ = (rs: number): number => {
  const k = (2 * Math.PI * f0) / c0;
  return ((k * a * d) ** 3 * b * eta0) / (2 * Math.PI ** 2 * rs) / (2 * a ** 3 * b + 2 * b * d ** 3 + a ** 3 * d + a * d ** 3);
};
/** Q of the TE101 mode with losses on one wall z = d only: stored energy over half Rs |Hx|^2 on it. */
const endQ = (rs: number): number => ((2 * Math.PI * f0) ** 3 * eps0 * mu0 ** 2 * d ** 3) / (2 * rs * Math.PI ** 2);

interface Measured {
  q: number;
  f: number;
  cells: number;
}

/** Frequency and quality factor of the mode near f0. */
async function ring(
  host: SolverHost,
  bodies: ReturnType<typeof plainBody>[],
  lines: Float64Array[],
  periods: number,
  even = false,
): Promise<Measured> {
  const grid: Grid = { lines: lines as Grid['lines'], outerCells: [0, 0, 0, 0, 0, 0], cellsPerWavelength: 0, unsnapped: [[], [], []] };
  const at = lines.map((x, i) => x.findIndex((v) => v > [0.42 * a, 0.4 * b, 0.45 * d][i]));
  const probe = filament('probe', at.map((i, n) => lines[n][i]) as [number, number, number], 1, lines[1][at[1] + 1] - lines[1][at[1]], 1e7);
  const scene = plainScene({
    bodies,
    // A second probe in the mirror image, driven alike, leaves out the mode that is odd about the sheet and has no loss in it.
    ports: even ? [probe, { ...probe, name: 'mirror', min: mirrored(probe.min), max: mirrored(probe.max) }] : [probe],
    min: lines.map((x) => x[0]) as [number, number, number],
    max: lines.map((x) => x[x.length - 1]) as [number, number, number],
    band: { from: 0.85 * f0, to: 1.15 * f0, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const { signal, dt } = await ringing(host, scene, grid, f0, periods);
  return { ...decay(signal, dt, f0), cells: cellCount(grid) };
}

const mirrored = ([x, y, z]: readonly number[]): [number, number, number] => [x, y, 2 * d - z];
const air = { name: 'air', kind: 'dielectric', permittivity: 1 } as const;
const box = (lo: number[], hi: number[]): Exact => ({ form: 'box', min: lo, max: hi }) as Exact;

async function run(host: SolverHost, sigmas: readonly number[], sheets: boolean): Promise<Row[]> {
  const rows: Row[] = [];
  const add = (quantity: string, source: string, reference: number, m: Measured, started: number): void => {
    // The inner inductance of the skin lowers the resonance by half of what its loss takes from Q.
    rows.push({
      quantity: `Q, ${quantity}`,
      reference: reference.toFixed(2),
      source,
      computed: m.q.toFixed(2),
      error: percent(m.q, reference),
      allowed: 5,
      unit: '%',
      cells: m.cells,
      seconds: host.now() - started,
    });
  };
  const cells = [20, 12, 18];
  const inner = [a, b, d].map((s, i) => gradedLines(s, cells[i]));
  // A shell of metal two cells thick around the box.
  const shelled = inner.map((x, i) => {
    const s = [a, b, d][i] / cells[i];
    return Float64Array.from([-2 * s, -s, ...x, x[x.length - 1] + s, x[x.length - 1] + 2 * s]);
  });
  for (const sigma of sigmas) {
    const started = host.now();
    const shell = plainBody(
      'shell',
      0,
      { name: 'metal', kind: 'conductor', conductivity: sigma },
      box(
        shelled.map((x) => x[0]),
        shelled.map((x) => x[x.length - 1]),
      ),
    );
    const hollow = plainBody('hollow', 1, air, box([0, 0, 0], [a, b, d]));
    const q = boxQ(resistance(sigma));
    const m = await ring(host, [shell, hollow], shelled, 3 * Math.min(q, 150));
    add(`all walls of ${sigma.toExponential(0)} S/m`, 'Pozar, Microwave Engineering, eq. 6.46', q, m, started);
    const lower = f0 * (1 - 1 / (2 * q));
    rows.push({
      quantity: `resonance, all walls of ${sigma.toExponential(0)} S/m`,
      reference: `${(lower / 1e9).toFixed(5)} GHz`,
      source: 'closed form, lowered by 1/(2Q)',
      computed: `${(m.f / 1e9).toFixed(5)} GHz`,
      error: percent(m.f, lower),
      allowed: 0.3,
      unit: '%',
      cells: m.cells,
      seconds: m.cells && host.now() - started,
    });
  }
  // A sheet halves a box of twice the length: the mode that is even about it is that of one half with a lossy end.
  const z = Float64Array.from([
    ...inner[2],
    ...[...inner[2]]
      .reverse()
      .slice(1)
      .map((v) => 2 * d - v),
  ]);
  const sheet: SheetRecipe = {
    form: 'sheet',
    normal: 2,
    offset: d,
    loops: [
      [
        [0, 0],
        [a, 0],
        [a, b],
        [0, b],
      ],
    ],
  };
  for (const [title, sigma, thickness, rs] of [
    ['a thick sheet of 1e+4 S/m', 1e4, null, resistance(1e4)],
    ['a sheet of 1 um and 2e+5 S/m, far thinner than the skin', 2e5, 1e-6, 2 / 0.2],
  ] as const) {
    if (!sheets) break;
    const started = host.now();
    const body = plainBody('sheet', 0, { name: 'metal', kind: 'conductor', conductivity: sigma }, sheet);
    body.conductor = { perfect: false, thickness, sides: 2 };
    const q = endQ(rs);
    const m = await ring(host, [body, plainBody('air', 1, air, box([0, 0, 0], [a, b, 2 * d]))], [inner[0], inner[1], z], 3 * Math.min(q, 150), true);
    add(`one end wall ${title}`, 'perturbation: stored energy over loss of the mode of perfect walls', q, m, started);
  }
  return rows;
}

/** Cavities whose walls have losses, against closed form. */
export const wallLoss: Case = {
  name: 'wall-loss',
  title: 'Metal losses: cavities with lossy walls and sheets',
  slow: false,
  run: (host) => run(host, [1e4], true),
};

/** The same of a better metal, which rings longer. */
export const wallLosses: Case = {
  name: 'wall-losses',
  title: 'Metal losses: cavities with walls of a better metal',
  slow: true,
  run: (host) => run(host, [1e5], false),
};
