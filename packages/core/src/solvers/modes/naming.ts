import type { Complexes } from '../../numerics/complex.ts';
import { areasOf, type GuidedMode } from './guided.ts';
import { conductorsOf, uniformPermittivity } from './homogeneous.ts';
import { type Section, stepsOf } from './section.ts';

/** What of a mode its name follows from: fields along u, v and the guide as they stand on the section, real. */
export interface ModeToName {
  kind: GuidedMode['kind'];
  /** Cutoff wave number where one medium fills the section, 1/m; else null. */
  cutoff: number | null;
  eu: ArrayLike<number>;
  ev: ArrayLike<number>;
  /** Any multiple of E along the guide at nodes and of H along the guide at cells. */
  ew: ArrayLike<number>;
  hw: ArrayLike<number>;
}

/** Zeros of J_m' (TE_mn) and J_m (TM_mn) for modes of a round guide. (M. Abramowitz and I. Stegun, Handbook of Mathematical Functions, table 9.5) */
const roundGuide = [
  ['TE11', 1.841184], ['TM01', 2.404826], ['TE21', 3.054237], ['TE01', 3.831706], ['TM11', 3.831706], ['TE31', 4.201189], ['TM21', 5.135622],
  ['TE41', 5.317553], ['TE12', 5.331443], ['TM02', 5.520078], ['TM31', 6.380162], ['TE51', 6.415616], ['TE22', 6.706133], ['TE02', 7.015587], ['TM12', 7.015587],
] as const; // prettier-ignore

/** How near area and moments have to be to those of a circle, relative: a square of the same moments is off by 4.5e-2. */
const asRound = 0.02;
/** How near a cutoff has to be to that of a circle of the same area, relative: half the gap between the lower zeros of a kind. */
const asCutoff = 0.04;
/** Least correlation of a field with the closed form of a rectangle that it is named by. */
const asRectangle = 0.9;
/** Highest index of a rectangle that is looked for. */
const indices = 8;

/**
 * Names of modes as the field has them: TE10 of a rectangle (the first index along its longer side) by correlation with the closed form, TE11 of a circle
 * by its cutoff, quasi-TEM of lines in several media, HE11 of a round core by the orders of its fields around the axis (E. Snitzer, J. Opt. Soc. Am. 51,
 * 1961), quasi-TE0 of other cores by whether E lies along their longer side; else the kind with a number. `mirrored` says of u and v whether the section is
 * half of what it stands for.
 */
export function modeNames(s: Section, modes: readonly ModeToName[], mirrored: readonly [boolean, boolean] = [false, false]): string[] {
  const one = uniformPermittivity(s) !== null;
  const { count } = conductorsOf(s);
  const rectangle = one ? rectangleOf(s, mirrored) : null;
  const circle = one && count === 1 ? roundOf(s, freeCells(s)) : null;
  const core = !one && count < 2 ? coreOf(s) : null;
  let lines = one ? 0 : Math.max(0, count - 1);
  const first = modes.map((m): { name: string; exact: boolean } => {
    if (m.kind !== 'TEM' && !one && lines > 0) {
      lines--;
      return { name: 'quasi-TEM', exact: count === 2 };
    }
    if (m.kind === 'TEM') return { name: 'TEM', exact: count === 2 };
    const exact = (rectangle && inRectangle(s, m, rectangle)) ?? (circle && inCircle(m, circle));
    if (exact) return { name: exact, exact: true };
    return { name: core && fades(s, m) ? inCore(s, m, core) : m.kind, exact: false };
  });
  return first.map(({ name, exact }, n) => {
    if (exact) return name;
    const before = first.slice(0, n).filter((o) => o.name === name).length;
    if (core && name !== modes[n].kind) return core.round ? `${name}${1 + Math.floor(before / (name.endsWith('0') ? 1 : 2))}` : `${name}${before}`;
    return first.filter((o) => o.name === name).length > 1 ? `${name} no. ${before + 1}` : name;
  });
}

/** A mode of complex fields as one to name: those across at the phase of the largest of them, those along at their own. */
export function modeToName({ kind, cutoff, e, h }: Pick<GuidedMode, 'kind' | 'cutoff' | 'e' | 'h'>): ModeToName {
  const across = phaseOf(e.u, e.v);
  return { kind, cutoff, eu: atPhase(e.u, across), ev: atPhase(e.v, across), ew: atPhase(e.w, phaseOf(e.w)), hw: atPhase(h.w, phaseOf(h.w)) };
}
/** The largest value of fields, as a unit. */
function phaseOf(...fields: Complexes[]): [number, number] {
  let top: [number, number] = [1, 0];
  let most = 0;
  for (const { re, im } of fields)
    for (let n = 0; n < re.length; n++) {
      const size = Math.hypot(re[n], im[n]);
      if (size > most) [most, top] = [size, [re[n] / size, im[n] / size]];
    }
  return top;
}
const atPhase = ({ re, im }: Complexes, [c, d]: readonly [number, number]): Float64Array => re.map((x, n) => x * c + im[n] * d);

interface Side {
  /** Coordinate of an electric wall that waves are counted from, and of the other end. */
  from: number;
  length: number;
  /** Half waves over the whole side at step m. */
  waves(m: number): number;
}

/** The sides of a section that is nothing but a rectangle with electric walls, or magnetic ones where it is cut. */
function rectangleOf(s: Section, mirrored: readonly [boolean, boolean]): [Side, Side] | null {
  const { nu, nv } = stepsOf(s);
  const w = nu + 1;
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      const n = j * w + i;
      const inner = i > 0 && i < nu && j > 0 && j < nv;
      if (inner && s.ew[n] === 0) return null;
      if (i < nu && j > 0 && j < nv && (s.eu[n] === 0 || (s.lu?.[n] ?? 1) < 1)) return null;
      if (j < nv && i > 0 && i < nu && (s.ev[n] === 0 || (s.lv?.[n] ?? 1) < 1)) return null;
    }
  const side = (x: Float64Array, low: boolean, high: boolean, cut: boolean): Side | null => {
    const length = x[x.length - 1] - x[0];
    if (low && high) return null;
    const whole = cut || low || high ? 2 : 1;
    return { from: low ? x[x.length - 1] : x[0], length, waves: (m) => (low || high ? 2 * m + 1 : whole * m) };
  };
  const middle = [nu >> 1, (nv >> 1) * w];
  const u = side(s.u, s.ev[middle[1]] > 0, s.ev[middle[1] + nu] > 0, mirrored[0]);
  const v = side(s.v, s.eu[middle[0]] > 0, s.eu[middle[0] + nv * w] > 0, mirrored[1]);
  return u && v && [u, v];
}

function inRectangle(s: Section, m: ModeToName, [u, v]: [Side, Side]): string | null {
  const { nu, du, dv, dualU, dualV } = stepsOf(s);
  const w = nu + 1;
  const te = m.kind === 'TE';
  const whole = (side: Side): number => side.length * (side.waves(1) - side.waves(0));
  let best = { size: 0, a: 0, b: 0 };
  let norm = 0;
  const wave = (side: Side, k: number, at: number): number => {
    const x = ((side.waves(k) * Math.PI) / whole(side)) * Math.abs(at - side.from);
    return te ? Math.cos(x) : Math.sin(x);
  };
  const [au, av] = te ? [Array.from(du, (d, i) => s.u[i] + d / 2), Array.from(dv, (d, j) => s.v[j] + d / 2)] : [Array.from(s.u), Array.from(s.v)];
  const weight = (i: number, j: number): number => (te ? du[i] * dv[j] : dualU[i] * dualV[j]);
  const field = te ? m.hw : m.ew;
  for (let a = 0; a < indices; a++)
    for (let b = 0; b < indices; b++) {
      let [sum, own] = [0, 0];
      norm = 0;
      for (let j = 0; j < av.length; j++)
        for (let i = 0; i < au.length; i++) {
          const f = wave(u, a, au[i]) * wave(v, b, av[j]);
          const x = field[j * w + i];
          sum += f * x * weight(i, j);
          own += f * f * weight(i, j);
          norm += x * x * weight(i, j);
        }
      const size = own > 0 ? Math.abs(sum) / Math.sqrt(own) : 0;
      if (size > best.size) best = { size, a: u.waves(a), b: v.waves(b) };
    }
  if (!(best.size > asRectangle * Math.sqrt(norm))) return null;
  return whole(u) >= whole(v) ? `${m.kind}${best.a}${best.b}` : `${m.kind}${best.b}${best.a}`;
}

interface Round {
  u: number;
  v: number;
  radius: number;
}
/** Area of cells that fields can enter, m^2. */
function freeCells(s: Section): Float64Array {
  const { cell } = areasOf(s);
  const w = s.u.length;
  const inside = (n: number): boolean => s.eu[n] > 0 || s.ev[n] > 0 || s.eu[n + w] > 0 || s.ev[n + 1] > 0;
  return cell.map((a, n) => (a > 0 && inside(n) ? a : 0));
}

/** The circle that a weight on cells (m^2) has the area and the moments of; null where it is no circle. */
function roundOf(s: Section, weights: ArrayLike<number>): (Round & { wide: boolean }) | null {
  const m = momentsOf(s, weights);
  if (!m) return null;
  const round = Math.abs(m.area / (4 * Math.PI * Math.sqrt(m.uu * m.vv)) - 1) < asRound && Math.abs(m.uu / m.vv - 1) < 2 * asRound;
  return round ? { u: m.u, v: m.v, radius: Math.sqrt(m.area / Math.PI), wide: m.uu >= m.vv } : null;
}

function momentsOf(s: Section, weights: ArrayLike<number>): { area: number; u: number; v: number; uu: number; vv: number } | null {
  const { nu, nv } = stepsOf(s);
  let [area, su, sv, uu, vv] = [0, 0, 0, 0, 0];
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const a = weights[j * (nu + 1) + i];
      const [x, y] = [(s.u[i] + s.u[i + 1]) / 2, (s.v[j] + s.v[j + 1]) / 2];
      area += a;
      su += a * x;
      sv += a * y;
      uu += a * (x * x + (s.u[i + 1] - s.u[i]) ** 2 / 12);
      vv += a * (y * y + (s.v[j + 1] - s.v[j]) ** 2 / 12);
    }
  if (!(area > 0)) return null;
  const [u, v] = [su / area, sv / area];
  return { area, u, v, uu: uu / area - u * u, vv: vv / area - v * v };
}

function inCircle({ kind, cutoff }: ModeToName, { radius }: Round): string | null {
  if (cutoff === null) return null;
  const x = cutoff * radius;
  const fits = roundGuide.filter(([name]) => name.startsWith(kind));
  const near = fits.reduce((a, b) => (Math.abs(b[1] - x) < Math.abs(a[1] - x) ? b : a));
  return Math.abs(near[1] / x - 1) < asCutoff ? near[0] : null;
}

/** Where the permittivity is high: a circle, or whether it is wider along u. */
function coreOf(s: Section): { round: Round | null; wide: boolean } | null {
  const { nu, nv, du, dv } = stepsOf(s);
  const w = nu + 1;
  let [low, high] = [Infinity, -Infinity];
  for (const e of s.ew) if (e > 0) [low, high] = [Math.min(low, e), Math.max(high, e)];
  const weights = new Float64Array(w * (nv + 1));
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const n = j * w + i;
      const e = [s.ew[n], s.ew[n + 1], s.ew[n + w], s.ew[n + w + 1]].reduce((a, b) => a + (b > 0 ? (b - low) / (high - low) : 0), 0) / 4;
      weights[n] = e * du[i] * dv[j];
    }
  const m = momentsOf(s, weights);
  return m && { round: roundOf(s, weights), wide: m.uu >= m.vv };
}

function inCore(s: Section, m: ModeToName, { round, wide }: { round: Round | null; wide: boolean }): string {
  if (round) return aroundCore(s, m, round);
  if (m.kind !== 'hybrid') return m.kind;
  const area = areasOf(s);
  let [uu, vv] = [0, 0];
  for (let n = 0; n < area.u.length; n++) {
    uu += area.u[n] * m.eu[n] ** 2;
    vv += area.v[n] * m.ev[n] ** 2;
  }
  return uu > vv === wide ? 'quasi-TE' : 'quasi-TM';
}

/** E at the rim over its largest, below which a mode is the core's and not that of the walls around. */
const faint = 0.2;
function fades(s: Section, { eu, ev }: ModeToName): boolean {
  const { nu, nv } = stepsOf(s);
  const w = nu + 1;
  let [most, rim] = [0, 0];
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      const size = Math.max(Math.abs(eu[j * w + i]), Math.abs(ev[j * w + i]));
      most = Math.max(most, size);
      if (i === 0 || j === 0 || i >= nu - 1 || j >= nv - 1) rim = Math.max(rim, size);
    }
  return rim < faint * most;
}

/** Places around the axis at which fields are read. */
const around = 48;

/** Below this share of the other the radial or the azimuthal E is that of the grid: in modes of other orders both are alike. */
const onlyOne = 0.2;

/** TE0 with E around the axis only, TM0 with E outward only, else HEl and EHl by the orders of E along the guide and along u; within the core, where fields are largest. */
function aroundCore(s: Section, m: ModeToName, { u, v, radius }: Round): string {
  const read = (field: ArrayLike<number>, x: Float64Array, y: Float64Array): number[] =>
    Array.from({ length: around }, (_, i) => {
      const a = (2 * Math.PI * i) / around;
      return valueAt(field, s.u.length, x, y, u + 0.7 * radius * Math.cos(a), v + 0.7 * radius * Math.sin(a));
    });
  const mid = (x: Float64Array): Float64Array => x.slice(0, -1).map((a, i) => (a + x[i + 1]) / 2);
  const [eu, ev] = [read(m.eu, mid(s.u), s.v), read(m.ev, s.u, mid(s.v))];
  const turned = (i: number): [number, number] => [Math.cos((2 * Math.PI * i) / around), Math.sin((2 * Math.PI * i) / around)];
  const outward = Math.hypot(...eu.map((x, i) => x * turned(i)[0] + ev[i] * turned(i)[1]));
  const round = Math.hypot(...eu.map((x, i) => ev[i] * turned(i)[0] - x * turned(i)[1]));
  if (outward < onlyOne * round) return 'TE0';
  if (round < onlyOne * outward) return 'TM0';
  const l = orderOf(read(m.ew, s.u, s.v));
  return orderOf(eu) > l ? `EH${l}` : `HE${l}`;
}

/** Order of the largest Fourier component of values around a circle. */
function orderOf(values: readonly number[]): number {
  const size = (l: number): number => {
    let [re, im] = [0, 0];
    values.forEach((x, i) => {
      re += x * Math.cos((2 * Math.PI * l * i) / values.length);
      im += x * Math.sin((2 * Math.PI * l * i) / values.length);
    });
    return Math.hypot(re, im) * (l ? Math.SQRT2 : 1);
  };
  return Array.from({ length: indices }, (_, l) => l).reduce((a, b) => (size(b) > size(a) ? b : a));
}

/** A field between its four nearest places. */
function valueAt(field: ArrayLike<number>, w: number, x: Float64Array, y: Float64Array, atX: number, atY: number): number {
  const find = (list: Float64Array, at: number): [number, number] => {
    let i = 0;
    while (i < list.length - 2 && list[i + 1] < at) i++;
    return [i, Math.max(0, Math.min(1, (at - list[i]) / (list[i + 1] - list[i])))];
  };
  const [[i, p], [j, q]] = [find(x, atX), find(y, atY)];
  const n = j * w + i;
  return (1 - q) * ((1 - p) * field[n] + p * field[n + 1]) + q * ((1 - p) * field[n + w] + p * field[n + w + 1]);
}
