import type { Complexes } from '../../numerics/complex.ts';
import type { PointUnknowns, SparseRows } from '../../numerics/fronts.ts';
import { type Section, type Steps, stepsOf } from './section.ts';
import { coefficientsOf, complexSteps, isComplex } from './stretch.ts';

/** Unknowns of a section: transverse E on its free edges. */
export interface Unknowns {
  count: number;
  /** Unknown of each edge along u and v, or -1. */
  ofU: Int32Array;
  ofV: Int32Array;
  points: PointUnknowns;
}

/** Numbers of the edges and nodes of a section that are unknowns. */
export function unknownsOf(s: Section): Unknowns {
  const size = s.u.length * s.v.length;
  const ofU = new Int32Array(size).fill(-1);
  const ofV = new Int32Array(size).fill(-1);
  const first = new Int32Array(size + 1);
  let count = 0;
  for (let n = 0; n < size; n++) {
    first[n] = count;
    if (s.eu[n] !== 0 && (s.lu?.[n] ?? 1) > 0) ofU[n] = count++;
    if (s.ev[n] !== 0 && (s.lv?.[n] ?? 1) > 0) ofV[n] = count++;
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
 * full-vectorial finite differences, Opt. Express 10, 853, 2002; here on graded, stretched and bent cells and with permeability):
 *   P e = k0^2 mu eps e - mu curl (1/mu_w) curl e + grad (1/eps_w) div (eps e).
 * Real unless the section has losses or absorbing edges.
 */
export function modeOperator(s: Section, k0: number, { count, ofU, ofV }: Unknowns): SparseRows {
  const st = stepsOf(s);
  const cs = complexSteps(s);
  const k = coefficientsOf(s, cs);
  const [iu, iv, idu, idv] = [cs.du, cs.dv, cs.dualU, cs.dualV].map(inverses);
  const w = st.nu + 1;
  const start = new Int32Array(count + 1);
  // A row holds its own edge, six more of its two cells and six more of its two nodes, some of them twice.
  const most = 13 * count;
  const column = new Int32Array(most);
  const re = new Float64Array(most);
  const im = new Float64Array(most);
  const slot = new Int32Array(count).fill(-1);
  let rowStart = 0;
  let next = 0;
  /** Adds sign (a + j b) (x_i) y to the row's entry of unknown c. */
  const put = (c: number, a: number, b: number, x: Complexes, i: number, y: number): void => {
    if (c < 0) return;
    const [p, q] = [(a * x.re[i] - b * x.im[i]) * y, (a * x.im[i] + b * x.re[i]) * y];
    if (slot[c] < rowStart) {
      slot[c] = next;
      column[next] = c;
      re[next] = im[next] = 0;
      next++;
    }
    re[slot[c]] += p;
    im[slot[c]] += q;
  };
  const lu = (n: number): number => s.lu?.[n] ?? 1;
  const lv = (n: number): number => s.lv?.[n] ?? 1;
  /** Adds mu times sign over the dual step times the curl on cell (i, j), divided by its permeability. */
  const curl = (i: number, j: number, mu: Complexes, at: number, step: Complexes, of: number, sign: number): void => {
    if (i < 0 || j < 0 || i >= st.nu || j >= st.nv) return;
    const n = j * w + i;
    const cell = k.cellInverse;
    if (cell.re[n] === 0 && cell.im[n] === 0) return;
    const [xr, xi] = [mu.re[at] * step.re[of] - mu.im[at] * step.im[of], mu.re[at] * step.im[of] + mu.im[at] * step.re[of]];
    const [a, b] = [sign * (xr * cell.re[n] - xi * cell.im[n]), sign * (xr * cell.im[n] + xi * cell.re[n])];
    put(ofV[n + 1], a, b, iu, i, lv(n + 1));
    put(ofV[n], a, b, iu, i, -lv(n));
    put(ofU[n + w], a, b, iv, j, -lu(n + w));
    put(ofU[n], a, b, iv, j, lu(n));
  };
  /** Adds sign over the step times the divergence of eps e on node (i, j), divided by its permittivity along the guide. */
  const divergence = (i: number, j: number, step: Complexes, of: number, sign: number): void => {
    const n = j * w + i;
    const node = k.wInverse;
    if (node.re[n] === 0 && node.im[n] === 0) return;
    const [a, b] = [sign * (step.re[of] * node.re[n] - step.im[of] * node.im[n]), sign * (step.re[of] * node.im[n] + step.im[of] * node.re[n])];
    const term = (c: number, e: Complexes, at: number, x: Complexes, p: number, side: number): void => {
      put(c, side * (a * e.re[at] - b * e.im[at]), side * (a * e.im[at] + b * e.re[at]), x, p, 1);
    };
    if (i < st.nu) term(ofU[n], k.eu, n, idu, i, 1);
    if (i > 0) term(ofU[n - 1], k.eu, n - 1, idu, i, -1);
    if (j < st.nv) term(ofV[n], k.ev, n, idv, j, 1);
    if (j > 0) term(ofV[n - w], k.ev, n - w, idv, j, -1);
  };
  const k2 = k0 * k0;
  let row = 0;
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      if (ofU[n] >= 0) {
        start[row++] = rowStart = next;
        put(ofU[n], k2 * k.eu.re[n], k2 * k.eu.im[n], k.muV, n, 1);
        curl(i, j, k.muV, n, idv, j, -1);
        curl(i, j - 1, k.muV, n, idv, j, 1);
        divergence(i + 1, j, iu, i, 1 / lu(n));
        divergence(i, j, iu, i, -1 / lu(n));
      }
      if (ofV[n] >= 0) {
        start[row++] = rowStart = next;
        put(ofV[n], k2 * k.ev.re[n], k2 * k.ev.im[n], k.muU, n, 1);
        curl(i, j, k.muU, n, idu, i, 1);
        curl(i - 1, j, k.muU, n, idu, i, -1);
        divergence(i, j + 1, iv, j, 1 / lv(n));
        divergence(i, j, iv, j, -1 / lv(n));
      }
    }
  start[count] = next;
  return {
    start,
    column: column.slice(0, next),
    re: re.slice(0, next),
    ...(isComplex(s) ? { im: im.slice(0, next) } : {}),
  };
}

const inverses = ({ re, im }: Complexes): Complexes => {
  const d = re.map((x, i) => x * x + im[i] * im[i]);
  return { re: re.map((x, i) => x / d[i]), im: im.map((y, i) => -y / d[i]) };
};

/** A matrix less a multiple of the identity. Every row has its diagonal entry. */
export function shifted(m: SparseRows, shift: number, shiftIm = 0): SparseRows {
  const re = m.re.slice();
  const im = m.im?.slice();
  for (let r = 0; r + 1 < m.start.length; r++)
    for (let e = m.start[r]; e < m.start[r + 1]; e++)
      if (m.column[e] === r) {
        re[e] -= shift;
        if (im) im[e] -= shiftIm;
      }
  return { ...m, re, ...(im ? { im } : {}) };
}
