import { describe, expect, test } from '@jest/globals';
import { thorough } from './thorough.ts';
import { c0 } from '@jadebell/core/numerics';
import { polesOf } from './irisFilter.ts';
import { irisReflection } from './modeMatching.ts';

const a = 15.8e-3;
const size = (c: readonly [number, number]): number => Math.hypot(...c);

describe('mode matching of inductive irises', () => {
  test('no step, no reflection; a narrow iris reflects all', () => {
    expect(size(irisReflection({ width: a, openings: [a], thickness: 1e-3, cavities: [] }, 15e9, 12))).toBeLessThan(1e-9);
    expect(size(irisReflection({ width: a, openings: [1e-3], thickness: 1e-3, cavities: [] }, 15e9, 30))).toBeGreaterThan(0.9999);
  });
  test('a thin symmetrical iris comes near the first term of its susceptance, (guided wavelength / a) cot^2(pi d / 2a)', () => {
    for (const d of [4e-3, 6e-3]) {
      const f = 10.5e9;
      const k = (2 * Math.PI * f) / c0;
      const guided = (2 * Math.PI) / Math.sqrt(k * k - (Math.PI / a) ** 2);
      // Marcuvitz, Waveguide Handbook, sec. 5.2; the term holds for small openings far below the next mode.
      const susceptance = (guided / a) / Math.tan((Math.PI * d) / 2 / a) ** 2; // prettier-ignore
      const gamma = size(irisReflection({ width: a, openings: [d], thickness: 1e-7, cavities: [] }, f, 120));
      const expected = susceptance / Math.sqrt(4 + susceptance * susceptance);
      expect(Math.abs(gamma / expected - 1)).toBeLessThan(0.01);
    }
  });
  thorough('more modes change little, and the far end sees the same from either side', () => {
    const filter = { width: a, openings: [9e-3, 6e-3, 7e-3], thickness: 1e-3, cavities: [10e-3, 11e-3] };
    const turned = { ...filter, openings: filter.openings.toReversed(), cavities: filter.cavities.toReversed() };
    for (const f of [14e9, 15e9, 16e9]) {
      const few = size(irisReflection(filter, f, 20));
      expect(Math.abs(few - size(irisReflection(filter, f, 50)))).toBeLessThan(5e-3);
      // Lossless: |S11| = |S22|.
      expect(Math.abs(few - size(irisReflection(turned, f, 20)))).toBeLessThan(1e-9);
    }
  });
});

describe('poles of a rational function', () => {
  test('are found again from samples', () => {
    const poles: [number, number][] = [[1.2, 0.1], [1.5, 0.05], [1.9, 0.2]]; // prettier-ignore
    const at = (f: number): [number, number] =>
      poles.reduce<[number, number]>(([re, im], [p, q], i) => {
        const [x, y] = [f - p, -q];
        const d = x * x + y * y;
        return [re + ((i + 1) * x) / d, im - ((i + 1) * y) / d];
      }, [0.3, -0.1]); // prettier-ignore
    const f = Array.from({ length: 60 }, (_, i) => 1 + i / 59);
    polesOf(f, f.map(at), 3).forEach(([p, q], i) => {
      expect(p).toBeCloseTo(poles[i][0], 8);
      expect(q).toBeCloseTo(poles[i][1], 8);
    });
  });
});
