import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { kept } from './kept.ts';

test('what says the same stays the same object, the rest is the new one', () => {
  const old = { a: [1, { b: 2 }], edges: Float32Array.of(1, 2), gone: 1, list: [{ n: 1 }, { n: 2 }] };
  const next = { a: [1, { b: 2 }], edges: Float32Array.of(1, 2), list: [{ n: 1 }, { n: 3 }, { n: 4 }] };
  const [before, wanted] = [structuredClone(old), structuredClone(next)];
  const made = kept(old, next);
  expect(made).toEqual(wanted);
  expect(old).toEqual(before);
  expect(made.a).toBe(old.a);
  expect(made.edges).toBe(old.edges);
  expect(made.list[0]).toBe(old.list[0]);
  expect(made.list).not.toBe(old.list);
  expect(kept(Float32Array.of(1), Float64Array.of(1))).toBeInstanceOf(Float64Array);
  expect(kept({ a: undefined }, { b: undefined })).toEqual({ b: undefined });
});

test('of any two values the answer equals the second, and is the first where they are equal', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (first, b) => {
      // JSON knows no negative zero: what went through it once comes out of it the same.
      const a = JSON.parse(JSON.stringify(first)) as unknown;
      const wanted = structuredClone(b);
      expect(kept(a, b)).toEqual(wanted);
      expect(a).toEqual(JSON.parse(JSON.stringify(first)));
      const again = JSON.parse(JSON.stringify(a)) as unknown;
      expect(kept(a, again)).toBe(a);
    }),
  );
});
