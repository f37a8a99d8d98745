import { describe, expect, test } from '@jest/globals';
import { plainBody } from '@jadebell/verification/bench';
import { fillOf, Filling } from './index.ts';

const stuff = { name: 'stuff', kind: 'dielectric', permittivity: 2 } as const;
const bodies = [
  plainBody('low', 0, stuff, { form: 'box', min: [0, 0, 0], max: [4, 4, 4] }),
  // It comes later in the list, and before the other where they overlap.
  plainBody('late', 2, stuff, { form: 'box', min: [3, 1, 1], max: [6, 3, 3] }),
  plainBody('middle', 1, stuff, { form: 'ball', centre: [3, 2, 2], radii: [2, 1.5, 1] }),
  plainBody('thin', 3, stuff, { form: 'sheet', normal: 2, offset: 2, loops: [[[0, 0], [9, 0], [9, 9], [0, 9]]] }),
]; // prettier-ignore

const rowOf = (f: Filling, y: number, z: number, xs: number[]): number[] => {
  const out = new Uint16Array(xs.length);
  f.row(y, z, xs, out);
  return [...out];
};

describe('what fills points of space', () => {
  test('the later body counts, sheets fill nothing, and marks are those that were given', () => {
    const xs = [-1, 0.5, 1.5, 2.9, 3.5, 4.9, 5.5, 7];
    expect(rowOf(new Filling(bodies), 2, 2, xs)).toEqual([0, 1, 3, 3, 2, 2, 2, 0]);
    // Above the late box the ball is over the low one.
    expect(rowOf(new Filling(bodies), 3.2, 2, xs)).toEqual([0, 1, 1, 3, 3, 0, 0, 0]);
    expect(rowOf(new Filling(bodies, [7, 7, 9, 1]), 2, 2, xs)).toEqual([0, 7, 9, 9, 7, 7, 7, 0]);
  });

  test('a row goes where it is asked for, and leaves what stands beside it', () => {
    const out = new Uint16Array(6).fill(99);
    new Filling(bodies).row(2, 2, [0.5, 7], out, 2);
    expect([...out]).toEqual([99, 99, 1, 0, 99, 99]);
  });

  test('rows that bodies cut alike have the same description, others do not', () => {
    const f = new Filling(bodies);
    const xs = [0.5, 1.5, 2.5, 3.5, 4.5, 5.5];
    expect(f.cuts(0.5, 0.5, xs)).toBe(f.cuts(0.6, 3.5, xs));
    expect(f.cuts(0.5, 0.5, xs)).not.toBe(f.cuts(2, 2, xs));
    expect(f.cuts(9, 9, xs)).toBe('');
  });

  test('in a region bodies at a wall go on beyond it', () => {
    const region = { min: [0, 0, 0], max: [6, 4, 4] };
    const [free, closed] = [new Filling(bodies), new Filling(bodies, undefined, region)];
    expect(rowOf(free, -1, 0.5, [0.5])).toEqual([0]);
    expect(rowOf(closed, -1, 0.5, [0.5])).toEqual([1]);
    expect([closed.clamp(0, -1) > 0, closed.clamp(0, 9) < 6, closed.clamp(0, 3)]).toEqual([true, true, 3]);
    expect(free.clamp(0, -1)).toBe(-1);
    expect([closed.near(-3, -2, 0, 1), free.near(-3, -2, 0, 1)]).toEqual([true, false]);
  });

  test('a block of points is its rows', () => {
    const [x, y, z] = [[0.5, 3.5, 5.5], [2, 3.2], [2, 9]]; // prettier-ignore
    const all = [...fillOf(bodies, x, y, z)];
    expect(all).toEqual(z.flatMap((c) => y.flatMap((b) => rowOf(new Filling(bodies), b, c, x))));
    expect(all.slice(6)).toEqual([0, 0, 0, 0, 0, 0]);
  });
});
