/**
 * Direct solution of sparse systems that live on a grid of points in the plane, several unknowns a point, each coupled to the
 * eight points around its own only. Elimination by nested dissection of the rectangle (A. George, SIAM J. Numer. Anal. 10, 345,
 * 1973), front by front (I. S. Duff and J. K. Reid, ACM Trans. Math. Softw. 9, 302, 1983), without pivoting across rows: meant
 * for operators shifted to one side of their spectrum. Complex unknowns are kept as pairs.
 */

/** A sparse matrix by rows; `start` has one entry more than there are rows. */
export interface SparseRows {
  start: Int32Array;
  column: Int32Array;
  re: Float64Array;
}

/** Unknowns of the points: those of point p = j * nu + i are first[p] .. first[p + 1]. */
export interface PointUnknowns {
  nu: number;
  nv: number;
  first: Int32Array;
}

interface Front {
  /** Unknowns eliminated here, then those around that are eliminated later. */
  unknowns: Int32Array;
  own: number;
  children: Front[];
  /** Rows of U including the diagonal block with L below the diagonal: own x all. */
  upper: Float64Array;
  /** Columns of L below the own block: (all - own) x own. */
  lower: Float64Array;
}

/** Points of the largest rectangle that is eliminated in one go. */
const leaf = 30;

/** The factors of a matrix, ready to solve with. */
export class Fronts {
  private readonly root: Front;
  private readonly local: Int32Array;

  constructor(
    private readonly matrix: SparseRows,
    private readonly points: PointUnknowns,
    private readonly eliminate: Eliminate = eliminateReal,
  ) {
    this.local = new Int32Array(matrix.start.length - 1).fill(-1);
    this.transpose = transposed(matrix);
    const built = this.build(0, points.nu, 0, points.nv);
    this.root = built.front;
  }
  private readonly transpose: SparseRows;

  private inBox(i0: number, i1: number, j0: number, j1: number): number[] {
    const { nu, first } = this.points;
    const out: number[] = [];
    for (let j = j0; j < j1; j++) for (let i = i0; i < i1; i++) for (let n = first[j * nu + i]; n < first[j * nu + i + 1]; n++) out.push(n);
    return out;
  }

  /** Unknowns of the points just outside a rectangle. */
  private ring(i0: number, i1: number, j0: number, j1: number): number[] {
    const { nu, nv } = this.points;
    const [a, b] = [Math.max(0, i0 - 1), Math.min(nu, i1 + 1)];
    return [
      ...(j0 > 0 ? this.inBox(a, b, j0 - 1, j0) : []),
      ...(i0 > 0 ? this.inBox(i0 - 1, i0, j0, j1) : []),
      ...(i1 < nu ? this.inBox(i1, i1 + 1, j0, j1) : []),
      ...(j1 < nv ? this.inBox(a, b, j1, j1 + 1) : []),
    ];
  }

  private build(i0: number, i1: number, j0: number, j1: number): { front: Front; schur: Float64Array } {
    const [w, h] = [i1 - i0, j1 - j0];
    const children: { front: Front; schur: Float64Array }[] = [];
    let own: number[];
    if (w * h <= leaf || (w < 3 && h < 3)) own = this.inBox(i0, i1, j0, j1);
    else if (w >= h) {
      const m = (i0 + i1) >> 1;
      children.push(this.build(i0, m, j0, j1), this.build(m + 1, i1, j0, j1));
      own = this.inBox(m, m + 1, j0, j1);
    } else {
      const m = (j0 + j1) >> 1;
      children.push(this.build(i0, i1, j0, m), this.build(i0, i1, m + 1, j1));
      own = this.inBox(i0, i1, m, m + 1);
    }
    const unknowns = Int32Array.from([...own, ...this.ring(i0, i1, j0, j1)]);
    const { local, matrix, transpose } = this;
    const [n, p] = [unknowns.length, own.length];
    const f = new Float64Array(n * n);
    unknowns.forEach((u, at) => (local[u] = at));
    for (let r = 0; r < p; r++) {
      const u = unknowns[r];
      // The row, and of the column what the own rows do not hold already.
      for (let e = matrix.start[u]; e < matrix.start[u + 1]; e++) {
        const c = local[matrix.column[e]];
        if (c >= 0) f[r * n + c] += matrix.re[e];
      }
      for (let e = transpose.start[u]; e < transpose.start[u + 1]; e++) {
        const c = local[transpose.column[e]];
        if (c >= p) f[c * n + r] += transpose.re[e];
      }
    }
    for (const { front, schur } of children) {
      const outer = front.unknowns.subarray(front.own);
      const m = outer.length;
      const at = outer.map((u) => local[u]);
      for (let r = 0; r < m; r++) for (let c = 0; c < m; c++) f[at[r] * n + at[c]] += schur[r * m + c];
    }
    for (const u of unknowns) local[u] = -1;
    this.eliminate(f, n, p);
    const rest = n - p;
    const lower = new Float64Array(rest * p);
    const schur = new Float64Array(rest * rest);
    for (let r = 0; r < rest; r++) {
      const row = (p + r) * n;
      lower.set(f.subarray(row, row + p), r * p);
      schur.set(f.subarray(row + p, row + n), r * rest);
    }
    const upper = f.slice(0, p * n);
    return { front: { unknowns, own: p, children: children.map((c) => c.front), upper, lower }, schur };
  }

  /** Solves in place: `x` holds the right side, then the solution. */
  solve(x: Float64Array): void {
    this.forward(this.root, x);
    this.backward(this.root, x);
  }

  private forward(t: Front, x: Float64Array): void {
    for (const c of t.children) this.forward(c, x);
    const { unknowns, own: p, upper, lower } = t;
    const n = unknowns.length;
    const y = new Float64Array(p);
    for (let r = 0; r < p; r++) {
      const s = x[unknowns[r]] - dot(upper, r * n, y, r);
      y[r] = s;
      x[unknowns[r]] = s;
    }
    for (let r = p; r < n; r++) x[unknowns[r]] -= dot(lower, (r - p) * p, y, p);
  }

  private backward(t: Front, x: Float64Array): void {
    const { unknowns, own: p, upper } = t;
    const n = unknowns.length;
    const y = new Float64Array(n);
    for (let r = p; r < n; r++) y[r] = x[unknowns[r]];
    for (let r = p - 1; r >= 0; r--) {
      const row = r * n;
      const s = x[unknowns[r]] - dot(upper, row + r + 1, y, n - r - 1, r + 1);
      y[r] = s / upper[row + r];
      x[unknowns[r]] = y[r];
    }
    for (const c of t.children) this.backward(c, x);
  }
}

function transposed(m: SparseRows): SparseRows {
  const rows = m.start.length - 1;
  const start = new Int32Array(rows + 1);
  for (const c of m.column) start[c + 1]++;
  for (let r = 0; r < rows; r++) start[r + 1] += start[r];
  const next = start.slice(0, rows);
  const out: SparseRows = {
    start,
    column: new Int32Array(m.column.length),
    re: new Float64Array(m.re.length),
  };
  for (let r = 0; r < rows; r++)
    for (let e = m.start[r]; e < m.start[r + 1]; e++) {
      const to = next[m.column[e]]++;
      out.column[to] = r;
      out.re[to] = m.re[e];
    }
  return out;
}

/** Eliminates the first p of n unknowns of a dense row-major matrix in place: L (unit diagonal) and U where they fall. */
export type Eliminate = (f: Float64Array, n: number, p: number) => void;

const eliminateReal: Eliminate = (f, n, p) => {
  for (let k = 0; k < p; k++)
    for (let r = k + 1; r < n; r++) {
      const l = (f[r * n + k] /= f[k * n + k]);
      if (l !== 0) for (let c = k + 1; c < n; c++) f[r * n + c] -= l * f[k * n + c];
    }
};

/** Sum of a[from ..] b[0 .. count], in four strands that do not wait for each other. */
export function dot(a: Float64Array, from: number, b: Float64Array, count: number, shift = 0): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let i = 0;
  for (; i + 4 <= count; i += 4) {
    s0 += a[from + i] * b[shift + i];
    s1 += a[from + i + 1] * b[shift + i + 1];
    s2 += a[from + i + 2] * b[shift + i + 2];
    s3 += a[from + i + 3] * b[shift + i + 3];
  }
  for (; i < count; i++) s0 += a[from + i] * b[shift + i];
  return s0 + s1 + s2 + s3;
}
