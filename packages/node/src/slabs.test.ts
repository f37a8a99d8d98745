import { describe, expect, test } from '@jest/globals';
import { slabsOf } from '../../core/src/solvers/fdtd/slabs.ts';

const none = (n: number): Float64Array => new Float64Array(n);

describe('slabs of threads', () => {
  test('like planes are dealt out evenly, and every thread has one', () => {
    const loads = { cells: 100, layer: () => false, states: none(21), mixed: none(21) };
    expect([...slabsOf(20, 2, loads)]).toEqual([0, 10, 20]);
    expect([...slabsOf(20, 4, loads)]).toEqual([0, 5, 10, 15, 20]);
    expect([...slabsOf(3, 3, { ...loads, layer: (k) => k === 0 })]).toEqual([0, 1, 2, 3]);
  });
  test('planes with media that remember count for more', () => {
    const states = none(21).fill(600, 0, 5);
    const [, middle] = slabsOf(20, 2, { cells: 100, layer: () => false, states, mixed: none(21) });
    // 5 planes of 208 and 15 of 100: half of the sum is reached in the eighth.
    expect(middle).toBe(7);
  });
});
