import { describe, expect, test } from '@jest/globals';
import { costsOf, type PlaneLoads, rebalanced, slabsOf } from '@jadebell/core/solvers/fdtd/parts';

const none = (n: number): Float64Array => new Float64Array(n);

const dealt = (planes: number, threads: number, loads: PlaneLoads): Int32Array => slabsOf(costsOf(planes, loads), threads);

describe('slabs of threads', () => {
  test('like planes are dealt out evenly, and every thread has one', () => {
    const loads = { cells: 100, layer: () => false, states: none(21), mixed: none(21) };
    expect([...dealt(20, 2, loads)]).toEqual([0, 10, 20]);
    expect([...dealt(20, 4, loads)]).toEqual([0, 5, 10, 15, 20]);
    expect([...dealt(3, 3, { ...loads, layer: (k) => k === 0 })]).toEqual([0, 1, 2, 3]);
  });
  test('planes with media that remember count for more', () => {
    const states = none(21).fill(600, 0, 5);
    const [, middle] = dealt(20, 2, { cells: 100, layer: () => false, states, mixed: none(21) });
    // 5 planes of 208 and 15 of 100: half of the sum is reached in the eighth.
    expect(middle).toBe(7);
  });
  test('borders follow what the sweeps took: planes that cost twice as much as was thought, a core of half the speed', () => {
    const costs = costsOf(200, { cells: 100, layer: () => false, states: none(201), mixed: none(201) });
    for (const real of [(k: number): number => (k < 100 ? 2 : 1), (_: number, t: number): number => (t === 0 ? 2 : 1)]) {
      const took = (slabs: Int32Array): Float64Array =>
        Float64Array.from({ length: 2 }, (_, t) => Array.from({ length: slabs[t + 1] - slabs[t] }, (__, i) => real(slabs[t] + i, t)).reduce((s, v) => s + v, 0)); // prettier-ignore
      let slabs = slabsOf(costs, 2);
      for (let n = 0; n < 8; n++) slabs = rebalanced(slabs, costs, took(slabs));
      const [a, b] = took(slabs);
      expect(Math.abs(a - b) / (a + b)).toBeLessThan(0.025);
      expect(rebalanced(slabs, costs, took(slabs))).toEqual(slabs);
    }
  });
  test('no slab loses its last plane, and no time leaves borders where they are', () => {
    const costs = costsOf(3, { cells: 1, layer: () => false, states: none(4), mixed: none(4) });
    const slabs = Int32Array.from([0, 1, 2, 3]);
    for (const took of [[9, 1, 1], [1, 9, 1], [0, 0, 0]]) expect([...rebalanced(slabs, costs, Float64Array.from(took))]).toEqual([0, 1, 2, 3]); // prettier-ignore
  });
});
