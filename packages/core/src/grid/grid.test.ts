import { describe, expect, test } from '@jest/globals';
import type { Point2, SheetRecipe } from '../document/index.ts';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { sheetEdges } from './edges.ts';
import { buildGrid, cellCount, nearestLine } from './index.ts';
import type { Axis } from '../numerics/axis.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const film = { name: 'film', kind: 'dielectric', permittivity: 4, lossTangent: 0 } as const;
const sheet = (outline: Point2[], normal: Axis = 2): SheetRecipe => ({ form: 'sheet', normal, offset: 0, loops: [outline] });
const rectangle = (x0: number, x1: number, y0: number, y1: number): Point2[] => [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]; // prettier-ignore

/** A strip of 20 x 2 mm on a layer of given thickness, 1 to 2 GHz. */
function strip(thickness: number, extra: Partial<Parameters<typeof plainScene>[0]> = {}) {
  return plainScene({
    bodies: [
      plainBody('layer', 0, film, { form: 'box', min: [-0.015, -0.01, -thickness], max: [0.015, 0.01, 0] }),
      plainBody('strip', 1, metal, sheet(rectangle(-0.01, 0.01, -0.001, 0.001))),
    ],
    ports: [],
    min: [-0.06, -0.06, -0.06],
    max: [0.06, 0.06, 0.06],
    band: { from: 1e9, to: 2e9, points: 3 },
    ...extra,
  });
}
const has = (lines: Float64Array, at: number): boolean => lines.some((x) => Math.abs(x - at) < 1e-9);

describe('edges of sheets', () => {
  test.each([false, true])('free space lies outside, whichever way the outline turns (reversed: %s)', (reverse) => {
    const outline = rectangle(-1, 1, -2, 2);
    if (reverse) outline.reverse();
    const x = sheetEdges(sheet(outline), 0).edges;
    expect(Object.fromEntries(x.map((e) => [e.at, e.outward]))).toEqual({ '-1': -1, '1': 1 });
    const y = sheetEdges(sheet(outline), 1).edges;
    expect(Object.fromEntries(y.map((e) => [e.at, e.outward]))).toEqual({ '-2': -1, '2': 1 });
    expect(x[0].length).toBe(4);
  });

  test('a slanted outline has corners instead; a notch has edges that look inwards', () => {
    expect(sheetEdges(sheet([[0, 0], [3, 1], [1, 4]]), 0)).toEqual({ edges: [], corners: [0, 3, 1] }); // prettier-ignore
    const notch: Point2[] = [[0, 0], [4, 0], [4, 4], [3, 4], [3, 1], [1, 1], [1, 4], [0, 4]]; // prettier-ignore
    expect(sheetEdges(sheet(notch), 0).edges.map((e) => [e.at, e.outward])).toEqual([[4, 1], [3, -1], [1, 1], [0, -1]]); // prettier-ignore
  });
});

describe('grid of a scene', () => {
  test('the lines beside a sheet’s edge stand a third inside and two thirds outside', () => {
    const { lines } = buildGrid(strip(0.0005));
    for (const [axis, half] of [
      [0, 0.01],
      [1, 0.001],
    ] as const)
      // prettier-ignore
      for (const side of [-1, 1]) {
        const x = lines[axis];
        const i = nearestLine(x, side * half);
        // The nearest line is the inner one; its outer neighbour is twice as far from the edge.
        expect(side * x[i]).toBeLessThan(half);
        expect(side * x[i + side] - half).toBeCloseTo(2 * (half - side * x[i]), 9);
      }
  });

  test('planes of sheets and faces of thick layers are lines; thin layers are left to averaging', () => {
    const thick = buildGrid(strip(0.001));
    expect(has(thick.lines[2], 0)).toBe(true);
    expect(has(thick.lines[2], -0.001)).toBe(true);
    expect(thick.unsnapped[2]).toEqual([]);
    const thin = buildGrid(strip(0.00005));
    expect(has(thin.lines[2], 0)).toBe(true);
    expect(has(thin.lines[2], -0.00005)).toBe(false);
    expect(thin.unsnapped[2]).toEqual([-0.00005]);
    // The thin layer must not cost cells.
    expect(cellCount(thin)).toBeLessThan(cellCount(thick) * 1.1);
  });

  test('neighbours differ little, layers are added outside, finer accuracy has more cells', () => {
    const counts = (['draft', 'normal', 'fine'] as const).map((accuracy) => {
      const grid = buildGrid(strip(0.001, { accuracy }));
      for (const x of grid.lines)
        for (let i = 2; i < x.length; i++) {
          const r = (x[i] - x[i - 1]) / (x[i - 1] - x[i - 2]);
          expect(Math.max(r, 1 / r)).toBeLessThanOrEqual(1.51);
        }
      expect(grid.outerCells).toEqual([10, 10, 10, 10, 10, 10]);
      expect(grid.lines[0][10]).toBeCloseTo(-0.06, 12);
      return cellCount(grid);
    });
    expect(counts[0]).toBeLessThan(counts[1]);
    expect(counts[1]).toBeLessThan(counts[2]);
  });

  test('an electric wall gets no layers and the asked resolution holds in the densest medium', () => {
    const grid = buildGrid(strip(0.004, { boundaries: ['electric', 'open', 'open', 'open', 'open', 'open'] }));
    expect(grid.outerCells).toEqual([0, 10, 10, 10, 10, 10]);
    expect(grid.cellsPerWavelength).toBeGreaterThan(17.9);
    const fine = buildGrid(strip(0.004, { details: { cellsPerWavelength: 40 } }));
    expect(fine.cellsPerWavelength).toBeGreaterThan(39.9);
  });

  test('a gap with a port is spanned from metal to metal', () => {
    const scene = strip(0.001, {
      bodies: [
        plainBody('a', 0, metal, sheet(rectangle(-0.01, -0.0005, -0.001, 0.001))),
        plainBody('b', 1, metal, sheet(rectangle(0.0005, 0.01, -0.001, 0.001))),
      ],
      ports: [{ name: 'p', order: 0, resistance: 50, axis: 0, direction: 1, min: [-0.0005, -0.001, 0], max: [0.0005, 0.001, 0], across: 1 }],
    });
    const [x] = buildGrid(scene).lines;
    const inside = [...x].filter((v) => Math.abs(v) < 0.0005);
    expect(inside.length).toBeGreaterThanOrEqual(2);
    expect(inside[0]).toBeCloseTo(-inside[inside.length - 1], 9);
  });
});
