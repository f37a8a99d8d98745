import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Line } from '@jadebell/core/document';
import { evaluateModel, isSheet, loadGeometryKernel } from '@jadebell/core/geometry';
import type { Hit } from '../project/stageState.ts';
import type { View } from '../workers/protocol.ts';
import { measured, referenceTo, tell } from './told.ts';

const box: Line = { kind: 'box', name: 'wall', material: 'Copper', size: ['10 mm', '20 mm', '4 mm'], anchor: 'base', at: ['0 mm', '0 mm', '0 mm'] };

/** The view of a box 10 by 20 by 4 mm that stands on the origin. */
async function viewOfBox(): Promise<View> {
  const model = evaluateModel({ ...emptyProject('t'), lines: [box] }, await loadGeometryKernel());
  return { bodies: model.bodies.map((b) => ({ ...b, sheet: isSheet(b), normal: null })), curves: [] } as unknown as View;
}
const hit = (kind: Hit['kind'], point: [number, number, number], more: Partial<Hit> = {}): Hit => ({ kind, body: 'wall', point, ...more }) as Hit;
/** The face of the view's body whose normal points along an axis. */
const faceAlong = (view: View, axis: number, sign: number): number => view.bodies[0].faces.findIndex((f) => f.normal && Math.sign(f.normal[axis]) === sign && Math.abs(f.normal[axis]) > 0.9); // prettier-ignore
/** The segment of an edge between two points, metres. */
const segmentAt = ({ bodies: [b] }: View, from: number[], to: number[]): number => {
  const at = (i: number): number[] => [0, 1, 2].map((a) => b.edges[3 * i + a]);
  const same = (p: number[], q: number[]): boolean => p.every((c, a) => Math.abs(c - q[a]) < 1e-6);
  const count = b.edges.length / 6;
  return Array.from({ length: count }, (_, n) => n).find((n) => (same(at(2 * n), from) && same(at(2 * n + 1), to)) || (same(at(2 * n), to) && same(at(2 * n + 1), from)))!; // prettier-ignore
};

describe('what lies under the pointer', () => {
  test('is told with its size, and goes into a chip by a name that stays true', async () => {
    const view = await viewOfBox();
    const top = faceAlong(view, 2, 1);
    const corner: [number, number, number] = [5e-3, 10e-3, 4e-3];
    expect(tell(view, hit('body', [0, 0, 0]))).toBe('wall · Copper · 10 mm × 20 mm × 4 mm');
    expect(tell(view, hit('face', [0, 0, 4e-3], { face: top }))).toMatch(/^face wall\.\S+ · 200 mm\^2 · centre 0 mm, 0 mm, 4 mm$/);
    expect(tell(view, hit('point', corner))).toMatch(/^corner\(wall\.zmax, .*\) · 5 mm, 10 mm, 4 mm$/);
    // What is asked for on an axis ends in its letter; a body is taken by its middle.
    expect(referenceTo(view, hit('point', corner), 1)).toMatch(/^corner\(wall\.zmax, .*\)\.y$/);
    expect(referenceTo(view, hit('body', [0, 0, 0]), 2)).toBe('wall.centre.z');
    expect(referenceTo(view, hit('face', [0, 0, 4e-3], { face: top }), 0)).toMatch(/^wall\.\S+\.centre\.x$/);
    expect(referenceTo(view, { ...hit('body', [0, 0, 0]), body: 'gone' }, 0)).toBeNull();
    expect(tell(view, { ...hit('body', [0, 0, 0]), body: 'gone' })).toBe('');
  });

  test('is measured: distances, differences along the axes, angles, and faces by the distance between them', async () => {
    const view = await viewOfBox();
    const [a, b] = [hit('point', [5e-3, 10e-3, 0]), hit('point', [5e-3, 10e-3, 4e-3])];
    expect(measured(view, [])).toContain('pick a point');
    expect(measured(view, [a])).toMatch(/^Measure from corner.* pick the other end\.$/);
    expect(measured(view, [a, b])).toBe('distance 4 mm · along x, y, z 0 mm, 0 mm, 4 mm');
    const faces = [1, -1].map((sign) => hit('face', [3e-3, 1e-3, sign > 0 ? 4e-3 : 0], { face: faceAlong(view, 2, sign) }));
    expect(measured(view, faces)).toBe('distance of the faces 4 mm · angle 0 deg');
    const along = segmentAt(view, [-5e-3, 10e-3, 4e-3], [5e-3, 10e-3, 4e-3]);
    const up = segmentAt(view, [5e-3, 10e-3, 0], [5e-3, 10e-3, 4e-3]);
    const edges = [hit('edge', [0, 10e-3, 4e-3], { segment: along }), hit('edge', [5e-3, 10e-3, 2e-3], { segment: up })];
    expect(tell(view, edges[0])).toBe('edge of wall · 10 mm');
    expect(measured(view, edges)).toMatch(/angle 90 deg$/);
    // An edge that stands on a face is upright to it.
    expect(measured(view, [edges[1], faces[0]])).toMatch(/angle 90 deg$/);
    expect(measured(view, [edges[0], faces[0]])).toMatch(/angle 0 deg$/);
  });
});
