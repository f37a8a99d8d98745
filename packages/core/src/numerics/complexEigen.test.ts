import { describe, expect, test } from '@jest/globals';
import { complexEigen } from './complexEigen.ts';

/** Numbers that look random, the same every time. */
function noise(seed: number): () => number {
  let s = seed;
  return () => (s = (Math.imul(s, 1103515245) + 12345) >>> 0) / 2 ** 32 - 0.5;
}

/** Largest |A x - lambda x| over all pairs. */
function worstResidual(re: Float64Array, im: Float64Array, n: number): number {
  const e = complexEigen(re.slice(), im.slice(), n);
  let worst = 0;
  for (let k = 0; k < n; k++) {
    let sum = 0;
    for (let r = 0; r < n; r++) {
      let [x, y] = [0, 0];
      for (let c = 0; c < n; c++) {
        x += re[r * n + c] * e.vectorRe[k][c] - im[r * n + c] * e.vectorIm[k][c];
        y += re[r * n + c] * e.vectorIm[k][c] + im[r * n + c] * e.vectorRe[k][c];
      }
      x -= e.re[k] * e.vectorRe[k][r] - e.im[k] * e.vectorIm[k][r];
      y -= e.re[k] * e.vectorIm[k][r] + e.im[k] * e.vectorRe[k][r];
      sum += x * x + y * y;
    }
    worst = Math.max(worst, Math.sqrt(sum));
  }
  return worst;
}

describe('eigenpairs of a small complex matrix', () => {
  test.each([1, 2, 3, 8, 25, 60])('%d x %d full of noise: every pair solves it', (n) => {
    const next = noise(n);
    const re = Float64Array.from({ length: n * n }, next);
    const im = Float64Array.from({ length: n * n }, next);
    expect(worstResidual(re, im, n)).toBeLessThan(1e-12 * n);
  });
  test('a real rotation has the pair c + js and c - js', () => {
    const [c, s] = [Math.cos(0.7), Math.sin(0.7)];
    const e = complexEigen(Float64Array.of(c, -s, s, c), new Float64Array(4), 2);
    expect([...e.re]).toEqual([expect.closeTo(c, 12), expect.closeTo(c, 12)]);
    expect([...e.im].sort()).toEqual([expect.closeTo(-s, 12), expect.closeTo(s, 12)].sort());
  });
  test('sums and products of the eigenvalues are trace and determinant', () => {
    const next = noise(3);
    const [re, im] = [Float64Array.from({ length: 4 }, next), Float64Array.from({ length: 4 }, next)];
    const e = complexEigen(re.slice(), im.slice(), 2);
    expect(e.re[0] + e.re[1]).toBeCloseTo(re[0] + re[3], 12);
    expect(e.im[0] + e.im[1]).toBeCloseTo(im[0] + im[3], 12);
    const product = [e.re[0] * e.re[1] - e.im[0] * e.im[1], e.re[0] * e.im[1] + e.im[0] * e.re[1]];
    expect(product[0]).toBeCloseTo(re[0] * re[3] - im[0] * im[3] - re[1] * re[2] + im[1] * im[2], 12);
    expect(product[1]).toBeCloseTo(re[0] * im[3] + im[0] * re[3] - re[1] * im[2] - im[1] * re[2], 12);
  });
  test('a defective matrix and one whose columns fall by twenty orders do not stop it', () => {
    expect(worstResidual(Float64Array.of(2, 1, 0, 0, 2, 1, 0, 0, 2), new Float64Array(9), 3)).toBeLessThan(1e-9);
    const n = 20;
    const next = noise(11);
    const graded = Float64Array.from({ length: n * n }, (_, i) => next() * 10 ** -(i % n));
    expect(worstResidual(graded, new Float64Array(n * n), n)).toBeLessThan(1e-12);
  });
});
