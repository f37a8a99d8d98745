import { emptyProject, type Line, readProject, shapes } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { buildScene } from '@jadebell/core/scene';
import { solverOf, type SolverHost } from '@jadebell/core/solvers';
import { type Case, percent, type Row } from './case.ts';

const line = (kind: string, change: object): Line => ({ ...shapes.find((s) => s.kind === kind)!.fresh(kind), ...change }) as unknown as Line;
const port = (name: string, into: string, at: string): object => ({ kind: 'guide-plane', name, normal: 'z', into, at, from: ['-3 mm', '-3 mm'], to: ['3 mm', '3 mm'], modes: '1', shift: '0 mm' }); // prettier-ignore

/** Hertz at which it lets nothing through, on cells of 0.03 mm all around the strip, eight across it. */
const limit = 31.91e9;

/** Where a ring of 3.5 mm mean diameter, 0.25 mm wide, in a cell of 6 mm between walls lets the least through; a quarter of it is solved. */
async function stopped(accuracy: string, allowed: number, host: SolverHost): Promise<Row> {
  const { project } = readProject(
    JSON.stringify({
      ...emptyProject('ring'),
      lines: [line('box', { size: ['6 mm', '6 mm', '16 mm'], anchor: 'centre', material: 'Vacuum' }), line('disc', { material: 'Copper', radius: '1.875 mm', bore: '1.625 mm' })], // prettier-ignore
      ports: [port('low', 'up', '-8 mm'), port('high', 'down', '8 mm')],
      boundaries: { xMin: 'electric', xMax: 'electric', yMin: 'magnetic', yMax: 'magnetic', zMin: 'open', zMax: 'open' },
      symmetry: { x: { wall: 'electric', at: '0 mm' }, y: { wall: 'magnetic', at: '0 mm' } },
      margin: '0 mm',
      recorders: [],
      recordAt: [],
      solve: { solver: 'fdtd', from: '15 GHz', to: '45 GHz', points: 601, accuracy },
    }),
  );
  const { scene, problems } = buildScene(project!, await loadGeometryKernel());
  if (!scene) throw new Error(JSON.stringify(problems));
  const started = host.now();
  const { meta, arrays } = await solverOf(scene).solve(scene, { host });
  const [s, f] = [arrays.s.data, arrays.frequency.data];
  const through = Array.from(f, (_, i) => Math.hypot(s[8 * i + 4], s[8 * i + 5]));
  const least = Math.min(...through);
  // What stops nothing has no such frequency.
  const at = least < 0.05 ? f[through.indexOf(least)] : NaN;
  const ghz = (v: number): string => `${(v / 1e9).toFixed(2)} GHz`;
  return {
    quantity: `ring of strip 0.25 mm wide between walls, ${accuracy}: stops`,
    reference: ghz(limit),
    source: 'the same on cells of 0.03 mm around the strip',
    computed: ghz(at),
    error: percent(at, limit),
    allowed,
    unit: '%',
    cells: 'cells' in meta.evidence ? meta.evidence.cells.reduce((p, n) => p * n, 1) : 0,
    seconds: host.now() - started,
  };
}

/** With staircases in place of its outline: 32.10, 32.65, 32.25 GHz at the three accuracies. */
export const ringScreen: Case = {
  name: 'ring-screen',
  title: 'A ring of narrow strip between walls, at draft',
  slow: false,
  run: async (host) => [await stopped('draft', 1, host)],
};

/** The same at the other accuracies. */
export const ringScreens: Case = {
  name: 'ring-screens',
  title: 'A ring of narrow strip between walls',
  slow: true,
  run: async (host) => [await stopped('normal', 0.3, host), await stopped('fine', 0.3, host)],
};
