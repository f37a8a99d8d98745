import { eta0 } from '../../numerics/constants.ts';
import { homogeneousModes, uniformPermittivity } from './homogeneous.ts';
import { type Complex, type Complexes, div, mul } from '../../numerics/complex.ts';
import { rootOf } from './root.ts';
import { type Section, stepsOf } from './section.ts';
import { seek, type SeekOptions } from './seek.ts';
import { coefficientsOf, type ComplexSteps, complexSteps, type Coefficients } from './stretch.ts';
import { sameSolved, sameNumber } from '../../numerics/tolerance.ts';

/** A mode with all its fields, exp(-j beta z), complex; scaled to carry 1 W where it carries power, its largest transverse E real and positive. */
export interface GuidedMode {
  /** 1/m: phase constant, and minus the attenuation as imaginary part. */
  beta: Complex;
  kind: 'TEM' | 'TE' | 'TM' | 'hybrid';
  /** Cutoff wave number where the section holds one medium, 1/m; else null. */
  cutoff: number | null;
  /** V/m on edges along u, edges along v, and nodes. */
  e: { u: Complexes; v: Complexes; w: Complexes };
  /** A/m on edges along v, edges along u (where these components stand), and cells. */
  h: { u: Complexes; v: Complexes; w: Complexes };
  /** Complex power of these fields, W. */
  power: Complex;
  residual: number;
}

/** Permittivity of a section that is the same everywhere, losses included, where it has no absorbing edges, bend or permeability. */
function onlyMedium(s: Section): Complex | null {
  if (s.absorb || s.bend || s.mu) return null;
  const re = uniformPermittivity(s);
  if (re === null) return null;
  if (!s.loss) return [re, 0];
  const im = s.loss.w.find((_, n) => s.ew[n] !== 0) ?? s.loss.u.find((_, n) => s.eu[n] !== 0) ?? 0;
  const same = ([list, e]: [Float64Array, Float64Array]): boolean =>
    list.every((x, n) => e[n] === 0 || Math.abs(x - im) <= sameSolved * Math.max(im, re * sameNumber));
  return [[s.loss.u, s.eu], [s.loss.v, s.ev], [s.loss.w, s.ew]].every((p) => same(p as [Float64Array, Float64Array])) ? [re, -im] : null; // prettier-ignore
}

/**
 * Modes of a section at free-space wave number k0 (1/m), those of largest beta first: TEM, TE and TM of one medium from potentials,
 * else of the full vector problem, complex where there are losses or absorbing edges.
 */
export function guidedModes(s: Section, k0: number, options: SeekOptions): GuidedMode[] {
  const cs = complexSteps(s);
  const k = coefficientsOf(s, cs);
  const one = options.near ? null : onlyMedium(s);
  if (one)
    return homogeneousModes(s, options.count, options.kernel).map(({ kc2, e, kind, residual }) =>
      completeModeFields(s, cs, k, k0, rootOf(one[0] * k0 * k0 - kc2, one[1] * k0 * k0), plain(e.u), plain(e.v), residual, {
        kind,
        cutoff: Math.sqrt(kc2),
      }),
    );
  const { unknowns, pairs } = seek(s, k0, options);
  const size = s.u.length * s.v.length;
  const pick = (of: Int32Array, x: Float64Array | null): Float64Array =>
    Float64Array.from({ length: size }, (_, n) => (x && of[n] >= 0 ? x[of[n]] : 0));
  return pairs
    .map(({ re, im, vector, vectorIm, residual }) => {
      const field = (of: Int32Array): Complexes => ({ re: pick(of, vector), im: pick(of, vectorIm) });
      return completeModeFields(s, cs, k, k0, rootOf(re, im), field(unknowns.ofU), field(unknowns.ofV), residual, null);
    })
    .sort((a, b) => b.beta[0] - a.beta[0] || b.beta[1] - a.beta[1]);
}

const plain = (re: Float64Array): Complexes => ({ re, im: new Float64Array(re.length) });
const empty = (n: number): Complexes => ({ re: new Float64Array(n), im: new Float64Array(n) });

/** All fields from the transverse E of a mode. */
function completeModeFields(
  s: Section,
  cs: ComplexSteps,
  k: Coefficients,
  k0: number,
  beta: Complex,
  eu: Complexes,
  ev: Complexes,
  residual: number,
  pure: { kind: GuidedMode['kind']; cutoff: number } | null,
): GuidedMode {
  const { nu, nv } = stepsOf(s);
  const w = nu + 1;
  const size = w * (nv + 1);
  const [ew, hu, hv, hw] = [empty(size), empty(size), empty(size), empty(size)];
  const lu = (n: number): number => s.lu?.[n] ?? 1;
  const lv = (n: number): number => s.lv?.[n] ?? 1;
  const overBeta = div([1, 0], beta);
  const per = (d: Complexes, i: number): Complex => div([1, 0], [d.re[i], d.im[i]]);
  const at = (f: Complexes, n: number): Complex => [f.re[n], f.im[n]];
  const put = (f: Complexes, n: number, [re, im]: Complex): void => {
    f.re[n] = re;
    f.im[n] = im;
  };
  // H along the guide: j / (k0 mu) curl e.
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const n = j * w + i;
      if (k.cellInverse.re[n] === 0) continue;
      const dv: Complex = [lv(n + 1) * ev.re[n + 1] - lv(n) * ev.re[n], lv(n + 1) * ev.im[n + 1] - lv(n) * ev.im[n]];
      const du: Complex = [lu(n + w) * eu.re[n + w] - lu(n) * eu.re[n], lu(n + w) * eu.im[n + w] - lu(n) * eu.im[n]];
      const [a, b] = [mul(dv, per(cs.du, i)), mul(du, per(cs.dv, j))];
      put(hw, n, mul(mul([a[0] - b[0], a[1] - b[1]], at(k.cellInverse, n)), [0, 1 / k0]));
    }
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      const n = j * w + i;
      // E along the guide: -j div (eps e) / (eps_w beta).
      if (s.ew[n] !== 0) {
        const flow = (a: number, b: number, e: Complexes, f: Complexes, low: boolean, high: boolean): Complex => {
          const up: Complex = high ? mul(at(e, a), at(f, a)) : [0, 0];
          const down: Complex = low ? mul(at(e, b), at(f, b)) : [0, 0];
          return [up[0] - down[0], up[1] - down[1]];
        };
        const [a, b] = [
          mul(flow(n, n - 1, k.eu, eu, i > 0, i < nu), per(cs.dualU, i)),
          mul(flow(n, n - w, k.ev, ev, j > 0, j < nv), per(cs.dualV, j)),
        ];
        put(ew, n, mul(mul([a[0] + b[0], a[1] + b[1]], at(k.wInverse, n)), mul([0, -1], overBeta)));
      }
      // H_v = (k0 eps E_u + j dH_w/dv) / beta, H_u = (-k0 eps E_v + j dH_w/du) / beta.
      const slope = (a: number, b: number, low: boolean, high: boolean, step: Complex): Complex => {
        const d: Complex = [(high ? hw.re[a] : 0) - (low ? hw.re[b] : 0), (high ? hw.im[a] : 0) - (low ? hw.im[b] : 0)];
        return mul(mul(d, step), [0, 1]);
      };
      if (i < nu && s.eu[n] !== 0) {
        const d = slope(n, n - w, j > 0, j < nv, per(cs.dualV, j));
        const e = mul(at(k.eu, n), at(eu, n));
        put(hv, n, mul([k0 * e[0] + d[0], k0 * e[1] + d[1]], overBeta));
      }
      if (j < nv && s.ev[n] !== 0) {
        const d = slope(n, n - 1, i > 0, i < nu, per(cs.dualU, i));
        const e = mul(at(k.ev, n), at(ev, n));
        put(hu, n, mul([d[0] - k0 * e[0], d[1] - k0 * e[1]], overBeta));
      }
    }
  const mode: GuidedMode = {
    beta,
    kind: pure?.kind ?? 'hybrid',
    cutoff: pure?.cutoff ?? null,
    e: { u: eu, v: ev, w: ew },
    h: { u: hu, v: hv, w: hw },
    power: [0, 0],
    residual,
  };
  if (!pure) mode.kind = kindOf(s, mode);
  normalise(s, mode);
  return mode;
}

/** Weights of area on the places of the staggered fields, in real coordinates, the free parts beside curved metal counted. */
export function areasOf(s: Section): { u: Float64Array; v: Float64Array; node: Float64Array; cell: Float64Array } {
  const st = stepsOf(s);
  const w = st.nu + 1;
  const size = w * (st.nv + 1);
  const out = { u: new Float64Array(size), v: new Float64Array(size), node: new Float64Array(size), cell: new Float64Array(size) };
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      if (i < st.nu && s.eu[n] !== 0) out.u[n] = st.du[i] * st.dualV[j] * (s.lu?.[n] ?? 1);
      if (j < st.nv && s.ev[n] !== 0) out.v[n] = st.dualU[i] * st.dv[j] * (s.lv?.[n] ?? 1);
      if (s.ew[n] !== 0) out.node[n] = st.dualU[i] * st.dualV[j];
      if (i < st.nu && j < st.nv) out.cell[n] = st.du[i] * st.dv[j] * (s.area?.[n] ?? 1);
    }
  return out;
}

/** Half the integral of E x conj(H) along the guide, W (H in A/m). */
function powerOf(s: Section, { e, h }: Pick<GuidedMode, 'e' | 'h'>): Complex {
  const area = areasOf(s);
  let [re, im] = [0, 0];
  for (let n = 0; n < area.u.length; n++) {
    re += (area.u[n] * (e.u.re[n] * h.v.re[n] + e.u.im[n] * h.v.im[n]) - area.v[n] * (e.v.re[n] * h.u.re[n] + e.v.im[n] * h.u.im[n])) / 2;
    im += (area.u[n] * (e.u.im[n] * h.v.re[n] - e.u.re[n] * h.v.im[n]) - area.v[n] * (e.v.im[n] * h.u.re[n] - e.v.re[n] * h.u.im[n])) / 2;
  }
  return [re, im];
}

/** Scales a mode to 1 W, or 1 var below cutoff, with H in A/m. */
function normalise(s: Section, mode: GuidedMode): void {
  const { e, h } = mode;
  for (const f of [h.u, h.v, h.w])
    for (let n = 0; n < f.re.length; n++) {
      f.re[n] /= eta0;
      f.im[n] /= eta0;
    }
  let [cr, ci, most] = [1, 0, 0];
  for (const f of [e.u, e.v])
    for (let n = 0; n < f.re.length; n++) {
      const size = f.re[n] ** 2 + f.im[n] ** 2;
      if (size > most * 1.0001) [most, cr, ci] = [size, f.re[n], f.im[n]];
    }
  const p = powerOf(s, mode);
  const size = Math.hypot(...p) || 1;
  const length = Math.hypot(cr, ci) * Math.sqrt(size);
  const [tr, ti] = [cr / length, -ci / length];
  for (const f of [e.u, e.v, e.w, h.u, h.v, h.w])
    for (let n = 0; n < f.re.length; n++) {
      const [x, y] = [f.re[n], f.im[n]];
      f.re[n] = x * tr - y * ti;
      f.im[n] = x * ti + y * tr;
    }
  mode.power = [p[0] / size, p[1] / size];
}

function kindOf(s: Section, { e, h }: GuidedMode): GuidedMode['kind'] {
  const area = areasOf(s);
  let [et, ez, ht, hz] = [0, 0, 0, 0];
  const sq = (f: Complexes, n: number): number => f.re[n] ** 2 + f.im[n] ** 2;
  for (let n = 0; n < area.u.length; n++) {
    et += area.u[n] * sq(e.u, n) + area.v[n] * sq(e.v, n);
    ez += area.node[n] * sq(e.w, n);
    ht += area.v[n] * sq(h.u, n) + area.u[n] * sq(h.v, n);
    hz += area.cell[n] * sq(h.w, n);
  }
  const [te, tm] = [ez < sameSolved * et, hz < sameSolved * ht];
  return te && tm ? 'TEM' : te ? 'TE' : tm ? 'TM' : 'hybrid';
}
