/**
 * Solves X A = B for X, complex: A is m x m, B is n x m, both row-major with pairs of real and imaginary part. Gaussian
 * elimination with column pivoting on a copy; for the few channels of a network. Null where A is singular.
 */
export function rightDivide(b: Float64Array, a: Float64Array, n: number, m: number): Float64Array | null {
  // X A = B is A^T X^T = B^T: eliminate the transposes.
  const w = m + n;
  const t = new Float64Array(2 * m * w);
  for (let r = 0; r < m; r++) {
    for (let c = 0; c < m; c++) copy(a, c * m + r, t, r * w + c);
    for (let c = 0; c < n; c++) copy(b, c * m + r, t, r * w + m + c);
  }
  for (let k = 0; k < m; k++) {
    let best = k;
    for (let r = k + 1; r < m; r++) if (size(t, r * w + k) > size(t, best * w + k)) best = r;
    if (!(size(t, best * w + k) > 0)) return null;
    if (best !== k)
      for (let c = 0; c < 2 * w; c++) {
        const x = t[2 * k * w + c];
        t[2 * k * w + c] = t[2 * best * w + c];
        t[2 * best * w + c] = x;
      }
    const [pr, pi] = [t[2 * (k * w + k)], t[2 * (k * w + k) + 1]];
    const d = pr * pr + pi * pi;
    for (let c = k; c < w; c++) {
      const at = 2 * (k * w + c);
      const [x, y] = [t[at], t[at + 1]];
      t[at] = (x * pr + y * pi) / d;
      t[at + 1] = (y * pr - x * pi) / d;
    }
    for (let r = 0; r < m; r++) {
      if (r === k) continue;
      const [fr, fi] = [t[2 * (r * w + k)], t[2 * (r * w + k) + 1]];
      if (fr === 0 && fi === 0) continue;
      for (let c = k; c < w; c++) {
        const from = 2 * (k * w + c);
        const to = 2 * (r * w + c);
        t[to] -= fr * t[from] - fi * t[from + 1];
        t[to + 1] -= fr * t[from + 1] + fi * t[from];
      }
    }
  }
  const x = new Float64Array(2 * n * m);
  for (let r = 0; r < m; r++) for (let c = 0; c < n; c++) copy(t, r * w + m + c, x, c * m + r);
  return x;
}

const size = (x: Float64Array, at: number): number => x[2 * at] ** 2 + x[2 * at + 1] ** 2;
function copy(from: Float64Array, i: number, to: Float64Array, j: number): void {
  to[2 * j] = from[2 * i];
  to[2 * j + 1] = from[2 * i + 1];
}
