import { abs, c0, exp, sub } from '@jadebell/core/numerics';
import { sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';

/** Sides of the guide, metres, and its cutoff, hertz. */
export const [wide, narrow] = [15.8e-3, 7.9e-3];
export const cutoff = c0 / (2 * wide);

/** A guide along x whose band begins at `above` times its cutoff, with an inductive iris or without. */
export function tube(
  above: number,
  { length = 30e-3, iris = false, ...more }: { length?: number; iris?: boolean } & Partial<GridScene> = {},
): GridScene {
  const end = (name: string, order: number, into: 1 | -1): SceneGuide => {
    const x = into > 0 ? 0 : length;
    return { name, order, normal: 0, into, min: [x, 0, 0], max: [x, wide, narrow], modes: 1, shift: 0 };
  };
  const metal = { name: 'metal', kind: 'conductor' } as const;
  const post = (name: string, order: number, from: number, to: number): ReturnType<typeof plainBody> =>
    plainBody(name, order, metal, { form: 'box', min: [14e-3, from, 0], max: [16e-3, to, narrow] });
  return plainScene({
    bodies: iris ? [post('low', 0, 0, 3e-3), post('high', 1, wide - 3e-3, wide)] : [],
    ports: [],
    guides: [end('left', 0, 1), end('right', 1, -1)],
    min: [0, 0, 0],
    max: [length, wide, narrow],
    band: { from: above * cutoff, to: 1.5 * cutoff, points: 21 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy: 'draft',
    ...more,
  });
}

/** Largest difference of S21 of a straight guide from the wave of its own ports over its length, and largest |S11|, as rows. */
async function straight(host: SolverHost, name: string, scene: GridScene): Promise<Row[]> {
  const started = host.now();
  const { meta, arrays } = await solvers.fdtd.solve(scene, { host });
  const length = scene.max[0] - scene.min[0];
  const beta = (f: number): number => arrays.beta.data[2 * f * meta.ports.length];
  const [back, through] = [0, 1].map((to) => sCurve(arrays.s, to, 0));
  const off = Math.max(...through.map((s, f) => abs(sub(s, exp([0, -beta(f) * length])))));
  const common = { unit: '' as const, allowed: 1e-4, cells: meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started };
  const steps = `${meta.evidence.steps / 2} steps`;
  return [
    { quantity: `${name}: S21 from the wave of the ports over its length`, reference: '0', source: 'exp(−jβl), β of the grid', computed: `${off.toExponential(1)}, ${steps}`, error: off, ...common }, // prettier-ignore
    { quantity: `${name}: largest |S11|`, reference: '0', source: 'nothing is in the way', computed: Math.max(...back.map(abs)).toExponential(1), error: Math.max(...back.map(abs)), ...common }, // prettier-ignore
  ];
}

/** Runs that end while energy creeps at a cutoff beside the band, and not while a wave is on its way. */
export const nearCutoff: Case = {
  name: 'near-cutoff',
  title: 'Guides whose cutoff lies just below the band, and a long line',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    for (const above of [1.01, 1.05, 1.2]) rows.push(...(await straight(host, `guide from ${above} of its cutoff on`, tube(above))));
    const walls: GridScene['boundaries'] = ['electric', 'electric', 'magnetic', 'magnetic', 'electric', 'electric'];
    rows.push(...(await straight(host, 'line of 0.45 m without a cutoff', tube(1.3, { length: 0.45, boundaries: walls }))));
    const started = host.now();
    const [own, long] = [await solvers.fdtd.solve(tube(1.02, { iris: true }), { host }), await solvers.fdtd.solve(tube(1.02, { iris: true, excite: ['left'], details: { stopAt: 1e-12, maxSteps: 12_000 } }), { host })]; // prettier-ignore
    const off = Math.max(...[0, 1].flatMap((to) => sCurve(own.arrays.s, to, 0).map((s, f) => abs(sub(s, sCurve(long.arrays.s, to, 0)[f])))));
    const cells = own.meta.evidence.cells.reduce((p, n) => p * n, 1);
    rows.push({ quantity: 'iris, from 1.02 of the cutoff on: S', reference: '0', source: 'a run of 12,000 steps', computed: `${off.toExponential(1)} off, ${own.meta.evidence.steps / 2} steps`, error: off, allowed: 1e-4, unit: '', cells, seconds: host.now() - started }); // prettier-ignore
    return rows;
  },
};
