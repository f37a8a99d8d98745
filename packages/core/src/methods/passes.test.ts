import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { changeToCome, isSettled, type Pass } from './index.ts';

const passesOf = (...changes: (number | null)[]): Pass[] => changes.map((change, n) => ({ cells: 1000 * 2 ** n, change }));

const part = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });

describe('passes of adaptive accuracy', () => {
  test('have settled when two in a row changed the result by less than was asked for', () => {
    expect(isSettled(passesOf(null, 0.1, 0.009, 0.008), 0.01)).toBe(true);
    expect(isSettled(passesOf(null, 0.009, 0.008), 0.01)).toBe(true);
    expect(isSettled(passesOf(null, 0.009), 0.01)).toBe(false);
    expect(isSettled(passesOf(null, 0.001, 0.02, 0.009), 0.01)).toBe(false);
    expect(isSettled(passesOf(null, 0.001, 0.01), 0.01)).toBe(false);
  });

  test('tell what is to come: all of it where each change is a fixed part of the one before', () => {
    fc.assert(
      fc.property(part(0.05, 0.9), part(1e-6, 1), fc.integer({ min: 2, max: 6 }), (ratio, first, n) => {
        const value = (pass: number): number => (first * ratio ** pass) / (1 - ratio);
        const passes = passesOf(null, ...Array.from({ length: n }, (_, k) => value(k) - value(k + 1)));
        expect(changeToCome(passes)! / value(n)).toBeCloseTo(1, 6);
      }),
    );
  });

  test('tell nothing where changes do not shrink, or are too few', () => {
    expect(changeToCome(passesOf(null, 0.02, 0.02))).toBeNull();
    expect(changeToCome(passesOf(null, 0.02, 0.03))).toBeNull();
    expect(changeToCome(passesOf(null, 0.02))).toBeNull();
    expect(changeToCome(passesOf(null))).toBeNull();
    expect(changeToCome([])).toBeNull();
    expect(changeToCome(passesOf(null, 0.02, 0))).toBe(0);
  });
});
