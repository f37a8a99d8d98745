/** Most steps of the iteration for each eigenvalue; three or so are usual. */
const mostSteps = 60;

/**
 * Eigenpairs of a symmetric matrix [n][n]: tridiagonal form by reflections, then implicit QL (R. S. Martin, C. Reinsch and J. H. Wilkinson, and A. Dubrulle et al.,
 * Handbook for Automatic Computation II, 1971, II/2 and II/4). Eigenvector k in column k, of unit length.
 * @throws RangeError where the iteration does not end.
 */
export function symmetricEigen(matrix: Float64Array, n: number): { values: Float64Array; vectors: Float64Array } {
  // Vectors in rows while they are worked on, so that inner loops run along memory.
  const v = matrix.slice();
  const [values, beside] = [new Float64Array(n), new Float64Array(n)];
  tridiagonalise(v, values, beside, n);
  rotate(v, values, beside, n);
  const vectors = new Float64Array(n * n);
  for (let k = 0; k < n; k++) for (let i = 0; i < n; i++) vectors[i * n + k] = v[k * n + i];
  return { values, vectors };
}

/** Brings a to tridiagonal form, diagonal d and e beside it from 1 on; a becomes the transform, its basis in rows. */
function tridiagonalise(a: Float64Array, d: Float64Array, e: Float64Array, n: number): void {
  const [u, p] = [new Float64Array(n), new Float64Array(n)];
  const basis = new Float64Array(n * n);
  for (let i = 0; i < n; i++) basis[i * n + i] = 1;
  for (let k = n - 1; k > 1; k--) {
    // Reflects what stands left of the place beside the diagonal of row k.
    let size = 0;
    for (let i = 0; i < k; i++) size += a[k * n + i] ** 2;
    const last = a[k * n + k - 1];
    const alpha = last > 0 ? -Math.sqrt(size) : Math.sqrt(size);
    const half = size - last * alpha;
    if (!(half > 0) || size === last * last) continue;
    for (let i = 0; i < k; i++) u[i] = a[k * n + i];
    u[k - 1] -= alpha;
    // A' = A - u q^T - q u^T with p = A u / h, q = p - (u.p / 2h) u.
    let along = 0;
    for (let i = 0; i < k; i++) {
      let sum = 0;
      for (let j = 0; j < k; j++) sum += a[i * n + j] * u[j];
      p[i] = sum / half;
      along += u[i] * p[i];
    }
    along /= 2 * half;
    for (let i = 0; i < k; i++) p[i] -= along * u[i];
    for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) a[i * n + j] -= u[i] * p[j] + p[i] * u[j];
    for (let i = 0; i < k; i++) a[k * n + i] = a[i * n + k] = i === k - 1 ? alpha : 0;
    // The basis: rows below k - 1 mix.
    for (let c = 0; c < n; c++) p[c] = 0;
    for (let i = 0; i < k; i++) for (let c = 0; c < n; c++) p[c] += u[i] * basis[i * n + c];
    for (let i = 0; i < k; i++) for (let c = 0; c < n; c++) basis[i * n + c] -= (u[i] / half) * p[c];
  }
  for (let i = 0; i < n; i++) {
    d[i] = a[i * n + i];
    e[i] = i ? a[i * n + i - 1] : 0;
  }
  a.set(basis);
}

/**
 * Rotates what stands beside the diagonal away; the basis in rows of v goes with it.
 * @throws RangeError where the iteration does not end.
 */
function rotate(v: Float64Array, d: Float64Array, e: Float64Array, n: number): void {
  e.copyWithin(0, 1);
  e[n - 1] = 0;
  for (let l = 0; l < n; l++)
    for (let steps = 0; ; steps++) {
      let m = l;
      while (m < n - 1 && Math.abs(e[m]) > Number.EPSILON * (Math.abs(d[m]) + Math.abs(d[m + 1]))) m++;
      if (m === l) break;
      if (steps === mostSteps) throw new RangeError('The eigenvalues of a symmetric matrix do not converge.');
      let g = (d[l + 1] - d[l]) / (2 * e[l]);
      g = d[m] - d[l] + e[l] / (g + Math.sign(g || 1) * Math.hypot(g, 1));
      let [s, c, p] = [1, 1, 0];
      let i = m - 1;
      for (; i >= l; i--) {
        const f = s * e[i];
        const b = c * e[i];
        const r = Math.hypot(f, g);
        e[i + 1] = r;
        if (r === 0) {
          d[i + 1] -= p;
          e[m] = 0;
          break;
        }
        [s, c] = [f / r, g / r];
        const h = d[i + 1] - p;
        const t = (d[i] - h) * s + 2 * c * b;
        p = s * t;
        d[i + 1] = h + p;
        g = c * t - b;
        for (let k = i * n, q = k + n, end = q; k < end; k++, q++) {
          const x = v[q];
          v[q] = s * v[k] + c * x;
          v[k] = c * v[k] - s * x;
        }
      }
      if (i >= l) continue;
      d[l] -= p;
      e[l] = g;
      e[m] = 0;
    }
}
