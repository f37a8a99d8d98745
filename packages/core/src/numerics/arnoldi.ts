import { complexEigen } from './complexEigen.ts';

/** An eigenpair; `vectorIm` is null where the vector is real. */
export interface EigenPair {
  re: number;
  im: number;
  vector: Float64Array;
  vectorIm: Float64Array | null;
  /** Size of (A x - lambda x) by the recurrence, over that of lambda x, in the inverted problem. */
  residual: number;
}

export interface ArnoldiOptions {
  /** Residual at which a pair counts as found. */
  tolerance?: number;
  /** Most steps. */
  most?: number;
  /** Which eigenvalues count; the search goes on until so many of those have converged. */
  keep?: (re: number, im: number) => boolean;
  /** Vectors are complex, pairs of real and imaginary part. */
  complex?: boolean;
  /** Imaginary part of the shift, of complex problems. */
  shiftIm?: number;
  /** Vectors to begin with in place of random ones. */
  start?: Float64Array[];
}

/** Starting vectors. */
const strands = 2;

/**
 * The `count` eigenvalues of A nearest to a shift, by Arnoldi's method on the inverse of A - shift (Y. Saad, Numerical Methods
 * for Large Eigenvalue Problems, 2nd ed., ch. 6 and 8): `solve` applies that inverse in place to a vector of n unknowns.
 * Vectors are orthogonalised as often as needed; two strands are spun together, so that double eigenvalues are found. Of a real
 * matrix one of each conjugate pair is given.
 */
export function arnoldi(
  n: number,
  shift: number,
  count: number,
  solve: (x: Float64Array) => void,
  { tolerance = 1e-8, most = 120, keep = () => true, complex = false, shiftIm = 0, start = [] }: ArnoldiOptions = {},
): EigenPair[] {
  const limit = Math.min(most, n);
  const width = (complex ? 2 : 1) * n;
  const basis: Float64Array[] = [];
  // Column m holds what the inverse makes of basis vector m: real parts, imaginary parts.
  const columns: { re: number[]; im: number[] }[] = [];
  let seed = 12345;
  const random = (): number => (seed = (Math.imul(seed, 1103515245) + 12345) >>> 0) / 2 ** 32 - 0.5;
  const fresh = (): Float64Array => Float64Array.from({ length: width }, random);
  /** Takes out of w what the basis holds of it, and appends the rest; gives the parts and what was left. */
  const extend = (w: Float64Array): { re: number[]; im: number[] } => {
    const re = new Array<number>(basis.length + 1).fill(0);
    const im = new Array<number>(basis.length + 1).fill(0);
    const size = norm(w);
    let left = size;
    // Once more where much was taken away, as then what is left has lost its accuracy.
    for (let before = Infinity; left < 0.7 * before && left > 0;) {
      before = left;
      for (let j = 0; j < basis.length; j++) {
        const b = basis[j];
        const [pr, pi] = complex ? innerComplex(b, w) : [inner(b, w), 0];
        re[j] += pr;
        im[j] += pi;
        if (complex) subtractComplex(w, pr, pi, b);
        else subtract(w, pr, b);
      }
      left = norm(w);
    }
    const spent = left <= 1e-13 * size;
    re[basis.length] = spent ? 0 : left;
    // Where nothing is left a new direction goes on in its place.
    if (spent) extend(fresh());
    else {
      for (let i = 0; i < w.length; i++) w[i] /= left;
      basis.push(w);
    }
    return { re, im };
  };
  for (let i = 0; i < Math.min(Math.max(strands, start.length), n); i++) extend(start[i]?.slice() ?? fresh());
  const check = Math.max(8, 2 * count + 4);
  for (let m = 1; m <= limit; m++) {
    const w = basis[m - 1].slice();
    solve(w);
    if (basis.length < n) columns.push(extend(w));
    else {
      const parts = basis.map((b) => (complex ? innerComplex(b, w) : [inner(b, w), 0]));
      columns.push({ re: parts.map((p) => p[0]), im: parts.map((p) => p[1]) });
    }
    if (m === limit || (m >= check && (m - check) % 4 === 0)) {
      const found = ritz(columns, m, complex, [shift, shiftIm], count, keep);
      if (m === limit || (found.length >= count && found.every((f) => f.residual < tolerance))) return found.map((f) => lift(f, basis, complex));
    }
  }
  return [];
}

interface Ritz {
  re: number;
  im: number;
  y: Float64Array;
  yIm: Float64Array;
  residual: number;
}

function ritz(
  columns: { re: number[]; im: number[] }[],
  m: number,
  complex: boolean,
  [shift, shiftIm]: [number, number],
  count: number,
  keep: (re: number, im: number) => boolean,
): Ritz[] {
  const [hr, hi] = [new Float64Array(m * m), new Float64Array(m * m)];
  for (let c = 0; c < m; c++)
    for (let r = 0; r < Math.min(columns[c].re.length, m); r++) {
      hr[r * m + c] = columns[c].re[r];
      hi[r * m + c] = columns[c].im[r];
    }
  const found = complexEigen(hr, hi, m);
  const out: Ritz[] = [];
  for (let i = 0; i < m; i++) {
    const d = found.re[i] ** 2 + found.im[i] ** 2;
    if (d === 0) continue;
    let im = shiftIm - found.im[i] / d;
    // Of a real matrix what is left of an imaginary part is rounding.
    const real = !complex && Math.abs(found.im[i]) < 1e-8 * Math.sqrt(d);
    if (real) im = 0;
    const re = shift + found.re[i] / d;
    if ((!complex && im < 0) || !keep(re, im)) continue;
    const [y, yIm] = [found.vectorRe[i], found.vectorIm[i]];
    if (real) straighten(y, yIm);
    // What the operator takes out of the space spanned so far.
    const beyond = new Map<number, [number, number]>();
    for (let c = 0; c < m; c++) {
      const { re: pr, im: pi } = columns[c];
      for (let r = m; r < pr.length; r++) {
        const [a, b] = beyond.get(r) ?? [0, 0];
        beyond.set(r, [a + pr[r] * y[c] - pi[r] * yIm[c], b + pr[r] * yIm[c] + pi[r] * y[c]]);
      }
    }
    out.push({ re, im, y, yIm, residual: Math.hypot(...[...beyond.values()].flat()) / Math.sqrt(d) });
  }
  const distance = (r: Ritz): number => Math.hypot(r.re - shift, r.im - shiftIm);
  return out.sort((a, b) => distance(a) - distance(b)).slice(0, count);
}

/** Turns the phase of a vector that is real but for a factor so that it is real. */
function straighten(y: Float64Array, yIm: Float64Array): void {
  let at = 0;
  for (let i = 1; i < y.length; i++) if (Math.hypot(y[i], yIm[i]) > Math.hypot(y[at], yIm[at])) at = i;
  const size = Math.hypot(y[at], yIm[at]);
  const [c, s] = [y[at] / size, yIm[at] / size];
  for (let i = 0; i < y.length; i++) {
    y[i] = c * y[i] + s * yIm[i];
    yIm[i] = 0;
  }
}

function lift({ re, im, y, yIm, residual }: Ritz, basis: Float64Array[], complex: boolean): EigenPair {
  const n = complex ? basis[0].length / 2 : basis[0].length;
  const vector = new Float64Array(n);
  const vectorIm = complex || im !== 0 ? new Float64Array(n) : null;
  for (let j = 0; j < y.length; j++) {
    const [b, s, t] = [basis[j], y[j], yIm[j]];
    if (complex)
      for (let i = 0; i < n; i++) {
        vector[i] += s * b[2 * i] - t * b[2 * i + 1];
        vectorIm![i] += s * b[2 * i + 1] + t * b[2 * i];
      }
    else
      for (let i = 0; i < n; i++) {
        vector[i] += s * b[i];
        if (vectorIm) vectorIm[i] += t * b[i];
      }
  }
  return { re, im, vector, vectorIm, residual };
}

const norm = (v: Float64Array): number => Math.sqrt(inner(v, v));
/** Sum of a b, in four strands that do not wait for each other. */
function inner(a: Float64Array, b: Float64Array): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let i = 0;
  for (; i + 4 <= a.length; i += 4) {
    s0 += a[i] * b[i];
    s1 += a[i + 1] * b[i + 1];
    s2 += a[i + 2] * b[i + 2];
    s3 += a[i + 3] * b[i + 3];
  }
  for (; i < a.length; i++) s0 += a[i] * b[i];
  return s0 + s1 + s2 + s3;
}
/** Sum of conj(a) b over pairs. */
function innerComplex(a: Float64Array, b: Float64Array): [number, number] {
  let [s0, s1, s2, s3] = [0, 0, 0, 0];
  for (let i = 0; i < a.length; i += 2) {
    s0 += a[i] * b[i];
    s1 += a[i + 1] * b[i + 1];
    s2 += a[i] * b[i + 1];
    s3 += a[i + 1] * b[i];
  }
  return [s0 + s1, s2 - s3];
}
function subtract(w: Float64Array, s: number, v: Float64Array): void {
  for (let i = 0; i < w.length; i++) w[i] -= s * v[i];
}
function subtractComplex(w: Float64Array, sr: number, si: number, v: Float64Array): void {
  for (let i = 0; i < w.length; i += 2) {
    const [x, y] = [v[i], v[i + 1]];
    w[i] -= sr * x - si * y;
    w[i + 1] -= sr * y + si * x;
  }
}
