import { describe, expect, test } from '@jest/globals';
import { gauss } from './gauss.ts';
import { RationalFit } from './rationalFit.ts';

type F = (z: number) => Float64Array;
/** Samples a function on nested points until so many, and gives the largest error between. */
function errorOf(f: F, count: number): number {
  const fit = new RationalFit(1e-9);
  const points = [-1, 1, 0];
  for (let step = 0.5; points.length < count; step /= 2) for (let z = -1 + step; z < 1; z += 2 * step) points.push(z);
  for (const z of points.slice(0, count)) fit.add(z, f(z));
  let off = 0;
  for (let z = -1; z <= 1; z += 0.0071) {
    const [a, b] = [fit.at(z), f(z)];
    for (let i = 0; i < b.length; i++) off = Math.max(off, Math.abs(a[i] - b[i]));
  }
  return off;
}

describe('a rational function through samples of a vector', () => {
  test('poles close to the band are found', () => {
    const poles: [number, number][] = [[-0.3, 0.02], [0.4, 0.05]]; // prettier-ignore
    const f: F = (z) =>
      Float64Array.from(
        [1, -2, 0.5].flatMap((r, i) =>
          poles.reduce(
            ([re, im], [x, y], k) => {
              const d = (z - x) ** 2 + y * y;
              const w = (k ? r : 1) / d;
              return [re + w * (z - x), im + w * y];
            },
            [i, z],
          ),
        ),
      );
    expect(errorOf(f, 9)).toBeLessThan(1e-6);
  });

  test('so are smooth functions whose samples are almost alike', () => {
    const f: F = (z) => Float64Array.from([0, 0.2, 0.9].flatMap((x) => [Math.cos((2 + 1.9 * z) * x) / (1 + x), Math.sin((1 + z) * x)]));
    expect(errorOf(f, 13)).toBeLessThan(1e-6);
  });

  test('all samples are met, also while there are few', () => {
    const fit = new RationalFit(1e-9);
    const f: F = (z) => Float64Array.of(Math.exp(z), Math.sin(5 * z));
    for (const z of [-1, 1, 0, 0.3]) {
      fit.add(z, f(z));
      const told = fit.at(z);
      f(z).forEach((v, i) => expect(told[i]).toBeCloseTo(v, 8));
    }
  });
});

test('points and weights of Gauss and Legendre integrate polynomials of twice the degree', () => {
  for (const n of [1, 2, 3, 4, 8, 24]) {
    const { points, weights } = gauss(n);
    for (let k = 0; k < 2 * n; k++) expect(points.reduce((s, x, i) => s + weights[i] * x ** k, 0)).toBeCloseTo(1 / (k + 1), 12);
  }
});
