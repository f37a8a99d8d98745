import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import type { Point2 } from '../document/index.ts';
import type { GridScene } from '../scene/index.ts';
import { buildGrid, nearestLine } from './index.ts';
import { narrow } from '../solvers/fdtd/narrow.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const laminate = { name: 'board', kind: 'dielectric', permittivity: 2.2 } as const;
const sheet = (name: string, offset: number, loop: Point2[]) => plainBody(name, 1, metal, { form: 'sheet', normal: 2, offset, loops: [loop] });
const square = (half: number): Point2[] => [[-half, -half], [half, -half], [half, half], [-half, half]]; // prettier-ignore
/** A patch of 20 mm fed by a strip of width w in one outline, height h over its ground. */
function patch(w: number, h: number, more: Partial<GridScene> = {}): GridScene {
  const outline: Point2[] = [[-10e-3, -10e-3], [10e-3, -10e-3], [10e-3, 10e-3], [-10e-3, 10e-3], [-10e-3, w / 2], [-25e-3, w / 2], [-25e-3, -w / 2], [-10e-3, -w / 2]]; // prettier-ignore
  return plainScene({
    bodies: [
      plainBody('board', 0, laminate, { form: 'box', min: [-25e-3, -25e-3, 0], max: [25e-3, 25e-3, h] }),
      sheet('ground', 0, square(25e-3)),
      sheet('patch', h, outline),
    ],
    ports: [],
    min: [-40e-3, -40e-3, -15e-3],
    max: [40e-3, 40e-3, 18e-3],
    band: { from: 5e9, to: 7e9, points: 3 },
    accuracy: 'normal',
    ...more,
  });
}
const offLine = (lines: Float64Array, x: number): number => Math.abs(lines[nearestLine(lines, x)] - x);

test('a strip in one outline with a patch keeps its width and its height over ground, however thin both are beside the patch', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.3e-3, max: 6e-3, noNaN: true }), fc.double({ min: 0.1e-3, max: 2e-3, noNaN: true }), (w, h) => {
      const scene = patch(w, h);
      const grid = buildGrid(scene);
      for (const z of [0, h]) expect(offLine(grid.lines[2], z)).toBeLessThan(1e-9);
      expect(grid.lines[2].filter((z) => z > -1e-9 && z < h + 1e-9).length).toBeGreaterThanOrEqual(3);
      // The edges stand a third within cells of their own, and across the strip are the cells of the accuracy.
      expect(grid.lines[1].filter((y) => Math.abs(y) < w / 2).length).toBeGreaterThanOrEqual(4);
      expect(narrow(scene, grid)).toEqual([]);
    }),
    { numRuns: 30 },
  );
});

test('a gap between blocks, and a thin wall of one, stay on the grid', () => {
  const block = (name: string, min: number, max: number) => plainBody(name, 1, metal, { form: 'box', min: [min, -10e-3, -10e-3], max: [max, 10e-3, 10e-3] }); // prettier-ignore
  for (const gap of [0.1e-3, 0.7e-3]) {
    const scene = patch(1e-3, 1e-3, { bodies: [block('a', -20e-3, 0), block('b', gap, 20e-3)] });
    const { lines } = buildGrid(scene);
    for (const x of [0, gap]) expect(offLine(lines[0], x)).toBeLessThan(1e-9);
  }
});

test('what a smallest cell set by hand takes away is told, with its place', () => {
  const scene = patch(0.78e-3, 0.25e-3, { details: { smallestCell: 1.5e-3 } });
  const told = narrow(scene, buildGrid(scene));
  expect(told.map((p) => [p.code, p.place.name])).toEqual(expect.arrayContaining([['grid.narrow', 'patch'], ['grid.narrow', 'ground']])); // prettier-ignore
  expect(told.map((p) => p.message).join(' ')).toMatch(/patch is 780 um wide at [^:]*, which is 0\.\d+ of the cell there: on the grid it is lost\./);
  expect(told.map((p) => p.message).join(' ')).toMatch(/Between (patch|ground) and the next metal are 250 um at .*: on the grid it is closed\./);
  expect(told[0].fix).toMatch(/smaller smallest cell/);
});
