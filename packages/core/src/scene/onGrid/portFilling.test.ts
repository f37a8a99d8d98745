import { beforeAll, describe, expect, test } from '@jest/globals';
import type { ManifoldToplevel } from 'manifold-3d';
import { emptyProject, type Line, type Port, type Project } from '../../document/index.ts';
import { loadGeometryKernel } from '../../geometry/index.ts';
import { buildScene, sceneFor } from '../index.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});

const box = (name: string, material: string, size: [string, string, string], at: [string, string, string]): Line => ({ kind: 'box', name, material, size, anchor: 'base', at }); // prettier-ignore
const port = (name: string, at: string, into: 'up' | 'down', to = '6 mm'): Port => ({ kind: 'guide-plane', name, normal: 'x', into, at, from: ['-8 mm', '0 mm'], to: ['8 mm', to], modes: '1', shift: '0 mm' }); // prettier-ignore
/** A strip on a board, with a guided port at either end. */
const line = (change: Partial<Project> = {}): Project => ({
  ...emptyProject('t'),
  lines: [
    box('board', 'Polyimide film', ['40 mm', '20 mm', '1 mm'], ['0 mm', '0 mm', '0 mm']),
    box('strip', 'Copper', ['40 mm', '2 mm', '0.1 mm'], ['0 mm', '0 mm', '1 mm']),
  ],
  ports: [port('left', '-20 mm', 'up'), port('right', '20 mm', 'down')],
  recorders: [],
  recordAt: [],
  solve: { solver: 'fdtd', from: '2 GHz', to: '8 GHz', points: 11, accuracy: 'draft' },
  margin: '5 mm',
  ...change,
});

describe('guided ports that see several media', () => {
  test('end the computed region at their planes, open to what lies behind', () => {
    const { scene: built, problems } = buildScene(line(), kernel);
    expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
    const scene = sceneFor('fdtd', built);
    expect(scene.guides.map((g) => g.inhomogeneous)).toEqual([true, true]);
    expect([scene.min[0], scene.max[0]]).toEqual([expect.closeTo(-0.02, 9), expect.closeTo(0.02, 9)]);
    // Elsewhere the margin stands.
    expect(scene.max[1]).toBeCloseTo(0.015, 9);
    expect(sceneFor('fdtd', buildScene(line({ boundaries: { ...line().boundaries, xMin: 'electric' } }), kernel).scene).boundaries[0]).toBe('open');
  });
  test('a port in one medium stays as it was', () => {
    const scene = sceneFor('fdtd', buildScene(line({ ports: [port('left', '-20 mm', 'up', '0.9 mm'), port('right', '20 mm', 'down', '0.9 mm')] }), kernel).scene); // prettier-ignore
    expect(scene.guides.map((g) => g.inhomogeneous)).toEqual([undefined, undefined]);
    expect(scene.min[0]).toBeCloseTo(-0.025, 9);
  });
  test('a layer far thinner than the port is seen', () => {
    // Across the board's upper 10 um, where no point of an even raster falls.
    const thin = line({ lines: [box('board', 'Polyimide film', ['40 mm', '20 mm', '1 mm'], ['0 mm', '0 mm', '0 mm'])], ports: [port('left', '-20 mm', 'up', '1.01 mm'), port('right', '20 mm', 'down', '1.01 mm')] }); // prettier-ignore
    expect(sceneFor('fdtd', buildScene(thin, kernel).scene).guides.map((g) => g.inhomogeneous)).toEqual([true, true]);
  });
  test('what lies behind such a port, and a far field beside it, are told', () => {
    const behind = line({ lines: [...line().lines, box('far', 'Copper', ['1 mm', '1 mm', '1 mm'], ['-24 mm', '0 mm', '0 mm'])] });
    expect(buildScene(behind, kernel).problems[0]).toMatchObject({ code: 'port.not-at-end', place: { name: 'left' } });
    const pattern = line({ recorders: [{ kind: 'far-field', name: 'pattern', step: '5 deg' }], recordAt: ['5 GHz'] });
    expect(buildScene(pattern, kernel).problems.map((p) => [p.code, p.severity])).toEqual([['recorder.port', 'warning']]);
  });
  test('at which the model ends leave the region its margin, and may have bodies behind them, but need room for their back', () => {
    const ends = line().ports.map((p) => ({ ...p, behind: 'ends' as const }));
    const more = line({ ports: ends, lines: [...line().lines, box('far', 'Copper', ['1 mm', '1 mm', '1 mm'], ['-24 mm', '0 mm', '0 mm'])] });
    const pattern = { ...more, recorders: [{ kind: 'far-field' as const, name: 'pattern', step: '5 deg' }], recordAt: ['5 GHz'] };
    const { scene, problems } = buildScene(pattern, kernel);
    expect(problems).toEqual([]);
    expect(sceneFor('fdtd', scene).guides.map((g) => [g.inhomogeneous, g.ends])).toEqual([[true, true], [true, true]]); // prettier-ignore
    expect(sceneFor('fdtd', scene).min[0]).toBeCloseTo(-0.0295, 9);
    const walled = line({ ports: ends, boundaries: { ...line().boundaries, xMin: 'electric' } });
    expect(buildScene(walled, kernel).problems.map((p) => [p.code, p.place.name, p.place.chip])).toEqual([['port.no-back', 'left', 'behind']]);
    // In one medium it makes no difference.
    const plain = [port('left', '-20 mm', 'up', '0.9 mm'), port('right', '20 mm', 'down', '0.9 mm')].map((p) => ({ ...p, behind: 'ends' as const }));
    expect(sceneFor('fdtd', buildScene(line({ ports: plain }), kernel).scene).guides.map((g) => g.ends)).toEqual([undefined, undefined]);
  });
});
