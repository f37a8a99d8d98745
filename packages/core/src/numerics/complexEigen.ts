/**
 * Eigenvalues and right eigenvectors of a small dense complex matrix: Hessenberg form by stabilised elimination, then shifted QR
 * by plane rotations, then back substitution (G. H. Golub and C. F. Van Loan, Matrix Computations, 4th ed., ch. 7).
 */
export interface ComplexPairs {
  /** Eigenvalues. */
  re: Float64Array;
  im: Float64Array;
  /** Unit eigenvector k in row k, real and imaginary parts. */
  vectorRe: Float64Array[];
  vectorIm: Float64Array[];
}

/** Most QR sweeps for each eigenvalue. */
const mostSweeps = 60;

/** Eigenpairs of the matrix [n][n], row-major, in real and imaginary part; the arguments are used up. Throws RangeError if the iteration does not converge. */
export function complexEigen(re: Float64Array, im: Float64Array, n: number): ComplexPairs {
  const [qr, qi] = [identity(n), new Float64Array(n * n)];
  hessenberg(re, im, qr, qi, n);
  triangularise(re, im, qr, qi, n);
  return vectors(re, im, qr, qi, n);
}

function identity(n: number): Float64Array {
  const q = new Float64Array(n * n);
  for (let i = 0; i < n; i++) q[i * n + i] = 1;
  return q;
}

/** [c, sr, si] of the rotation that takes (x, y) to (r, 0): c real; first row c, s; second row -conj(s), c. */
function rotation(xr: number, xi: number, yr: number, yi: number): [c: number, sr: number, si: number] {
  const y = Math.hypot(yr, yi);
  if (y === 0) return [1, 0, 0];
  const x = Math.hypot(xr, xi);
  if (x === 0) return [0, yr / y, -yi / y];
  const r = Math.hypot(x, y);
  // s = (x / |x|) conj(y) / r
  const [ur, ui] = [xr / x, xi / x];
  return [x / r, (ur * yr + ui * yi) / r, (ui * yr - ur * yi) / r];
}

/** Rows p and q of a matrix by a rotation, columns from `from` to `to`. */
function turnRows(
  ar: Float64Array,
  ai: Float64Array,
  n: number,
  p: number,
  q: number,
  [c, sr, si]: [number, number, number],
  from: number,
  to: number,
): void {
  for (let k = from; k < to; k++) {
    const [i, j] = [p * n + k, q * n + k];
    const [xr, xi, yr, yi] = [ar[i], ai[i], ar[j], ai[j]];
    ar[i] = c * xr + sr * yr - si * yi;
    ai[i] = c * xi + sr * yi + si * yr;
    ar[j] = c * yr - (sr * xr + si * xi);
    ai[j] = c * yi - (sr * xi - si * xr);
  }
}

/** Columns p and q by the rotation's adjoint, rows below `to`. */
function turnColumns(ar: Float64Array, ai: Float64Array, n: number, p: number, q: number, [c, sr, si]: [number, number, number], to: number): void {
  for (let k = 0; k < to; k++) {
    const [i, j] = [k * n + p, k * n + q];
    const [xr, xi, yr, yi] = [ar[i], ai[i], ar[j], ai[j]];
    ar[i] = c * xr + (sr * yr + si * yi);
    ai[i] = c * xi + (sr * yi - si * yr);
    ar[j] = c * yr - (sr * xr - si * xi);
    ai[j] = c * yi - (sr * xi + si * xr);
  }
}

function hessenberg(ar: Float64Array, ai: Float64Array, qr: Float64Array, qi: Float64Array, n: number): void {
  for (let k = 0; k + 2 < n; k++)
    for (let r = n - 1; r > k + 1; r--) {
      const at = r * n + k;
      if (ar[at] === 0 && ai[at] === 0) continue;
      const g = rotation(ar[at - n], ai[at - n], ar[at], ai[at]);
      turnRows(ar, ai, n, r - 1, r, g, k, n);
      turnColumns(ar, ai, n, r - 1, r, g, n);
      turnColumns(qr, qi, n, r - 1, r, g, n);
    }
}

function triangularise(ar: Float64Array, ai: Float64Array, qr: Float64Array, qi: Float64Array, n: number): void {
  const size = (i: number): number => Math.abs(ar[i]) + Math.abs(ai[i]);
  for (let top = n - 1, sweeps = 0; top > 0;) {
    let low = top;
    for (; low > 0; low--) {
      const at = low * n + low - 1;
      if (size(at) <= 1e-15 * (size(low * n + low) + size((low - 1) * n + low - 1))) {
        ar[at] = ai[at] = 0;
        break;
      }
    }
    if (low === top) {
      top--;
      sweeps = 0;
      continue;
    }
    if (++sweeps > mostSweeps) throw new RangeError('The eigenvalues of a small matrix did not converge.');
    const [mr, mi] = sweeps % 11 === 10 ? [size(top * n + top - 1), 0] : wilkinson(ar, ai, n, top);
    for (let i = low; i <= top; i++) {
      ar[i * n + i] -= mr;
      ai[i * n + i] -= mi;
    }
    const turns: [number, number, number][] = [];
    for (let i = low; i < top; i++) {
      const g = rotation(ar[i * n + i], ai[i * n + i], ar[(i + 1) * n + i], ai[(i + 1) * n + i]);
      turnRows(ar, ai, n, i, i + 1, g, i, n);
      turns.push(g);
    }
    turns.forEach((g, t) => {
      const i = low + t;
      turnColumns(ar, ai, n, i, i + 1, g, Math.min(i + 2, top) + 1);
      turnColumns(qr, qi, n, i, i + 1, g, n);
    });
    for (let i = low; i <= top; i++) {
      ar[i * n + i] += mr;
      ai[i * n + i] += mi;
    }
    // Columns right of the active block and rows above it have been turned with the block; the shift there is nil.
  }
}

/** The eigenvalue of the last 2 x 2 block that is nearer to its last entry. */
function wilkinson(ar: Float64Array, ai: Float64Array, n: number, top: number): [number, number] {
  const [a, b, c, d] = [(top - 1) * n + top - 1, (top - 1) * n + top, top * n + top - 1, top * n + top];
  const [hr, hi] = [(ar[a] - ar[d]) / 2, (ai[a] - ai[d]) / 2];
  const [tr, ti] = [hr * hr - hi * hi + ar[b] * ar[c] - ai[b] * ai[c], 2 * hr * hi + ar[b] * ai[c] + ai[b] * ar[c]];
  const root = Math.sqrt(Math.hypot(tr, ti));
  const half = Math.atan2(ti, tr) / 2;
  let [sr, si] = [root * Math.cos(half), root * Math.sin(half)];
  if (sr * hr + si * hi > 0) [sr, si] = [-sr, -si];
  return [ar[d] + hr + sr, ai[d] + hi + si];
}

function vectors(ar: Float64Array, ai: Float64Array, qr: Float64Array, qi: Float64Array, n: number): ComplexPairs {
  const out: ComplexPairs = { re: new Float64Array(n), im: new Float64Array(n), vectorRe: [], vectorIm: [] };
  let largest = 0;
  for (let i = 0; i < n; i++) largest = Math.max(largest, Math.hypot(ar[i * n + i], ai[i * n + i]));
  for (let k = 0; k < n; k++) {
    const [lr, li] = [ar[k * n + k], ai[k * n + k]];
    out.re[k] = lr;
    out.im[k] = li;
    const [xr, xi] = [new Float64Array(n), new Float64Array(n)];
    xr[k] = 1;
    for (let i = k - 1; i >= 0; i--) {
      let [sr, si] = [0, 0];
      for (let j = i + 1; j <= k; j++) {
        const at = i * n + j;
        sr -= ar[at] * xr[j] - ai[at] * xi[j];
        si -= ar[at] * xi[j] + ai[at] * xr[j];
      }
      let [dr, di] = [ar[i * n + i] - lr, ai[i * n + i] - li];
      if (Math.hypot(dr, di) < 1e-15 * largest) [dr, di] = [1e-15 * largest || 1e-300, 0];
      const d = dr * dr + di * di;
      xr[i] = (sr * dr + si * di) / d;
      xi[i] = (si * dr - sr * di) / d;
    }
    const [vr, vi] = [new Float64Array(n), new Float64Array(n)];
    let norm = 0;
    for (let i = 0; i < n; i++) {
      for (let j = 0; j <= k; j++) {
        const at = i * n + j;
        vr[i] += qr[at] * xr[j] - qi[at] * xi[j];
        vi[i] += qr[at] * xi[j] + qi[at] * xr[j];
      }
      norm += vr[i] ** 2 + vi[i] ** 2;
    }
    norm = Math.sqrt(norm);
    for (let i = 0; i < n; i++) {
      vr[i] /= norm;
      vi[i] /= norm;
    }
    out.vectorRe.push(vr);
    out.vectorIm.push(vi);
  }
  return out;
}
