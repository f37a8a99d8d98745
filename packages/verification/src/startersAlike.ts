import { type Project, readProjectData, sides } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import type { ResultSet } from '@jadebell/core/results';
import { buildScene } from '@jadebell/core/scene';
import { solverOf, type SolverHost } from '@jadebell/core/solvers';
import { starters } from '@jadebell/core/starters';
import type { Case, Row } from './case.ts';

/** A starter as it comes, with what is changed of it. */
function started(kind: string, change: (p: Project) => Partial<Project>): Project {
  const starter = starters.find((s) => s.kind === kind)!;
  const plain = starter.build(Object.fromEntries(starter.inputs.map((i) => [i.name, i.otherwise])));
  const { project, problems } = readProjectData({ ...plain, ...change(plain) });
  if (!project) throw new Error(JSON.stringify(problems));
  return project;
}

async function solve(project: Project, accuracy: 'draft' | 'normal' | 'fine', host: SolverHost): Promise<ResultSet> {
  const { scene, problems } = buildScene({ ...project, solve: { ...project.solve, accuracy } }, await loadGeometryKernel());
  if (!scene) throw new Error(JSON.stringify(problems));
  return solverOf(scene).solve(scene, { host });
}

const port = (name: string, into: string, at: string): object => ({ kind: 'guide-plane', name, normal: 'z', into, at, from: ['-p / 2', '-p / 2'], to: ['p / 2', 'p / 2'], modes: '1', shift: '0 mm' }); // prettier-ignore

/** The spiral as it comes, and the cell of a ring between walls that stand for an endless screen, with a port on either side. */
const models: readonly (readonly [name: string, project: () => Project])[] = [
  ['Spiral', () => started('spiral', () => ({ recorders: [] }))],
  [
    'Cell of a ring',
    () =>
      started('cell-ring', ({ solve: s }) => ({
        ports: [port('low', 'up', '-p'), port('high', 'down', 'p')] as never,
        boundaries: Object.fromEntries(sides.map((side) => [side, side[0] === 'x' ? 'electric' : side[0] === 'y' ? 'magnetic' : 'open'])) as never,
        symmetry: { x: { wall: 'electric', at: '0 mm' }, y: { wall: 'magnetic', at: '0 mm' } },
        margin: '0 mm',
        recorders: [],
        solve: { ...s, from: '0.6 * f0', to: '1.4 * f0', points: 201 },
      })),
  ],
];

/** Starters whose answer once hung on the accuracy: draft and normal against fine. */
export const startersAlike: Case = {
  name: 'starters-alike',
  title: 'Starters at every accuracy',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const [name, project] of models) {
      const fine = await solve(project(), 'fine', host);
      for (const [accuracy, allowed] of [
        ['draft', 0.1],
        ['normal', 0.05],
      ] as const) {
        // prettier-ignore
        const began = host.now();
        const { meta, arrays } = await solve(project(), accuracy, host);
        const s = arrays.s.data;
        let off = 0;
        for (let i = 0; i < s.length; i += 2) off = Math.max(off, Math.hypot(s[i] - fine.arrays.s.data[i], s[i + 1] - fine.arrays.s.data[i + 1]));
        rows.push({ quantity: `${name}, ${accuracy}: largest change of S over the band`, reference: '0', source: 'the same at fine', computed: off.toFixed(4), error: off, allowed, unit: '', cells: 'cells' in meta.evidence ? meta.evidence.cells.reduce((p, n) => p * n, 1) : 0, seconds: host.now() - began }); // prettier-ignore
      }
    }
    return rows;
  },
};
