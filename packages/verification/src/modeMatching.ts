import { c0, type Complex, rightDivide } from '@jadebell/core/numerics';

/**
 * Symmetric inductive irises in a rectangular guide, by mode matching: fields on both sides of each step are expanded in TEm0
 * modes, m odd, and matched over the opening (G. L. Matthaei, L. Young, E. M. T. Jones, Microwave Filters, sec. 5.10 names the
 * obstacle; the method is that of A. Wexler, IEEE Trans. MTT-15, 508, 1967). Impedances are carried from the far end to the near.
 */
export interface IrisFilter {
  /** Width of the guide, and of the openings of the irises from end to end, metres. */
  width: number;
  openings: readonly number[];
  /** Thickness of the irises, and lengths of the cavities between them. */
  thickness: number;
  cavities: readonly number[];
}

/** Square complex matrices, row-major pairs. */
type M = Float64Array;

const times = (a: M, b: M, n: number, k: number, m: number): M => {
  const out = new Float64Array(2 * n * m);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < m; j++) {
      let [re, im] = [0, 0];
      for (let l = 0; l < k; l++) {
        const [p, q] = [2 * (i * k + l), 2 * (l * m + j)];
        re += a[p] * b[q] - a[p + 1] * b[q + 1];
        im += a[p] * b[q + 1] + a[p + 1] * b[q];
      }
      out[2 * (i * m + j)] = re;
      out[2 * (i * m + j) + 1] = im;
    }
  return out;
};
const transposed = (a: M, n: number, m: number): M => {
  const out = new Float64Array(a.length);
  for (let i = 0; i < n; i++) for (let j = 0; j < m; j++) for (const k of [0, 1]) out[2 * (j * n + i) + k] = a[2 * (i * m + j) + k];
  return out;
};
const identity = (n: number): M => Float64Array.from({ length: 2 * n * n }, (_, i) => (i % (2 * (n + 1)) === 0 ? 1 : 0));
const inverse = (a: M, n: number): M => rightDivide(identity(n), a, n, n)!;

/** Wave impedances k / beta of the odd modes of a guide of this width, and exp(-j beta d); below cutoff beta is -j alpha. */
function modesOf(width: number, count: number, k: number, d: number): { z: M; decay: M } {
  const z = new Float64Array(2 * count);
  const decay = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    const beta2 = k * k - (((2 * i + 1) * Math.PI) / width) ** 2;
    const b = Math.sqrt(Math.abs(beta2));
    if (beta2 > 0) {
      z[2 * i] = k / b;
      decay[2 * i] = Math.cos(b * d);
      decay[2 * i + 1] = -Math.sin(b * d);
    } else {
      z[2 * i + 1] = k / b;
      decay[2 * i] = Math.exp(-b * d);
    }
  }
  return { z, decay };
}

/** Overlaps of the odd modes of a wide and a narrow guide with one middle: integral of cos cos over the opening, normalised. */
function overlaps(wide: number, narrow: number, n: number, m: number): M {
  const out = new Float64Array(2 * n * m);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < m; j++) {
      const [p, q] = [((2 * i + 1) * Math.PI) / wide, ((2 * j + 1) * Math.PI) / narrow];
      // Integral of cos(p x) cos(q x) over the narrow one.
      const part = (s: number): number => (Math.abs(s) < 1e-9 * q ? narrow / 2 : Math.sin((s * narrow) / 2) / s);
      out[2 * (i * m + j)] = (2 / Math.sqrt(wide * narrow)) * (part(p - q) + part(p + q));
    }
  return out;
}

/** Reflection of the fundamental at the first iris, phase at its face, with `count` modes in the guide. */
export function irisReflection({ width, openings, thickness, cavities }: IrisFilter, frequency: number, count = 40): Complex {
  const k = (2 * Math.PI * frequency) / c0;
  const guide = modesOf(width, count, k, 0);
  // Beyond the last iris the guide goes on.
  let load: M = new Float64Array(2 * count * count);
  for (let i = 0; i < count; i++) load.set(guide.z.subarray(2 * i, 2 * i + 2), 2 * i * (count + 1));
  for (let iris = openings.length - 1; iris >= 0; iris--) {
    const narrow = Math.max(3, Math.round((count * openings[iris]) / width));
    const x = overlaps(width, openings[iris], count, narrow);
    const xt = transposed(x, count, narrow);
    // From the opening into the guide: Y = X^T Y X; through the iris; from the guide into the opening: Z = X Z X^T.
    const y = times(times(xt, inverse(load, count), narrow, count, count), x, narrow, count, narrow);
    const through = carried(inverse(y, narrow), modesOf(openings[iris], narrow, k, thickness), narrow);
    load = times(times(x, through, count, narrow, narrow), xt, count, narrow, count);
    if (iris > 0) load = carried(load, modesOf(width, count, k, cavities[iris - 1]), count);
  }
  const gamma = reflected(load, guide.z, count);
  return [gamma[0], gamma[1]];
}

/** (Z - Z0) (Z + Z0)^-1 of modal amplitudes. */
function reflected(z: M, own: M, n: number): M {
  const [minus, plus] = [z.slice(), z.slice()];
  for (let i = 0; i < n; i++)
    for (const k of [0, 1]) {
      minus[2 * i * (n + 1) + k] -= own[2 * i + k];
      plus[2 * i * (n + 1) + k] += own[2 * i + k];
    }
  return times(minus, inverse(plus, n), n, n, n);
}

/** Impedance seen through a piece of guide. */
function carried(z: M, { z: own, decay }: { z: M; decay: M }, n: number): M {
  const gamma = reflected(z, own, n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const at = 2 * (i * n + j);
      const [pr, pi] = [
        decay[2 * i] * decay[2 * j] - decay[2 * i + 1] * decay[2 * j + 1],
        decay[2 * i] * decay[2 * j + 1] + decay[2 * i + 1] * decay[2 * j],
      ];
      [gamma[at], gamma[at + 1]] = [gamma[at] * pr - gamma[at + 1] * pi, gamma[at] * pi + gamma[at + 1] * pr];
    }

  const sum = identity(n);
  const less = identity(n);
  for (let i = 0; i < gamma.length; i++) {
    sum[i] += gamma[i];
    less[i] -= gamma[i];
  }
  // V = (1 + G) a, I = Z0^-1 (1 - G) a, so Z = (1 + G) (1 - G)^-1 Z0.
  const out = times(sum, inverse(less, n), n, n, n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const at = 2 * (i * n + j);
      [out[at], out[at + 1]] = [out[at] * own[2 * j] - out[at + 1] * own[2 * j + 1], out[at] * own[2 * j + 1] + out[at + 1] * own[2 * j]];
    }
  return out;
}
