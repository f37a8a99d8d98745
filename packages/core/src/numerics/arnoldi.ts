import { dot } from './fronts.ts';
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';

/** Eigenpairs of a real matrix; complex ones have `im`, their vectors as real and imaginary part. */
export interface EigenPair {
  re: number;
  im: number;
  vector: Float64Array;
  vectorIm: Float64Array | null;
  /** Size of (A x - lambda x) by the recurrence, over that of lambda x, in the inverted problem. */
  residual: number;
}

/** Starting vectors. */
const strands = 2;

/**
 * The `count` eigenvalues of A nearest to a shift, by Arnoldi's method on the inverse of A - shift (Y. Saad, Numerical Methods
 * for Large Eigenvalue Problems, 2nd ed., ch. 6 and 8): `solve` applies that inverse in place. Vectors are orthogonalised
 * as often as needed; two strands are spun together, so that double eigenvalues are found. `keep` says which eigenvalues count; the search goes on until so many of those have converged.
 */
export function arnoldi(
  n: number,
  shift: number,
  count: number,
  solve: (x: Float64Array) => void,
  { tolerance = 1e-8, most = 120, keep = () => true }: { tolerance?: number; most?: number; keep?: (re: number, im: number) => boolean } = {},
): EigenPair[] {
  const limit = Math.min(most, n);
  const basis: Float64Array[] = [];
  const h: number[][] = [];
  let seed = 12345;
  const random = (): number => (seed = (Math.imul(seed, 1103515245) + 12345) >>> 0) / 2 ** 32 - 0.5;
  /** Takes out of w what the basis holds of it, and appends the rest; gives the parts and what was left. */
  const extend = (w: Float64Array): number[] => {
    const parts = new Array<number>(basis.length + 1).fill(0);
    const size = norm(w);
    let left = size;
    // Once more where much was taken away, as then what is left has lost its accuracy.
    for (let before = Infinity; left < 0.7 * before && left > 0;) {
      before = left;
      for (let j = 0; j < basis.length; j++) {
        const s = dot(basis[j], 0, w, n);
        parts[j] += s;
        subtract(w, s, basis[j]);
      }
      left = norm(w);
    }
    const spent = left <= 1e-13 * size;
    parts[basis.length] = spent ? 0 : left;
    // Where nothing is left a new direction goes on in its place.
    if (spent) extend(Float64Array.from({ length: n }, random));
    else {
      scale(w, 1 / left);
      basis.push(w);
    }
    return parts;
  };
  for (let i = 0; i < Math.min(strands, n); i++) extend(Float64Array.from({ length: n }, random));
  const check = Math.max(8, 2 * count + 4);
  for (let m = 1; m <= limit; m++) {
    const w = basis[m - 1].slice();
    solve(w);
    const whole = basis.length === n;
    h.push(whole ? basis.map((v) => dot(v, 0, w, n)) : extend(w));
    if (m === limit || (m >= check && (m - check) % 4 === 0)) {
      const found = ritz(h, m, shift, count, keep);
      if (m === limit || (found.length >= count && found.every((f) => f.residual < tolerance))) return found.map((f) => lift(f, basis, n));
    }
  }
  return [];
}

interface Ritz {
  re: number;
  im: number;
  y: number[];
  yIm: number[] | null;
  residual: number;
}

function ritz(h: number[][], m: number, shift: number, count: number, keep: (re: number, im: number) => boolean): Ritz[] {
  const matrix = Matrix.zeros(m, m);
  for (let c = 0; c < m; c++) for (let r = 0; r < Math.min(h[c].length, m); r++) matrix.set(r, c, h[c][r]);
  const e = new EigenvalueDecomposition(matrix, { assumeSymmetric: false });
  const vectors = e.eigenvectorMatrix;
  const [re, im] = [e.realEigenvalues, e.imaginaryEigenvalues];
  const out: Ritz[] = [];
  for (let i = 0; i < m; i++) {
    const size = Math.hypot(re[i], im[i]);
    if (size === 0) continue;
    const d = size * size;
    const lambda: [number, number] = [shift + re[i] / d, -im[i] / d];
    // Of a conjugate pair the vector's parts stand in two columns; one of the pair is enough.
    if (im[i] < 0 || !keep(...lambda)) continue;
    const y = vectors.getColumn(i);
    const yIm = im[i] > 0 ? vectors.getColumn(i + 1) : null;
    const length = Math.hypot(...y, ...(yIm ?? []));
    // What the operator takes out of the space spanned so far.
    const outside = new Map<number, [number, number]>();
    for (let c = 0; c < m; c++)
      for (let r = m; r < h[c].length; r++) {
        const [a, b] = outside.get(r) ?? [0, 0];
        outside.set(r, [a + h[c][r] * y[c], b + h[c][r] * (yIm?.[c] ?? 0)]);
      }
    const beyond = Math.hypot(...[...outside.values()].flat());
    out.push({ re: lambda[0], im: lambda[1], y, yIm, residual: beyond / length / size });
  }
  const distance = (r: Ritz): number => Math.hypot(r.re - shift, r.im);
  return out.sort((a, b) => distance(a) - distance(b)).slice(0, count);
}

function lift({ re, im, y, yIm, residual }: Ritz, basis: Float64Array[], n: number): EigenPair {
  const combine = (c: number[]): Float64Array => {
    const v = new Float64Array(n);
    c.forEach((s, j) => {
      const b = basis[j];
      for (let i = 0; i < n; i++) v[i] += s * b[i];
    });
    return v;
  };
  return { re, im, vector: combine(y), vectorIm: yIm && combine(yIm), residual };
}

const norm = (v: Float64Array): number => Math.sqrt(dot(v, 0, v, v.length));
function subtract(w: Float64Array, s: number, v: Float64Array): void {
  for (let i = 0; i < w.length; i++) w[i] -= s * v[i];
}
function scale(v: Float64Array, s: number): void {
  for (let i = 0; i < v.length; i++) v[i] *= s;
}
