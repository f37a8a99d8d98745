import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { plainBody } from '@jadebell/verification/bench';
import { emptyProject, type Line, type Point2, type Project, shapes } from '../document/index.ts';
import { rotation } from '../numerics/affine.ts';
import { type Body, crossedIn, evaluateModel, loadGeometryKernel, slantedWidths, type Width } from './index.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const sheet = (name: string, loops: Point2[][], normal: 0 | 1 | 2 = 2): Body => plainBody(name, 0, metal, { form: 'sheet', normal, offset: 0.3, loops }); // prettier-ignore
/** A strip from `from` to `to` along its own axis, `side` beside it, turned. */
const strip = (angle: number, w: number, [from, to]: Point2, side = 0): Point2[] => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const corners: Point2[] = [[from, side - w / 2], [to, side - w / 2], [to, side + w / 2], [from, side + w / 2]]; // prettier-ignore
  return corners.map(([x, y]) => [x * c - y * s, x * s + y * c]);
};
const least = (all: readonly Width[], kind: Width['kind']): number => Math.min(...all.filter((p) => p.kind === kind).map((p) => p.width));
const slant = fc.double({ min: 0.1, max: 1.4, noNaN: true });
const size = fc.double({ min: 0.05, max: 2, noNaN: true });

describe('sheets across no axis', () => {
  const frame = rotation([0, 1, 0], 0.4);
  const leaning = (loops: Point2[][]): Body => plainBody('leaning', 0, metal, { form: 'tilted sheet', frame, loops });

  test('strips of them and the slots between have their widths', () => {
    const both = [leaning([strip(0.3, 0.7, [0, 20]), strip(0.3, 0.7, [0, 20], 1.2)])];
    expect(least(slantedWidths(both), 'metal')).toBeCloseTo(0.7, 6);
    expect(least(slantedWidths(both), 'gap')).toBeCloseTo(0.5, 6);
    // Along the frame's y, which is an axis too.
    expect(least(slantedWidths([leaning([strip(Math.PI / 2, 0.4, [0, 20])])]), 'metal')).toBeCloseTo(0.4, 6);
  });

  test('cross a rectangle in the stretches that are metal', () => {
    const shape = leaning([[[-3, -3], [3, -3], [3, 3], [-3, 3]], [[-1, -1], [-1, 1], [1, 1], [1, -1]]]).shape as never; // prettier-ignore
    const crossed = crossedIn(shape, 2, [-5, -5, 0], [5, 5, 0]);
    expect(crossed.map((s) => s.map((p) => Number(p[1].toFixed(9))).sort((a, b) => a - b)).sort((a, b) => a[0] - b[0])).toEqual([[-3, -1], [1, 3]]); // prettier-ignore
    expect(crossed.flat().every((p) => Math.abs(p[0]) < 1e-9 && p[2] === 0)).toBe(true);
    expect(crossedIn(shape, 2, [0.5, -5, 0], [5, 5, 0])).toEqual([]);
    expect(crossedIn(shape, 2, [-5, -5, 2], [5, 5, 2])).toEqual([]);
  });

  test('a bar of solid metal is told from a wall by how far it reaches', () => {
    const turned = (half: [number, number, number]): Body => {
      const matrix = rotation([0, 0, 1], 0.5);
      const box = { form: 'box', min: half.map((x) => -x), max: half } as never;
      // Two triangles of one of its faces, as it is drawn.
      const corners = [[-half[0], half[1], -half[2]], [half[0], half[1], -half[2]], [half[0], half[1], half[2]], [-half[0], half[1], half[2]]] as const; // prettier-ignore
      const [c, s] = [Math.cos(0.5), Math.sin(0.5)];
      const positions = Float32Array.from(corners.flatMap(([x, y, z]) => [x * c - y * s, x * s + y * c, z]));
      return { ...plainBody('bar', 0, metal, { form: 'moved', matrix, inverse: rotation([0, 0, 1], -0.5), of: box }), positions, triangles: Uint32Array.of(0, 2, 1, 0, 3, 2) }; // prettier-ignore
    };
    const spread = (half: [number, number, number]): number => Math.min(...slantedWidths([turned(half)]).map((w) => w.spread ?? NaN));
    expect(spread([5, 0.1, 5])).toBeGreaterThan(1.9);
    expect(spread([5, 0.1, 0.1])).toBeCloseTo(0.2, 6);
  });
});

describe('widths of what runs across no axis', () => {
  test('a turned strip is as wide as it is, and so is the gap to its neighbour, in every plane', () => {
    fc.assert(
      fc.property(slant, size, size, fc.constantFrom(0, 1, 2), (angle, w, gap, normal) => {
        const all = slantedWidths([
          sheet('a', [strip(angle, w, [0, 20])], normal as 0),
          sheet('b', [strip(angle, w, [0, 20], w + gap)], normal as 0),
        ]);
        expect(least(all, 'metal')).toBeCloseTo(w, 6);
        expect(least(all, 'gap')).toBeCloseTo(gap, 6);
      }),
      { numRuns: 40 },
    );
  });

  test('where pieces touch or overlap there is no edge; along an axis nothing is asked', () => {
    const pieces = [sheet('a', [strip(0.7, 1, [0, 0.2])]), sheet('b', [strip(0.7, 1, [0.2, 9])]), sheet('over', [strip(0.7, 1, [4, 4.1])])];
    const widths = slantedWidths(pieces);
    expect(least(widths, 'metal')).toBeCloseTo(1, 6);
    expect(widths.some((p) => p.kind === 'gap')).toBe(false);
    expect(slantedWidths([sheet('a', [strip(0, 0.01, [0, 5])])])).toEqual([]);
  });

  test('a ring is as wide as between its circles; the tip of a wedge has no width', () => {
    const circle = (r: number): Point2[] => Array.from({ length: 96 }, (_, i) => [r * Math.cos((2 * Math.PI * i) / 96), r * Math.sin((2 * Math.PI * i) / 96)]); // prettier-ignore
    const ring = slantedWidths([sheet('ring', [circle(5), circle(4.6).reverse()])]);
    expect(least(ring, 'metal')).toBeCloseTo(0.4, 2);
    expect(least(ring, 'gap')).toBeCloseTo(9.2, 1);
    expect(slantedWidths([sheet('wedge', [[[0, 0], [9, 1], [9, 6]]])]).filter((p) => p.kind === 'metal')).toEqual([]); // prettier-ignore
  });

  test('of an outline of very many edges the places that are looked at stand for all of it', () => {
    const circle = (r: number, n: number): Point2[] => Array.from({ length: n }, (_, i) => [r * Math.cos((2 * Math.PI * (i + 0.3)) / n), r * Math.sin((2 * Math.PI * (i + 0.3)) / n)]); // prettier-ignore
    const ring = slantedWidths([sheet('ring', [circle(5, 1400), circle(4.6, 900).reverse()])]).filter((p) => p.kind === 'metal');
    expect(least(ring, 'metal')).toBeCloseTo(0.4, 3);
    expect(ring.length).toBeLessThan(1000);
    const length = ring.reduce((sum, p) => sum + 2 * Math.hypot(...p.edge), 0);
    // Less what counts as along an axis.
    expect(length / (2 * Math.PI * 9.6)).toBeGreaterThan(0.92);
    const around = ring.map((p) => Math.atan2(p.at[1], p.at[0])).sort((a, b) => a - b);
    expect(Math.max(...around.map((a, i) => (i ? a - around[i - 1] : 0)))).toBeLessThan(0.12);
  });

  test('a turned wall of metal is as thick as it is, and a tube as its wall', async () => {
    const kernel = await loadGeometryKernel();
    const line = (kind: string, name: string, change: object): Line => ({ ...shapes.find((s) => s.kind === kind)!.fresh(name), ...change }) as unknown as Line; // prettier-ignore
    const bodies = (lines: Line[]): Body[] => evaluateModel({ ...emptyProject('t'), lines } as Project, kernel).bodies;
    const wall = bodies([line('frame', 'f', { turn: ['0 deg', '20 deg', '35 deg'] }), line('box', 'wall', { in: 'f', material: 'Copper', size: ['30 mm', '0.7 mm', '20 mm'] })]); // prettier-ignore
    expect(least(slantedWidths(wall), 'metal')).toBeCloseTo(0.7e-3, 8);
    const tube = bodies([
      line('cylinder', 'outer', { material: 'Copper', radius: '5 mm', height: '20 mm' }),
      line('cylinder', 'inner', { material: 'Copper', radius: '4.5 mm', height: '20 mm' }),
      line('cut', 'tube', { from: 'outer', tools: ['inner'] }),
    ]);
    expect(least(slantedWidths(tube), 'metal')).toBeCloseTo(0.5e-3, 4);
  });
});
