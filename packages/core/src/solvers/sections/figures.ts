import { c0 } from '../../numerics/constants.ts';
import { type Complexes, type Complex, abs2 } from '../../numerics/complex.ts';
import { areasOf, conductorsOf, type GuidedMode, type Section, stepsOf } from '../modes/index.ts';

/** What is read off a mode. Lengths in metres, impedances in ohms. */
export interface ModeFigures {
  kind: GuidedMode['kind'];
  /** Such as TE10, quasi-TEM, HE11. */
  name: string;
  /** Effective index n - j k; below cutoff n is 0. */
  index: Complex;
  /** Phase constant, rad/m, and attenuation, Np/m; metal's losses included. */
  beta: number;
  alpha: number;
  /** Share of alpha that metal takes, Np/m. */
  wall: number;
  propagates: boolean;
  /** Group index, c dbeta/domega; null below cutoff. */
  groupIndex: number | null;
  /** Cutoff frequency, Hz, where one lossless medium fills the section. */
  cutoff: number | null;
  /** Mean of |E|^2 across over twice the power. */
  waveImpedance: Complex;
  /** Of the conductor that is not the first, for lines of two conductors. */
  line: LineFigures | null;
  /** (integral of |E|^2)^2 over that of |E|^4, m^2. */
  area: number;
  /** Share of the E across that lies along the first axis of the section (x before y before z). */
  alongFirst: number;
  /** Share of the power that runs in each body. */
  confinement: { body: string; share: number }[];
  /** Attenuation of a quarter turn of the bend, dB, where there is one. */
  quarterTurn: number | null;
  residual: number;
}

export interface LineFigures {
  /** |V|^2 / 2P, 2P / |I|^2, V / I. */
  powerVoltage: number;
  powerCurrent: number;
  voltageCurrent: number;
}

const square = (f: Complexes, n: number): number => f.re[n] ** 2 + f.im[n] ** 2;

/**
 * Group index from the fields, dbeta/dk0 = (integral of d(k0 eps)/dk0 (Et^2 - Ez^2) + Z0^2 mu (Ht^2 - Hz^2)) / (2 Z0 integral of
 * Et x Ht), without conjugation, so that it holds with losses (A. W. Snyder and J. D. Love, Optical Waveguide Theory, sec. 31-3).
 * `slope` is k0 d eps/dk0 of the edges along u, v, w where media disperse.
 */
export function groupIndexOf(s: Section, mode: GuidedMode, eta: number, slope?: { u: Complexes; v: Complexes; w: Complexes }): number {
  const area = areasOf(s);
  let [nr, ni, dr, di] = [0, 0, 0, 0];
  const add = (f: Complexes, n: number, re: number, im: number): void => {
    const [x, y] = [f.re[n] ** 2 - f.im[n] ** 2, 2 * f.re[n] * f.im[n]];
    nr += x * re - y * im;
    ni += x * im + y * re;
  };
  const { e, h } = mode;
  const z2 = eta * eta;
  for (let n = 0; n < area.u.length; n++) {
    if (area.u[n] > 0) {
      add(e.u, n, area.u[n] * (s.eu[n] + (slope?.u.re[n] ?? 0)), -area.u[n] * ((s.loss?.u[n] ?? 0) - (slope?.u.im[n] ?? 0)));
      add(h.v, n, area.u[n] * (s.mu?.v[n] ?? 1) * z2, 0);
      const w = 2 * eta * area.u[n];
      dr += w * (e.u.re[n] * h.v.re[n] - e.u.im[n] * h.v.im[n]);
      di += w * (e.u.re[n] * h.v.im[n] + e.u.im[n] * h.v.re[n]);
    }
    if (area.v[n] > 0) {
      add(e.v, n, area.v[n] * (s.ev[n] + (slope?.v.re[n] ?? 0)), -area.v[n] * ((s.loss?.v[n] ?? 0) - (slope?.v.im[n] ?? 0)));
      add(h.u, n, area.v[n] * (s.mu?.u[n] ?? 1) * z2, 0);
      const w = 2 * eta * area.v[n];
      dr -= w * (e.v.re[n] * h.u.re[n] - e.v.im[n] * h.u.im[n]);
      di -= w * (e.v.re[n] * h.u.im[n] + e.v.im[n] * h.u.re[n]);
    }
    if (area.node[n] > 0)
      add(e.w, n, -area.node[n] * (s.ew[n] + (slope?.w.re[n] ?? 0)), area.node[n] * ((s.loss?.w[n] ?? 0) - (slope?.w.im[n] ?? 0)));
    if (area.cell[n] > 0) add(h.w, n, -area.cell[n] * (s.mu?.w[n] ?? 1) * z2, 0);
  }
  return (nr * dr + ni * di) / (dr * dr + di * di);
}

/** Voltage, current and their impedances of a mode on two conductors. */
export function lineFigures(s: Section, mode: GuidedMode): LineFigures | null {
  const { of, count } = conductorsOf(s);
  if (count !== 2 || !(mode.power[0] > 0)) return null;
  const st = stepsOf(s);
  const w = st.nu + 1;
  const voltage = voltageBetween(s, mode, of);
  if (!voltage) return null;
  // The current of conductor 1 by H along the dual edges around its nodes.
  let [ir, ii] = [0, 0];
  const add = (f: Complexes, n: number, weight: number): void => {
    ir += weight * f.re[n];
    ii += weight * f.im[n];
  };
  for (let n = 0; n < of.length; n++) {
    const [i, j] = [n % w, Math.floor(n / w)];
    if (i < st.nu && s.eu[n] !== 0 && (of[n] === 1) !== (of[n + 1] === 1)) add(mode.h.v, n, (of[n] === 1 ? 1 : -1) * st.dualV[j]);
    if (j < st.nv && s.ev[n] !== 0 && (of[n] === 1) !== (of[n + w] === 1)) add(mode.h.u, n, (of[n] === 1 ? -1 : 1) * st.dualU[i]);
  }
  const p = 2 * mode.power[0];
  const v2 = abs2(voltage);
  const i2 = ir * ir + ii * ii;
  if (!(i2 > 0)) return null;
  return { powerVoltage: v2 / p, powerCurrent: p / i2, voltageCurrent: Math.sqrt(v2 / i2) };
}

/** Integral of E from conductor 1 to conductor 0 along the shortest straight line of the grid; null where none runs free. */
function voltageBetween(s: Section, { e }: GuidedMode, of: Int32Array): Complex | null {
  const st = stepsOf(s);
  const w = st.nu + 1;
  let best: { length: number; v: Complex } | null = null;
  const walk = (from: number, step: number, field: Complexes, eps: Float64Array, l: Float64Array | undefined, size: (n: number) => number): void => {
    let [re, im, length] = [0, 0, 0];
    const last = (n: number): boolean => (step === 1 ? n % w === w - 1 : n + w >= of.length);
    for (let n = from; !last(n); n += step) {
      if (eps[n] === 0 || (l?.[n] ?? 1) === 0) return;
      const d = size(n) * (l?.[n] ?? 1);
      re += field.re[n] * d;
      im += field.im[n] * d;
      length += d;
      if (of[n + step] < 0) continue;
      if (of[n + step] === of[from] || (best && best.length <= length)) return;
      const sign = of[from] === 1 ? 1 : -1;
      best = { length, v: [sign * re, sign * im] };
      return;
    }
  };
  for (let n = 0; n < of.length; n++) {
    if (of[n] < 0) continue;
    if (n % w < st.nu) walk(n, 1, e.u, s.eu, s.lu, (m) => st.du[m % w]);
    if (n + w < of.length) walk(n, w, e.v, s.ev, s.lv, (m) => st.dv[Math.floor(m / w)]);
  }
  return (best as { v: Complex } | null)?.v ?? null;
}

/** Sums over the fields that area, wave impedance and direction of E follow from. */
export function fieldSums(s: Section, { e, power }: GuidedMode): { area: number; waveImpedance: Complex; alongU: number } {
  const st = stepsOf(s);
  const w = st.nu + 1;
  const areas = areasOf(s);
  let [uu, vv] = [0, 0];
  for (let n = 0; n < areas.u.length; n++) {
    uu += areas.u[n] * square(e.u, n);
    vv += areas.v[n] * square(e.v, n);
  }
  let [two, four] = [0, 0];
  for (let j = 0; j < st.nv; j++)
    for (let i = 0; i < st.nu; i++) {
      const n = j * w + i;
      const size =
        (square(e.u, n) + square(e.u, n + w) + square(e.v, n) + square(e.v, n + 1)) / 2 +
        (square(e.w, n) + square(e.w, n + 1) + square(e.w, n + w) + square(e.w, n + w + 1)) / 4;
      two += areas.cell[n] * size;
      four += areas.cell[n] * size * size;
    }
  const p = abs2(power);
  const size = (uu + vv) / 2 / p;
  // Z = |E|^2 / 2P*, so that it has the angle of E over H.
  return { area: four > 0 ? two ** 2 / four : 0, waveImpedance: [size * power[0], size * power[1]], alongU: uu / (uu + vv) };
}

/** Share of the power in regions given by the covered part (0..1) of each quarter of a cell: low low, high low, low high, high high. */
export function shareOfPower(s: Section, { e, h, power }: GuidedMode, quarters: Float32Array): number {
  const st = stepsOf(s);
  const w = st.nu + 1;
  let sum = 0;
  const flow = (a: Complexes, b: Complexes, n: number): number => a.re[n] * b.re[n] + a.im[n] * b.im[n];
  for (let j = 0; j < st.nv; j++)
    for (let i = 0; i < st.nu; i++) {
      const q = 4 * (j * st.nu + i);
      const [a, b, c, d] = [quarters[q], quarters[q + 1], quarters[q + 2], quarters[q + 3]];
      if (a + b + c + d === 0) continue;
      const n = j * w + i;
      const quarter = (st.du[i] * st.dv[j]) / 4;
      const [lu, lv] = [s.lu, s.lv];
      sum += quarter * (flow(e.u, h.v, n) * (a + b) * (lu?.[n] ?? 1) + flow(e.u, h.v, n + w) * (c + d) * (lu?.[n + w] ?? 1));
      sum -= quarter * (flow(e.v, h.u, n) * (a + c) * (lv?.[n] ?? 1) + flow(e.v, h.u, n + 1) * (b + d) * (lv?.[n + 1] ?? 1));
    }
  return power[0] !== 0 ? sum / 2 / power[0] : 0;
}

/** Cutoff frequency of a mode of one medium, from its cutoff wave number and the permittivity. */
export const cutoffFrequency = (kc: number, permittivity: number): number => (kc * c0) / (2 * Math.PI * Math.sqrt(permittivity));
