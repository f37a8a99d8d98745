import { beforeAll, describe, expect, test } from '@jest/globals';
import type { ManifoldToplevel } from 'manifold-3d';
import { emptyProject, type Line, type Port, type Project } from '../document/index.ts';
import { buildGrid } from '../grid/index.ts';
import { loadGeometryKernel } from '../geometry/index.ts';
import { buildScene, sceneFor, type SceneDipole } from './index.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});

const block: Line = {
  kind: 'box',
  name: 'block',
  material: 'Copper',
  size: ['20 mm', '20 mm', '4 mm'],
  anchor: 'base',
  at: ['0 mm', '0 mm', '0 mm'],
};
const rod = { kind: 'cylinder', name: 'rod', material: 'Copper', axis: 'z', radius: '1 mm', bore: '0 mm', height: '80 mm', at: ['0 mm', '0 mm', '5 mm'] } as unknown as Line; // prettier-ignore
const dipole = (more: object = {}): Port =>
  ({ kind: 'current-dipole', name: 'spot', of: 'electric', at: ['0 mm', '0 mm', '30 mm'], direction: ['0', '3', '4'], ...more }) as Port;
const wave: Port = { kind: 'plane-wave', name: 'sky', theta: '0 deg', phi: '0 deg', tilt: '0 deg', minor: '0' } as Port;
const port: Port = { kind: 'guide-plane', name: 'guide', normal: 'x', into: 'up', at: '0 mm', from: ['-5 mm', '6 mm'], to: ['5 mm', '9 mm'], modes: '1', shift: '0 mm' }; // prettier-ignore

const project = (ports: Port[], more: Partial<Project> = {}): Project => ({
  ...emptyProject('t'),
  lines: [block],
  ports,
  recorders: [],
  recordAt: [],
  solve: { solver: 'fdtd', from: '2 GHz', to: '4 GHz', points: 3, accuracy: 'draft' },
  margin: '10 mm',
  ...more,
});
const errors = (p: Project): string[] => buildScene(p, kernel).problems.flatMap((x) => (x.severity === 'error' ? [x.code] : []));
const wires = (ports: Port[], more: Partial<Project> = {}): Project =>
  project(ports, { lines: [rod], solve: { solver: 'moment', from: '1 GHz', to: '2 GHz', points: 3, accuracy: 'draft' }, ...more });

describe('a current dipole in a scene', () => {
  test('stands where it is put, of unit length, and the region and the grid take it in', () => {
    const scene = sceneFor('fdtd', buildScene(project([dipole()]), kernel).scene);
    expect(scene.source).toMatchObject({ kind: 'dipole', of: 'electric', direction: [0, 0.6, 0.8] });
    // Beyond the block, and a margin above.
    expect(scene.max[2]).toBeCloseTo(0.04, 9);
    const { at } = scene.source as SceneDipole;
    const lines = buildGrid(scene).lines;
    for (const a of [0, 1, 2]) expect(Math.min(...lines[a].map((x) => Math.abs(x - at[a])))).toBeLessThan(1e-9);
  });

  test('is told what it cannot be, with its place', () => {
    expect(errors(project([dipole({ direction: ['0', '0', '0'] })]))).toContain('dipole.direction');
    expect(errors(project([dipole({ at: ['0 mm', '0 mm', '2 mm'] })]))).toContain('dipole.metal');
    expect(errors(project([dipole()], { symmetry: { x: { wall: 'magnetic', at: '0 mm' } } }))).toContain('dipole.symmetry');
    const { problems } = buildScene(project([dipole({ at: ['0 mm', '0 mm', '2 mm'] })]), kernel);
    expect(problems.find((p) => p.code === 'dipole.metal')).toMatchObject({ place: { part: 'ports', name: 'spot', chip: 'at.0' } });
    expect(problems.find((p) => p.code === 'dipole.metal')!.message).toContain('block');
  });

  test('excites alone: with a wave or a guided port beside it nothing is solved', () => {
    expect(errors(project([dipole()]))).toEqual([]);
    expect(errors(project([dipole(), wave]))).toContain('source.several');
    expect(errors(project([dipole(), port]))).toContain('source.guided');
    // A wave needs all sides open, a dipole does not.
    const floor = { boundaries: { ...emptyProject('t').boundaries, zMin: 'electric' } } as const;
    expect(errors(project([wave], floor))).toContain('wave.closed');
    expect(errors(project([dipole()], floor))).toEqual([]);
  });
});

describe('a current dipole beside wires', () => {
  test('stands off them and above the ground, which may be perfect', () => {
    const far = { at: ['50 mm', '0 mm', '40 mm'] };
    expect(errors(wires([dipole(far)]))).toEqual([]);
    expect(errors(wires([dipole({ at: ['1.5 mm', '0 mm', '40 mm'] })]))).toContain('dipole.in-wire');
    const perfect = { kind: 'perfect', at: '0 mm' } as Project['ground'];
    expect(errors(wires([dipole(far)], { ground: perfect }))).toEqual([]);
    expect(errors(wires([dipole({ at: ['50 mm', '0 mm', '-1 mm'] })], { ground: perfect }))).toContain('dipole.buried');
    const earth = { kind: 'earth', at: '0 mm', permittivity: '13', conductivity: '0.005' } as unknown as Project['ground'];
    expect(errors(wires([dipole(far)], { ground: earth }))).toContain('dipole.earth');
  });

  test('is off where something else is named to be excited', () => {
    const feed = { kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '50 ohm' } as unknown as Port;
    const p = wires([dipole({ at: ['50 mm', '0 mm', '40 mm'] }), feed]);
    expect(buildScene(p, kernel).scene!.source).not.toBeNull();
    expect(buildScene({ ...p, solve: { ...p.solve, excite: ['feed'] } }, kernel).scene!.source).toBeNull();
  });
});
