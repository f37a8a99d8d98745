import { arnoldi } from '../../numerics/arnoldi.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { Fronts, type PointUnknowns, type SparseRows } from '../../numerics/fronts.ts';
import { shifted, type Transverse } from './operator.ts';
import { type Section, type Steps, stepsOf } from './section.ts';
import { sameSolved } from '../../numerics/tolerance.ts';

/** A mode of a section of one medium: transverse E, and kc^2 with beta^2 = k^2 - kc^2 at every frequency. */
export interface PureMode {
  kind: 'TEM' | 'TE' | 'TM';
  /** 1/m^2. */
  kc2: number;
  e: Transverse;
  /** Of a TEM mode: voltage of its conductor against the others, for this e. */
  voltage?: number;
  residual: number;
}

/** The permittivity of a section if it is the same everywhere (to single precision, in which coefficients are kept), else null. */
export function uniformPermittivity({ eu, ev, ew }: Section): number | null {
  let found = 0;
  for (const list of [eu, ev, ew])
    for (const e of list) {
      if (e === 0 || Math.abs(e - found) <= sameSolved * found) continue;
      if (found) return null;
      found = e;
    }
  return found || null;
}

/** Metal nodes by connected conductor, -1 where free; only conductors that border on free edges are numbered. */
export function conductorsOf(s: Section): { of: Int32Array; count: number } {
  const w = s.u.length;
  const size = w * s.v.length;
  const free = (l: Float64Array | undefined, e: Float64Array, n: number): boolean => e[n] > 0 && (l?.[n] ?? 1) > 0;
  const of = new Int32Array(size).fill(-1);
  let count = 0;
  const borders = (n: number): boolean =>
    (n % w < w - 1 && free(s.lu, s.eu, n)) ||
    (n % w > 0 && free(s.lu, s.eu, n - 1)) ||
    (n + w < size && free(s.lv, s.ev, n)) ||
    (n >= w && free(s.lv, s.ev, n - w));
  for (let seed = 0; seed < size; seed++) {
    if (s.ew[seed] > 0 || of[seed] >= 0 || !borders(seed)) continue;
    const stack = [seed];
    of[seed] = count;
    while (stack.length) {
      const n = stack.pop()!;
      const visit = (m: number, joined: boolean): void => {
        if (!joined || s.ew[m] > 0 || of[m] >= 0) return;
        of[m] = count;
        stack.push(m);
      };
      if (n % w < w - 1) visit(n + 1, !free(s.lu, s.eu, n));
      if (n % w > 0) visit(n - 1, !free(s.lu, s.eu, n - 1));
      if (n + w < size) visit(n + w, !free(s.lv, s.ev, n));
      if (n >= w) visit(n - w, !free(s.lv, s.ev, n - w));
    }
    count++;
  }
  return { of, count };
}

/** One unknown for each marked point. */
function numbered(s: Section, isFree: (n: number, i: number, j: number) => boolean): { of: Int32Array; count: number; points: PointUnknowns } {
  const w = s.u.length;
  const size = w * s.v.length;
  const of = new Int32Array(size).fill(-1);
  const first = new Int32Array(size + 1);
  let count = 0;
  for (let n = 0; n < size; n++) {
    first[n] = count;
    if (isFree(n, n % w, Math.floor(n / w))) of[n] = count++;
  }
  first[size] = count;
  return { of, count, points: { nu: w, nv: s.v.length, first } };
}

/** Rows of the balance of each point: sum of strength (x - x of the neighbour) over its weight; a neighbour that is no unknown, or -1, has x = 0. */
function flowMatrix(of: Int32Array, count: number, weight: (n: number) => number, flows: (n: number) => [number, number][]): SparseRows {
  const start = new Int32Array(count + 1);
  const column: number[] = [];
  const re: number[] = [];
  let row = 0;
  for (let n = 0; n < of.length; n++) {
    if (of[n] < 0) continue;
    start[row++] = column.length;
    let diagonal = 0;
    for (const [m, strength] of flows(n)) {
      const f = strength / weight(n);
      diagonal += f;
      if (m < 0 || of[m] < 0) continue;
      column.push(of[m]);
      re.push(-f);
    }
    column.push(of[n]);
    re.push(diagonal);
  }
  start[count] = column.length;
  return { start, column: Int32Array.from(column), re: Float64Array.from(re) };
}

/** Flows of the potential problem from node n: -div grad, along free edges. */
function nodeFlows(s: Section, st: Steps, n: number): [number, number][] {
  const w = st.nu + 1;
  const [i, j] = [n % w, Math.floor(n / w)];
  const out: [number, number][] = [];
  const along = (m: number, edge: number, e: Float64Array, l: Float64Array | undefined, width: number, length: number): void => {
    const free = l?.[edge] ?? 1;
    if (e[edge] > 0 && free > 0) out.push([m, width / (length * free)]);
  };
  if (i < st.nu) along(n + 1, n, s.eu, s.lu, st.dualV[j], st.du[i]);
  if (i > 0) along(n - 1, n - 1, s.eu, s.lu, st.dualV[j], st.du[i - 1]);
  if (j < st.nv) along(n + w, n, s.ev, s.lv, st.dualU[i], st.dv[j]);
  if (j > 0) along(n - w, n - w, s.ev, s.lv, st.dualU[i], st.dv[j - 1]);
  return out;
}

/** Flows of H along the guide from cell n, through free edges; beyond a magnetic wall it vanishes. */
function cellFlows(s: Section, st: Steps, n: number): [number, number][] {
  const w = st.nu + 1;
  const [i, j] = [n % w, Math.floor(n / w)];
  const out: [number, number][] = [];
  const across = (m: number, edge: number, e: Float64Array, l: Float64Array | undefined, length: number, dual: number): void => {
    const free = l?.[edge] ?? 1;
    if (e[edge] > 0 && free > 0) out.push([m, (length * free) / dual]);
  };
  across(j > 0 ? n - w : -1, n, s.eu, s.lu, st.du[i], st.dualV[j]);
  across(j + 1 < st.nv ? n + w : -1, n + w, s.eu, s.lu, st.du[i], st.dualV[j + 1]);
  across(i > 0 ? n - 1 : -1, n, s.ev, s.lv, st.dv[j], st.dualU[i]);
  across(i + 1 < st.nu ? n + 1 : -1, n + 1, s.ev, s.lv, st.dv[j], st.dualU[i + 1]);
  return out;
}

/** The lowest eigenvalues of a potential problem. */
function scalar(
  { of, count: n, points }: ReturnType<typeof numbered>,
  weight: (n: number) => number,
  flows: (n: number) => [number, number][],
  shift: number,
  count: number,
  keep: (re: number) => boolean,
  kernel?: FrontKernel,
): { kc2: number; x: Float64Array; residual: number }[] {
  if (n < 1) return [];
  const matrix = flowMatrix(of, n, weight, flows);
  const fronts = new Fronts(shifted(matrix, shift), points, kernel);
  return arnoldi(n, shift, Math.min(count, n), (x) => fronts.solve(x), { keep }).map(({ re, vector, residual }) => ({
    kc2: re,
    x: vector,
    residual,
  }));
}

/** e = -grad of a potential on the nodes. */
function gradient(s: Section, st: Steps, phi: Float64Array): Transverse {
  const w = st.nu + 1;
  const e: Transverse = { u: new Float64Array(phi.length), v: new Float64Array(phi.length) };
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      const lu = s.lu?.[n] ?? 1;
      const lv = s.lv?.[n] ?? 1;
      if (i < st.nu && s.eu[n] > 0 && lu > 0) e.u[n] = (phi[n] - phi[n + 1]) / (st.du[i] * lu);
      if (j < st.nv && s.ev[n] > 0 && lv > 0) e.v[n] = (phi[n] - phi[n + w]) / (st.dv[j] * lv);
    }
  return e;
}

/** TEM modes: potentials of one conductor after the other, the first of them earthed. */
function tem(s: Section, st: Steps, kernel?: FrontKernel): PureMode[] {
  const conductors = conductorsOf(s);
  if (conductors.count < 2) return [];
  const { of, count, points } = numbered(s, (n) => s.ew[n] > 0);
  const w = st.nu + 1;
  const area = (n: number): number => st.dualU[n % w] * st.dualV[Math.floor(n / w)];
  const fronts = count
    ? new Fronts(
        flowMatrix(of, count, area, (n) => nodeFlows(s, st, n)),
        points,
        kernel,
      )
    : null;
  const out: PureMode[] = [];
  for (let live = 1; live < conductors.count; live++) {
    const x = new Float64Array(count);
    for (let n = 0; n < of.length; n++)
      if (of[n] >= 0) for (const [m, strength] of nodeFlows(s, st, n)) if (conductors.of[m] === live) x[of[n]] += strength / area(n);
    fronts?.solve(x);
    const phi = Float64Array.from({ length: of.length }, (_, n) => (of[n] >= 0 ? x[of[n]] : conductors.of[n] === live ? 1 : 0));
    out.push({ kind: 'TEM', kc2: 0, e: gradient(s, st, phi), voltage: 1, residual: 0 });
  }
  return out;
}

/**
 * Pairs of one cutoff may come mixed. They are turned so that as much as can be of the one's field lies along u, and of the
 * other's along v, as in the modes of rectangular and square guides.
 */
function separate(modes: PureMode[], st: Steps): void {
  const w = st.nu + 1;
  const product = (a: PureMode, b: PureMode): [u: number, v: number] => {
    let [u, v] = [0, 0];
    for (let n = 0; n < a.e.u.length; n++) {
      const [i, j] = [n % w, Math.floor(n / w)];
      if (a.e.u[n] !== 0) u += a.e.u[n] * b.e.u[n] * st.du[i] * st.dualV[j];
      if (a.e.v[n] !== 0) v += a.e.v[n] * b.e.v[n] * st.dualU[i] * st.dv[j];
    }
    return [u, v];
  };
  const mix = (to: Transverse, p: number, from: Transverse, q: number): Transverse => ({
    u: to.u.map((x, n) => p * x + q * from.u[n]),
    v: to.v.map((x, n) => p * x + q * from.v[n]),
  });
  for (let k = 0; k + 1 < modes.length; k++) {
    const [a, b] = [modes[k], modes[k + 1]];
    if (Math.abs(a.kc2 - b.kc2) > sameSolved * a.kc2) continue;
    // Orthonormal first, then the rotation that diagonalises the share along u.
    const size = (m: PureMode): number => Math.sqrt(product(m, m).reduce((s, x) => s + x, 0));
    a.e = mix(a.e, 1 / size(a), a.e, 0);
    b.e = mix(b.e, 1, a.e, -product(a, b).reduce((s, x) => s + x, 0));
    b.e = mix(b.e, 1 / size(b), b.e, 0);
    const angle = 0.5 * Math.atan2(2 * product(a, b)[0], product(a, a)[0] - product(b, b)[0]);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const along = mix(a.e, c, b.e, s);
    b.e = mix(b.e, c, a.e, -s);
    a.e = along;
    // Then the one along v comes first: of a wide guide it is the one with the next half wave across.
    [a.e, b.e] = [b.e, a.e];
    k++;
  }
}

/** Modes of a section of one medium, those of lowest cutoff first: TEM, then TE and TM by kc. */
export function homogeneousModes(s: Section, count: number, kernel?: FrontKernel): PureMode[] {
  const st = stepsOf(s);
  const w = st.nu + 1;
  const span = Math.max(s.u[s.u.length - 1] - s.u[0], s.v[s.v.length - 1] - s.v[0]);
  // Just below zero, so that the static solutions do no harm.
  const shift = -0.05 * (Math.PI / span) ** 2;
  const keep = (re: number): boolean => re > 1e-4 * (Math.PI / span) ** 2;

  const cells = numbered(
    s,
    (n, i, j) => i < st.nu && j < st.nv && (s.area?.[n] ?? 1) > 0 && [s.eu[n], s.eu[n + w], s.ev[n], s.ev[n + 1]].some((e) => e > 0),
  );
  const cellArea = (n: number): number => st.du[n % w] * st.dv[Math.floor(n / w)] * (s.area?.[n] ?? 1);
  const te = scalar(cells, cellArea, (n) => cellFlows(s, st, n), shift, count, keep, kernel).map(({ kc2, x, residual }): PureMode => {
    const e: Transverse = { u: new Float64Array(w * (st.nv + 1)), v: new Float64Array(w * (st.nv + 1)) };
    const at = (i: number, j: number): number => {
      if (i < 0 || j < 0 || i >= st.nu || j >= st.nv) return 0;
      const c = cells.of[j * w + i];
      return c >= 0 ? x[c] : 0;
    };
    for (let j = 0; j <= st.nv; j++)
      for (let i = 0; i <= st.nu; i++) {
        const n = j * w + i;
        if (i < st.nu && s.eu[n] > 0) e.u[n] = (at(i, j) - at(i, j - 1)) / st.dualV[j];
        if (j < st.nv && s.ev[n] > 0) e.v[n] = -(at(i, j) - at(i - 1, j)) / st.dualU[i];
      }
    return { kind: 'TE', kc2, e, residual };
  });
  const nodes = numbered(s, (n) => s.ew[n] > 0);
  const nodeArea = (n: number): number => st.dualU[n % w] * st.dualV[Math.floor(n / w)];
  const tm = scalar(nodes, nodeArea, (n) => nodeFlows(s, st, n), shift, count, keep, kernel).map(({ kc2, x, residual }): PureMode => {
    const phi = Float64Array.from({ length: nodes.of.length }, (_, n) => (nodes.of[n] >= 0 ? x[nodes.of[n]] : 0));
    return { kind: 'TM', kc2, e: gradient(s, st, phi), residual };
  });
  for (const list of [te, tm]) separate(list, st);
  const higher = [...te, ...tm].sort((a, b) => (Math.abs(a.kc2 - b.kc2) < sameSolved * a.kc2 ? (a.kind < b.kind ? -1 : 1) : a.kc2 - b.kc2));
  return [...tem(s, st, kernel), ...higher].slice(0, count);
}
