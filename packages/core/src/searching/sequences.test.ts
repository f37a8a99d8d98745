import { describe, expect, test } from '@jest/globals';
import { latinHypercube, mostDimensions, randomOf, sobol } from './sequences.ts';

const slices = (column: number[], n: number): number[] => column.map((v) => Math.floor(v * n)).sort((a, b) => a - b);
const each = (n: number): number[] => Array.from({ length: n }, (_, i) => i);

describe('points spread over a cube', () => {
  test('the first points of a Sobol sequence are those of the published tables', () => {
    // Bratley and Fox, ACM TOMS 14 (1988) 88, by Gray code: 0, 1/2, 3/4, 1/4, 3/8, 7/8, ... in the first two dimensions.
    const rounded = sobol(8, 3).map((p) => p.map((v) => Math.round(v * 8) / 8));
    expect(rounded.map((p) => p[0])).toEqual([0, 0.5, 0.75, 0.25, 0.375, 0.875, 0.625, 0.125]);
    expect(rounded.map((p) => p[1])).toEqual([0, 0.5, 0.25, 0.75, 0.375, 0.875, 0.125, 0.625]);
    expect(rounded.map((p) => p[2])).toEqual([0, 0.5, 0.25, 0.75, 0.625, 0.125, 0.875, 0.375]);
  });

  test('every dimension takes each slice once among powers of two, and a longer sequence begins with a shorter', () => {
    for (const n of [16, 128, 1024]) {
      const points = sobol(n, mostDimensions);
      for (let d = 0; d < mostDimensions; d++) expect(slices(points.map((p) => p[d]), n)).toEqual(each(n)); // prettier-ignore
    }
    expect(sobol(64, 5).slice(0, 20)).toEqual(sobol(20, 5));
    expect(() => sobol(4, mostDimensions + 1)).toThrow(RangeError);
  });

  test('an integral is found far better by a Sobol sequence than at random', () => {
    // Of the product of |4x - 2|, which is 1 over any cube (Sobol g-function with a = 0).
    const n = 2048;
    const mean = (points: number[][]): number => points.reduce((sum, p) => sum + p.reduce((v, x) => v * Math.abs(4 * x - 2), 1), 0) / points.length;
    const random = randomOf(3);
    const even = Math.abs(mean(sobol(n, 6)) - 1);
    const odd = [0, 1, 2, 3, 4].map(() => Math.abs(mean(Array.from({ length: n }, () => Array.from({ length: 6 }, random))) - 1));
    expect(even).toBeLessThan(0.03);
    expect(even).toBeLessThan(Math.max(...odd) / 2);
  });

  test('a Latin hypercube takes each slice of each dimension once, the same with the same seed', () => {
    const points = latinHypercube(37, 4, 11);
    for (let d = 0; d < 4; d++) expect(slices(points.map((p) => p[d]), 37)).toEqual(each(37)); // prettier-ignore
    expect(latinHypercube(37, 4, 11)).toEqual(points);
    expect(latinHypercube(37, 4, 12)).not.toEqual(points);
  });
});
