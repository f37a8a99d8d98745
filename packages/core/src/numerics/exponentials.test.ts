import { describe, expect, test } from '@jest/globals';
import { exponentialsAt, fitExponentials } from './exponentials.ts';
import { symmetricEigen } from './symmetricEigen.ts';

/** A repeatable sequence of numbers between -1 and 1. */
function noise(seed: number): () => number {
  let x = seed;
  return () => {
    x = (Math.imul(x, 1664525) + 1013904223) | 0;
    return x / 2 ** 31;
  };
}

describe('sums of exponentials', () => {
  const poles = [
    { f: 0.083, q: 900, a: [1, 0.2] },
    { f: 0.0841, q: 700, a: [0.5, -0.4] },
    { f: 0.213, q: 60, a: [0.1, 0.8] },
  ];
  const at = (s: number, m: number): number => poles.reduce((sum, { f, q, a }) => sum + a[s] * Math.exp((-Math.PI * f * m) / q) * Math.cos(2 * Math.PI * f * m + s), 0); // prettier-ignore

  test('two close resonances and a third are found in two signals with noise, and carried on', () => {
    const rnd = noise(7);
    const signals = [0, 1].map((s) => Float64Array.from({ length: 420 }, (_, m) => at(s, m) + 1e-6 * rnd()));
    const fit = fitExponentials(signals, 30)!;
    for (const { f, q } of poles) {
      const k = Array.from(fit.zRe.keys()).reduce((b, i) => (Math.abs(Math.atan2(fit.zIm[i], fit.zRe[i]) / (2 * Math.PI) - f) < Math.abs(Math.atan2(fit.zIm[b], fit.zRe[b]) / (2 * Math.PI) - f) ? i : b), 0); // prettier-ignore
      const got = Math.atan2(fit.zIm[k], fit.zRe[k]) / (2 * Math.PI);
      expect(got / f).toBeCloseTo(1, 4);
      expect((-Math.PI * got) / Math.log(Math.hypot(fit.zRe[k], fit.zIm[k])) / q).toBeCloseTo(1, 1);
    }
    const [from, count] = [420, 600];
    [0, 1].forEach((s) => {
      const next = exponentialsAt(fit, s, from, 0.5, count);
      for (let m = 0; m < count; m++) expect(Math.abs(next[m] - at(s, from + m / 2))).toBeLessThan(2e-3);
    });
  });

  test('too little is refused, and nothing that grows is given', () => {
    expect(fitExponentials([new Float64Array(6)], 10)).toBeNull();
    expect(fitExponentials([new Float64Array(200)], 10)).toBeNull();
    const growing = fitExponentials([Float64Array.from({ length: 200 }, (_, m) => Math.exp(0.01 * m) + Math.exp(-0.05 * m))], 10);
    for (let k = 0; k < (growing?.zRe.length ?? 0); k++) expect(Math.hypot(growing!.zRe[k], growing!.zIm[k])).toBeLessThan(1);
  });

  test('eigenvectors of a symmetric matrix are orthogonal and give it back', () => {
    const n = 12;
    const rnd = noise(3);
    const m = new Float64Array(n * n);
    for (let i = 0; i < n; i++) for (let j = 0; j <= i; j++) m[i * n + j] = m[j * n + i] = rnd();
    const { values, vectors } = symmetricEigen(m, n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        let [back, unit] = [0, 0];
        for (let k = 0; k < n; k++) {
          back += vectors[i * n + k] * values[k] * vectors[j * n + k];
          unit += vectors[k * n + i] * vectors[k * n + j];
        }
        expect(back).toBeCloseTo(m[i * n + j], 10);
        expect(unit).toBeCloseTo(i === j ? 1 : 0, 10);
      }
  });
});
