import { type Complex, div, mul } from '../numerics/complex.ts';
import { mu0 } from '../numerics/constants.ts';
import { nonNegative } from '../numerics/nnls.ts';

/** Frequencies of a fit, evenly over their logarithm: five for each term. */
const count = 41;
/** Terms of a fit; the kernel has room for this many. */
export const terms = 8;

/** A metal as the fields at its surface see it. */
export interface Metal {
  /** S/m. */
  conductivity: number;
  /** Relative permeability. */
  permeability: number;
  /** Metres, null for many skin depths. */
  thickness: number | null;
}

/** tanh((1 + j) x). */
function tanhDiagonal(x: number): Complex {
  if (x > 20) return [1, 0];
  // tanh(a + jb) = (sinh 2a + j sin 2b) / (cosh 2a + cos 2b).
  const n = Math.cosh(2 * x) + Math.cos(2 * x);
  return [Math.sinh(2 * x) / n, Math.sin(2 * x) / n];
}

/**
 * Surface impedance of a metal, ohm: (1 + j) / (sigma delta), divided by tanh((1 + j) t / delta) where its thickness t is given
 * and nothing lies behind (S. Ramo, J. R. Whinnery, T. Van Duzer, Fields and Waves in Communication Electronics, 3rd ed., 3.17).
 */
export function surfaceImpedance(m: Metal, frequency: number): Complex {
  const depth = 1 / Math.sqrt(Math.PI * frequency * mu0 * m.permeability * m.conductivity);
  const bulk: Complex = [1 / (m.conductivity * depth), 1 / (m.conductivity * depth)];
  return m.thickness === null ? bulk : div(bulk, tanhDiagonal(m.thickness / depth));
}

/**
 * Admittance of a sheet per square, siemens: of one surface with the whole thickness behind it, or of two surfaces that carry
 * the current alike with half the thickness each.
 */
export function sheetAdmittance(m: Metal, sides: 1 | 2, frequency: number): Complex {
  const half = m.thickness === null ? null : m.thickness / sides;
  const [re, im] = div([1, 0], surfaceImpedance({ ...m, thickness: half }, frequency));
  return [re * sides, im * sides];
}

/**
 * A fitted impedance or admittance. 'series': sum of r s / (s + p), an impedance between a field and its own integral;
 * 'parallel': sum of r / (s + p). Both are passive for r, p >= 0.
 */
export interface Immittance {
  form: 'series' | 'parallel';
  r: Float64Array;
  p: Float64Array;
  /** Largest error of the fit in the band over the value. */
  error: number;
}

/** Value of a fit at a frequency in hertz. */
export function immittanceAt(fit: Immittance, frequency: number): Complex {
  const s: Complex = [0, 2 * Math.PI * frequency];
  let sum: Complex = [0, 0];
  for (let i = 0; i < fit.r.length; i++) {
    const term = div(fit.form === 'series' ? mul([fit.r[i], 0], s) : [fit.r[i], 0], [fit.p[i], s[1]]);
    sum = [sum[0] + term[0], sum[1] + term[1]];
  }
  return sum;
}

/**
 * Fits a passive function with relaxation terms of positive weight, poles spread evenly on a logarithmic scale well past the
 * band. sqrt(s), coth and tanh of a metal's skin effect are such functions exactly, so the fit converges fast.
 */
export function fitImmittance(form: Immittance['form'], value: (f: number) => Complex, from: number, to: number): Immittance {
  let best: Immittance | null = null;
  // How far past the band the poles should reach depends on its width and on the function; the best of a few is taken.
  const reaches = [2, 4, 8, 16, 32].map((reach) => [from / reach, to * reach]);
  for (const [least, most] of [...reaches, [from / 2, to * 300], [from / 2, to * 3000]]) {
    const low = 2 * Math.PI * least;
    const ratio = most / least;
    const first = form === 'series' ? 0 : low / 100;
    const p = Float64Array.from({ length: terms }, (_, i) => (i === 0 ? first : low * ratio ** ((i - 1) / (terms - 2))));
    const a = new Float64Array(2 * count * terms);
    const b = new Float64Array(2 * count);
    const f = Float64Array.from({ length: count }, (_, i) => from * (to / from) ** (i / (count - 1)));
    f.forEach((fi, i) => {
      const v = value(fi);
      const size = Math.hypot(...v);
      b[2 * i] = v[0] / size;
      b[2 * i + 1] = v[1] / size;
      for (let t = 0; t < terms; t++) {
        const one = immittanceAt({ form, r: Float64Array.of(1), p: p.subarray(t, t + 1), error: 0 }, fi);
        a[2 * i * terms + t] = one[0] / size;
        a[(2 * i + 1) * terms + t] = one[1] / size;
      }
    });
    const fit: Immittance = { form, r: nonNegative(a, b, 2 * count, terms), p, error: 0 };
    for (const fi of f) {
      const [x, y] = value(fi);
      const [u, v] = immittanceAt(fit, fi);
      fit.error = Math.max(fit.error, Math.hypot(u - x, v - y) / Math.hypot(x, y));
    }
    if (!best || fit.error < best.error) best = fit;
  }
  return best!;
}

/** Coefficients of the kernel for one fit: [G, 0, 0, 0], s, kappa, w, each of `terms`; see branch in kernels/assembly/branch.ts. */
export function recursion(fit: Immittance, dt: number): Float32Array {
  const out = new Float32Array(4 + 3 * terms);
  let g = 0;
  for (let i = 0; i < terms; i++) {
    const a = (fit.p[i] * dt) / 2;
    const kappa = (1 - a) / (1 + a);
    if (fit.form === 'series') {
      g += (fit.r[i] * (1 + kappa)) / 4;
      out[4 + i] = (-fit.r[i] * (1 + kappa)) / 2;
    } else {
      const weight = fit.p[i] > 0 ? fit.r[i] / fit.p[i] : 0;
      g += (weight * (1 - kappa)) / 4;
      out[4 + i] = (weight * (1 + kappa)) / 2;
    }
    out[4 + terms + i] = kappa;
    out[4 + 2 * terms + i] = (1 - kappa) / 2;
  }
  out[0] = g;
  return out;
}
