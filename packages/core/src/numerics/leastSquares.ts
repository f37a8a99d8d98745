import { rightDivide } from './complexSolve.ts';

/** Weights of a few columns whose sum comes closest to `r` in least squares, by the normal equations; null where they are not independent. */
export function leastSquares(columns: readonly Float64Array[], r: Float64Array): number[] | null {
  const m = columns.length;
  const dot = (p: Float64Array, q: Float64Array): number => p.reduce((sum, v, i) => sum + v * q[i], 0);
  const a = new Float64Array(2 * m * m);
  const b = new Float64Array(2 * m);
  columns.forEach((p, i) => {
    columns.forEach((q, j) => (a[2 * (i * m + j)] = dot(p, q)));
    b[2 * i] = dot(p, r);
  });
  // The matrix is symmetric, so X A = B gives its solution as a row.
  const x = rightDivide(b, a, 1, m);
  return x && Array.from({ length: m }, (_, i) => x[2 * i]);
}
