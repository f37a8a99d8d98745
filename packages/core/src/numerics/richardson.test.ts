import { expect, test } from '@jest/globals';
import { richardson, sizeFor } from './richardson.ts';

const sizes = [1, 0.8, 0.6, 0.5, 0.4];

test.each([0.7, 1, 1.6, 2])('a figure that goes to its limit by order %d is followed to it, and its error bars hold it', (order) => {
  const of = (h: number): number => 3 - 0.2 * h ** order;
  const limit = richardson(sizes, sizes.map(of))!; // prettier-ignore
  expect(limit.value).toBeCloseTo(3, 3);
  expect(limit.order).toBeCloseTo(order, 1);
  expect(limit.found).toBe(true);
  sizes.forEach((h, i) => {
    const off = Math.abs(of(h) - 3);
    expect(limit.errors[i]).toBeGreaterThanOrEqual(off);
    expect(limit.errors[i]).toBeLessThan(1.4 * off);
  });
  expect(0.2 * sizeFor(limit, 0.01) ** order).toBeCloseTo(0.01, 3);
});

test('three figures give the order in closed form: the ratio of their steps', () => {
  const of = (h: number): number => 1 + 0.3 * h ** 1.5;
  const [h, y] = [[4, 2, 1], [4, 2, 1].map(of)]; // prettier-ignore
  expect(richardson(h, y)!.order).toBeCloseTo(Math.log2((y[0] - y[1]) / (y[1] - y[2])), 1);
});

test('figures that scatter are told with wide bars that hold the limit, an order beyond belief is not believed, and two sizes tell nothing', () => {
  const noise = [0.02, -0.03, 0.025, -0.02, 0.03];
  const limit = richardson(sizes, sizes.map((h, i) => 5 + 0.01 * h + noise[i]))!; // prettier-ignore
  expect(Math.abs(limit.value - 5)).toBeLessThan(Math.max(...limit.errors));
  expect(Math.min(...limit.errors)).toBeGreaterThan(0.02);
  const steep = richardson(sizes, sizes.map((h) => 1 + h ** 5))!; // prettier-ignore
  expect([steep.found, steep.order]).toEqual([false, 2]);
  expect(richardson([1, 1, 0.5], [1, 1, 2])).toBeNull();
  // A figure that does not change is its limit.
  const still = richardson(sizes, sizes.map(() => 7))!; // prettier-ignore
  expect([still.value, Math.max(...still.errors), sizeFor({ ...still, off: 0 }, 0.1)]).toEqual([7, 0, Infinity]);
});
