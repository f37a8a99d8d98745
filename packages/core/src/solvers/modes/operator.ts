import type { PointUnknowns, SparseRows } from '../../numerics/fronts.ts';
import { type Section, type Steps, stepsOf } from './section.ts';

/** Unknowns of a section: transverse E on its free edges. */
export interface Unknowns {
  count: number;
  /** Unknown of each edge along u and v, or -1. */
  ofU: Int32Array;
  ofV: Int32Array;
  points: PointUnknowns;
}

export function unknownsOf(s: Section): Unknowns {
  const size = s.u.length * s.v.length;
  const ofU = new Int32Array(size).fill(-1);
  const ofV = new Int32Array(size).fill(-1);
  const first = new Int32Array(size + 1);
  let count = 0;
  for (let n = 0; n < size; n++) {
    first[n] = count;
    if (s.eu[n] > 0 && (s.lu?.[n] ?? 1) > 0) ofU[n] = count++;
    if (s.ev[n] > 0 && (s.lv?.[n] ?? 1) > 0) ofV[n] = count++;
  }
  first[size] = count;
  return { count, ofU, ofV, points: { nu: s.u.length, nv: s.v.length, first } };
}

/** Transverse fields of a mode on the edges, as in Section. */
export interface Transverse {
  u: Float64Array;
  v: Float64Array;
}

/** Curl of the transverse field on the cells, per area: the field's circulation over the free area. */
export function curlOf(s: Section, st: Steps, e: Transverse): Float64Array {
  const w = st.nu + 1;
  const out = new Float64Array(w * (st.nv + 1));
  for (let j = 0; j < st.nv; j++)
    for (let i = 0; i < st.nu; i++) {
      const n = j * w + i;
      const free = s.area ? s.area[n] : 1;
      if (free === 0) continue;
      const lu0 = s.lu?.[n] ?? 1;
      const lu1 = s.lu?.[n + w] ?? 1;
      const lv0 = s.lv?.[n] ?? 1;
      const lv1 = s.lv?.[n + 1] ?? 1;
      out[n] = ((lv1 * e.v[n + 1] - lv0 * e.v[n]) / st.du[i] - (lu1 * e.u[n + w] - lu0 * e.u[n]) / st.dv[j]) / free;
    }
  return out;
}

/** Divergence on the nodes of a field given on the edges; zero on nodes in metal. */
export function divergenceOf(s: Section, st: Steps, e: Transverse): Float64Array {
  const w = st.nu + 1;
  const out = new Float64Array(w * (st.nv + 1));
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      if (!(s.ew[n] > 0)) continue;
      out[n] =
        ((i < st.nu ? e.u[n] : 0) - (i > 0 ? e.u[n - 1] : 0)) / st.dualU[i] + ((j < st.nv ? e.v[n] : 0) - (j > 0 ? e.v[n - w] : 0)) / st.dualV[j];
    }
  return out;
}

/**
 * The operator P with P e = b^2 e for transverse E of a mode of wave number b at free-space wave number k0 (K. Zhu, L. Brown,
 * full-vectorial finite differences, Opt. Express 10, 853, 2002, on graded cells):
 *   P e = k0^2 eps e - curl curl e + grad (1/eps_w) div (eps e).
 */
export function modeOperator(s: Section, k0: number, { count, ofU, ofV }: Unknowns): SparseRows {
  const st = stepsOf(s);
  const w = st.nu + 1;
  const start = new Int32Array(count + 1);
  const column: number[] = [];
  const value: number[] = [];
  const slot = new Int32Array(count).fill(-1);
  let rowStart = 0;
  const put = (c: number, x: number): void => {
    if (c < 0 || x === 0) return;
    if (slot[c] >= rowStart) value[slot[c]] += x;
    else {
      slot[c] = column.length;
      column.push(c);
      value.push(x);
    }
  };
  const lu = (n: number): number => s.lu?.[n] ?? 1;
  const lv = (n: number): number => s.lv?.[n] ?? 1;
  /** Adds factor times the curl on cell (i, j). */
  const curl = (i: number, j: number, factor: number): void => {
    if (i < 0 || j < 0 || i >= st.nu || j >= st.nv) return;
    const n = j * w + i;
    const free = s.area ? s.area[n] : 1;
    if (free === 0) return;
    const f = factor / free;
    put(ofV[n + 1], (f * lv(n + 1)) / st.du[i]);
    put(ofV[n], (-f * lv(n)) / st.du[i]);
    put(ofU[n + w], (-f * lu(n + w)) / st.dv[j]);
    put(ofU[n], (f * lu(n)) / st.dv[j]);
  };
  /** Adds factor / eps_w times the divergence of eps e on node (i, j). */
  const divergence = (i: number, j: number, factor: number): void => {
    const n = j * w + i;
    if (!(s.ew[n] > 0)) return;
    const f = factor / s.ew[n];
    if (i < st.nu) put(ofU[n], (f * s.eu[n]) / st.dualU[i]);
    if (i > 0) put(ofU[n - 1], (-f * s.eu[n - 1]) / st.dualU[i]);
    if (j < st.nv) put(ofV[n], (f * s.ev[n]) / st.dualV[j]);
    if (j > 0) put(ofV[n - w], (-f * s.ev[n - w]) / st.dualV[j]);
  };
  const k2 = k0 * k0;
  let row = 0;
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      if (ofU[n] >= 0) {
        start[row++] = rowStart = column.length;
        put(ofU[n], k2 * s.eu[n]);
        curl(i, j, -1 / st.dualV[j]);
        curl(i, j - 1, 1 / st.dualV[j]);
        const g = 1 / (lu(n) * st.du[i]);
        divergence(i + 1, j, g);
        divergence(i, j, -g);
      }
      if (ofV[n] >= 0) {
        start[row++] = rowStart = column.length;
        put(ofV[n], k2 * s.ev[n]);
        curl(i, j, 1 / st.dualU[i]);
        curl(i - 1, j, -1 / st.dualU[i]);
        const g = 1 / (lv(n) * st.dv[j]);
        divergence(i, j + 1, g);
        divergence(i, j, -g);
      }
    }
  start[count] = column.length;
  return { start, column: Int32Array.from(column), re: Float64Array.from(value) };
}

/** A matrix less a multiple of the identity. Every row has its diagonal entry. */
export function shifted(m: SparseRows, shift: number): SparseRows {
  const re = m.re.slice();
  for (let r = 0; r + 1 < m.start.length; r++) for (let e = m.start[r]; e < m.start[r + 1]; e++) if (m.column[e] === r) re[e] -= shift;
  return { ...m, re };
}
