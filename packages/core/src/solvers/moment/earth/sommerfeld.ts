import { type Complex, div, mul } from '../../../numerics/complex.ts';
import { gauss } from '../../../numerics/gauss.ts';
import { besselJ } from './bessel.ts';
import { reflections, staticReflection } from './halfSpace.ts';

/**
 * What a half-space adds to the potentials of a current element above it, as functions of the distance along the ground and the sum of both heights, over
 * k0: of the vector potential between horizontal elements (a), of the scalar potential (k), between a horizontal and a vertical element (p) and
 * between vertical ones (q). With kz the vertical wave number above, s the transverse one, E = exp(-j kz h):
 *
 *   a = int Ge_h E J0 s / (j kz) ds            k = int (j / (s^2 kz)) (kz^2 G_e - G_h) E J0 s ds
 *   p = int (G_e - G_h) E J1 ds                q = int [-G_e / (j kz) - (j kz / s^2)(G_e - G_h)] E J0 s ds
 *
 * all lengths times k0 (mixed potentials of a layered medium, K. A. Michalski, J. R. Mosig, IEEE Trans. AP-45, 1997; here derived anew for sources and
 * fields on one side, so that the scalar potential is one for all directions). Of k and q the image at rest, G and -2 G times exp(-jR) / R, and of p its like,
 * are left out: they are added in closed form. G_e, G_h reflect the tangential field of TM and TE waves.
 */
export type Kernel = Float64Array;
export const kernelParts = 8;

const { points, weights } = gauss(8);
/** Most pieces of the tail, and the change of its limit at which it ends. */
const most = 300;
const tail = 1e-7;

/** Repeated means of partial sums. */
function euler(sums: Float64Array[]): Float64Array<ArrayBuffer> {
  const list = sums.map((s) => s.slice());
  for (let round = list.length - 1; round > 0; round--)
    for (let i = 0; i < round; i++) for (let c = 0; c < kernelParts; c++) list[i][c] = (list[i][c] + list[i + 1][c]) / 2;
  return Float64Array.from(list[0]);
}

/** Integrates all four functions at (rho, h), both times k0, h > 0: re and im of a, k, p, q. */
export function halfSpaceKernel(eps: Complex, rho: number, h: number, out: Kernel = new Float64Array(kernelParts)): Kernel {
  const still = staticReflection(eps);
  const bessel = new Float64Array(4);
  out.fill(0);
  /** Adds the integrands at a complex s times the weight. */
  const add = (s: Complex, weight: Complex, sum: Float64Array): void => {
    const s2 = mul(s, s);
    const { kz, e, h: te } = reflections(eps, s2);
    const jkz: Complex = [-kz[1], kz[0]];
    // exp(-j kz h)
    const size = Math.exp(kz[1] * h);
    const exp: Complex = [size * Math.cos(kz[0] * h), -size * Math.sin(kz[0] * h)];
    besselJ(s[0] * rho, s[1] * rho, bessel);
    const w = mul(exp, weight);
    const j0 = mul(mul(w, [bessel[0], bessel[1]]), s);
    const j1 = mul(w, [bessel[2], bessel[3]]);
    const k2 = mul(kz, kz);
    const both: Complex = [e[0] - te[0], e[1] - te[1]];
    const a = div(te, jkz);
    const over = div([0, 1], mul(s2, kz));
    const scalar = mul(over, [k2[0] * e[0] - k2[1] * e[1] - te[0], k2[0] * e[1] + k2[1] * e[0] - te[1]]);
    const image = div(still, jkz);
    const lift = mul(div(jkz, s2), both);
    const up = div(e, jkz);
    const put = (n: number, v: Complex, j: Complex): void => {
      sum[n] += v[0] * j[0] - v[1] * j[1];
      sum[n + 1] += v[0] * j[1] + v[1] * j[0];
    };
    put(0, a, j0);
    put(2, [scalar[0] - image[0], scalar[1] - image[1]], j0);
    put(4, [both[0] - still[0], both[1] - still[1]], j1);
    put(6, [-up[0] - lift[0] + 2 * image[0], -up[1] - lift[1] + 2 * image[1]], j0);
  };
  const index = Math.sqrt(Math.hypot(...eps));
  // Two arcs: above the branch point and the pole near 1, and above the branch point of the ground. Above the axis J grows, so they stay low for large
  // distances.
  // Beyond s h = 20 nothing is left.
  const end = Math.max(4, Math.min(1.5 * index + 1, 20 / h));
  const rise = Math.min(0.6, 2 / Math.max(rho, 1e-9));
  const arc = (x0: number, x1: number, panels: number): void => {
    for (let n = 0; n < panels; n++)
      for (let q = 0; q < points.length; q++) {
        const t = (n + points[q]) / panels;
        const angle = Math.PI * t;
        const w = weights[q] / panels;
        add([x0 + (x1 - x0) * t, rise * Math.sin(angle)], [w * (x1 - x0), w * rise * Math.PI * Math.cos(angle)], out);
      }
  };
  const waves = (rho + h) / 6;
  arc(0, 2, Math.ceil(3 + 2 * waves));
  arc(2, end, Math.ceil(2 + Math.min(index, 40) + (end - 2) * waves));
  // The rest dies as exp(-s h), and at least as 1 / s^2: over half waves of J its sums are drawn to their limit by repeated means (Euler).
  const half = Math.PI / Math.max(rho, 1e-9);
  const sums: Float64Array[] = [];
  const sum = new Float64Array(kernelParts);
  let told = new Float64Array(kernelParts);
  let from = end;
  const relative = (v: Float64Array, w: Float64Array | null): number => {
    let [off, all] = [0, 1e-300];
    for (let i = 0; i < kernelParts; i++) {
      off = Math.max(off, Math.abs(v[i] - (w ? w[i] : 0)));
      all = Math.max(all, Math.abs(out[i] + sum[i]));
    }
    return off / all;
  };
  for (let n = 0; n < most; n++) {
    const piece = new Float64Array(kernelParts);
    // Before J has a wave the pieces grow with s.
    const length = Math.min(half, Math.max(2 / h, 1), 0.7 * from);
    for (let q = 0; q < points.length; q++) add([from + length * points[q], 0], [length * weights[q], 0], piece);
    from += length;
    for (let i = 0; i < kernelParts; i++) sum[i] += piece[i];
    if (from * h > 20 || relative(piece, null) < 1e-8) {
      told = sum;
      break;
    }
    sums.push(sum.slice());
    told = sum;
    if (length < half || n < 9 || n % 3) continue;
    const next = euler(sums.slice(-9));
    const before = euler(sums.slice(-10, -1));
    told = next;
    if (relative(next, before) < tail) break;
  }
  for (let i = 0; i < kernelParts; i++) out[i] += told[i];
  return out;
}
