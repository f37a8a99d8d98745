import { type Factors, type FrontKernel, plainKernel } from './factors.ts';

/**
 * Direct solution of sparse systems that live on a grid of points in the plane, several unknowns a point, each coupled to the
 * eight points around its own only. Elimination by nested dissection of the rectangle (A. George, SIAM J. Numer. Anal. 10, 345,
 * 1973), front by front (I. S. Duff and J. K. Reid, ACM Trans. Math. Softw. 9, 302, 1983), without pivoting across rows: meant
 * for operators shifted to one side of their spectrum. Complex values are kept as pairs.
 */

/** A sparse matrix by rows; `start` has one entry more than there are rows. */
export interface SparseRows {
  start: Int32Array;
  column: Int32Array;
  re: Float64Array;
  /** Imaginary parts, of complex matrices. */
  im?: Float64Array;
}

/** Unknowns of the points: those of point p = j * nu + i are first[p] .. first[p + 1]. */
export interface PointUnknowns {
  nu: number;
  nv: number;
  first: Int32Array;
}

/** An eliminated rectangle: its outer unknowns, and what is left on them. */
interface Done {
  outer: Int32Array;
  schur: Float64Array;
}

/** Points of the largest rectangle that is eliminated in one go. */
const leaf = 30;

/** The factors of a matrix, ready to solve with. */
export class Fronts {
  private readonly factors: Factors;
  private readonly local: Int32Array;
  /** Numbers a value is made of. */
  private readonly parts: 1 | 2;

  constructor(
    private readonly matrix: SparseRows,
    private readonly points: PointUnknowns,
    private readonly kernel: FrontKernel = plainKernel,
  ) {
    this.parts = matrix.im ? 2 : 1;
    this.local = new Int32Array(matrix.start.length - 1).fill(-1);
    this.transpose = transposed(matrix);
    this.factors = kernel.factors(this.local.length, this.parts === 2);
    this.build(0, points.nu, 0, points.nv);
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

  private build(i0: number, i1: number, j0: number, j1: number): Done {
    const [w, h] = [i1 - i0, j1 - j0];
    const children: Done[] = [];
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
    const { local, matrix, transpose, parts } = this;
    const [n, p] = [unknowns.length, own.length];
    const { f, width } = this.kernel.room(n, parts === 2);
    const add = (at: number, m: SparseRows, e: number): void => {
      f[parts * at] += m.re[e];
      if (m.im) f[parts * at + 1] += m.im[e];
    };
    unknowns.forEach((u, at) => (local[u] = at));
    for (let r = 0; r < p; r++) {
      const u = unknowns[r];
      // The row, and of the column what the own rows do not hold already.
      for (let e = matrix.start[u]; e < matrix.start[u + 1]; e++) {
        const c = local[matrix.column[e]];
        if (c >= 0) add(r * width + c, matrix, e);
      }
      for (let e = transpose.start[u]; e < transpose.start[u + 1]; e++) {
        const c = local[transpose.column[e]];
        if (c >= p) add(c * width + r, transpose, e);
      }
    }
    for (const { outer, schur } of children) {
      const m = outer.length;
      const at = outer.map((u) => local[u]);
      for (let r = 0; r < m; r++)
        for (let c = 0; c < m; c++) {
          const to = parts * (at[r] * width + at[c]);
          const from = parts * (r * m + c);
          f[to] += schur[from];
          if (parts === 2) f[to + 1] += schur[from + 1];
        }
    }
    for (const u of unknowns) local[u] = -1;
    this.kernel.eliminate(n, p, parts === 2);
    const rest = n - p;
    const schur = new Float64Array(parts * rest * rest);
    for (let r = 0; r < rest; r++) {
      const row = parts * (p + r) * width;
      schur.set(f.subarray(row + parts * p, row + parts * n), parts * r * rest);
    }
    this.factors.add(unknowns, p, f, width);
    return { outer: unknowns.slice(p), schur };
  }

  /** Solves in place: `x` holds the right side, then the solution; pairs of real and imaginary part for a complex matrix. */
  solve(x: Float64Array): void {
    this.factors.solve(x);
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
    ...(m.im ? { im: new Float64Array(m.re.length) } : {}),
  };
  for (let r = 0; r < rows; r++)
    for (let e = m.start[r]; e < m.start[r + 1]; e++) {
      const to = next[m.column[e]]++;
      out.column[to] = r;
      out.re[to] = m.re[e];
      if (m.im) out.im![to] = m.im[e];
    }
  return out;
}
