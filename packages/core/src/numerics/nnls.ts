/**
 * Least squares with coefficients that may not be negative: min |A x - b|, x >= 0 (C. L. Lawson and R. J. Hanson, Solving
 * Least Squares Problems, 1974, ch. 23). `a` holds m rows of n. Small dense problems only.
 */
export function nonNegative(a: Float64Array, b: Float64Array, m: number, n: number): Float64Array {
  // Normal equations with scaled columns: the fits that are made here have few, well-scaled columns.
  const scale = new Float64Array(n);
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < m; i++) scale[j] += a[i * n + j] ** 2;
    scale[j] = Math.sqrt(scale[j]) || 1;
  }
  const gram = new Float64Array(n * n);
  const right = new Float64Array(n);
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < m; i++) right[j] += (a[i * n + j] / scale[j]) * b[i];
    for (let k = 0; k < n; k++) for (let i = 0; i < m; i++) gram[j * n + k] += (a[i * n + j] * a[i * n + k]) / (scale[j] * scale[k]);
  }
  const x = new Float64Array(n);
  const free = new Set<number>();
  const tolerance = 1e-12 * Math.max(...right.map(Math.abs), 1e-300);
  for (let round = 0; round < 20 * n; round++) {
    let best = -1;
    let steepest = tolerance;
    for (let j = 0; j < n; j++) {
      if (free.has(j)) continue;
      let w = right[j];
      for (let k = 0; k < n; k++) w -= gram[j * n + k] * x[k];
      if (w > steepest) [best, steepest] = [j, w];
    }
    if (best < 0) break;
    free.add(best);
    for (;;) {
      const index = [...free];
      const z = solve(gram, right, n, index);
      if (z.every((v) => v > 0)) {
        x.fill(0);
        index.forEach((j, i) => (x[j] = z[i]));
        break;
      }
      // Step back to where the first coefficient reaches zero, and leave that one out.
      let step = 1;
      index.forEach((j, i) => {
        if (z[i] <= 0) step = Math.min(step, x[j] / (x[j] - z[i] || 1));
      });
      index.forEach((j, i) => {
        x[j] += step * (z[i] - x[j]);
        if (x[j] <= 1e-15) {
          x[j] = 0;
          free.delete(j);
        }
      });
      if (!free.size) break;
    }
  }
  return x.map((v, j) => v / scale[j]);
}

/** Solves the part of the normal equations that belongs to `index`, by Cholesky with a trace of regularisation. */
function solve(gram: Float64Array, right: Float64Array, n: number, index: number[]): Float64Array {
  const k = index.length;
  const l = new Float64Array(k * k);
  for (let i = 0; i < k; i++)
    for (let j = 0; j <= i; j++) {
      let s = gram[index[i] * n + index[j]] + (i === j ? 1e-12 : 0);
      for (let p = 0; p < j; p++) s -= l[i * k + p] * l[j * k + p];
      l[i * k + j] = i === j ? Math.sqrt(Math.max(s, 1e-14)) : s / l[j * k + j];
    }
  const y = new Float64Array(k);
  for (let i = 0; i < k; i++) {
    let s = right[index[i]];
    for (let p = 0; p < i; p++) s -= l[i * k + p] * y[p];
    y[i] = s / l[i * k + i];
  }
  for (let i = k - 1; i >= 0; i--) {
    let s = y[i];
    for (let p = i + 1; p < k; p++) s -= l[p * k + i] * y[p];
    y[i] = s / l[i * k + i];
  }
  return y;
}
