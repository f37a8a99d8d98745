import { c0, eps0, eta0 } from '../../numerics/constants.ts';

/** CPML factors along one axis: inverse stretched steps and the recursion factors b, c at E nodes and H half-nodes. */
export interface AxisFactors {
  /** 1/(kappa * dual step) at nodes. */
  eInverse: Float64Array;
  /** c*dt/(kappa * step) at cells; last entry 0. */
  hInverse: Float64Array;
  eB: Float64Array;
  /** Includes 1/dual step. */
  eC: Float64Array;
  hB: Float64Array;
  /** Includes c*dt/step. */
  hC: Float64Array;
}

/** Power of the depth with which the layers' loss and stretch grow: 3 to 4 are best (A. Taflove and S. C. Hagness, Computational Electrodynamics, 3rd ed., 7.9). */
const order = 3;
/** Stretch at the outer wall: evanescent fields fade the faster, at some cost in echo of propagating ones. */
const kappaMax = 4;
/** Loss at the outer wall over (order + 1) / (eta0 step), the optimum of Taflove and Hagness, eq. 7.66. */
const optimum = 0.8;
/** Rate at which the memory of the innermost layer fades, over the angular frequency of the lowest frequency of interest. */
const fading = 0.5;

/**
 * Convolutional PML after J. A. Roden and S. D. Gedney, Microw. Opt. Technol. Lett. 27 (2000) 334: conductivity and kappa
 * graded with the third power of depth, alpha falling linearly from the surface so that low frequencies are absorbed too.
 * `frequency` sets alpha: the lowest frequency of interest, Hz.
 */
export function axisFactors(x: Float64Array, low: number, high: number, dt: number, frequency: number): AxisFactors {
  const cells = x.length - 1;
  const make = (): Float64Array => new Float64Array(x.length);
  const out: AxisFactors = { eInverse: make(), hInverse: make(), eB: make(), eC: make(), hB: make(), hC: make() };
  const alphaMax = 2 * Math.PI * frequency * eps0 * fading;
  const factors = (depth: number, step: number): { kappa: number; b: number; c: number } => {
    if (depth <= 0) return { kappa: 1, b: 0, c: 0 };
    const d = Math.min(1, depth);
    const sigma = ((optimum * (order + 1)) / (eta0 * step)) * d ** order;
    const kappa = 1 + (kappaMax - 1) * d ** order;
    const alpha = alphaMax * (1 - d);
    const b = Math.exp(-(sigma / kappa + alpha) * (dt / eps0));
    const c = sigma === 0 ? 0 : (sigma / (sigma * kappa + kappa * kappa * alpha)) * (b - 1);
    return { kappa, b, c };
  };
  // Depth into the layers as a fraction; position in cells from the outer wall.
  const depth = (p: number): number => Math.max(low ? (low - p) / low : 0, high ? (p - (cells - high)) / high : 0);
  const layerStep = (p: number): number => (p < cells / 2 ? x[1] - x[0] : x[cells] - x[cells - 1]);
  for (let i = 0; i <= cells; i++) {
    const dual = (x[Math.min(i + 1, cells)] - x[Math.max(i - 1, 0)]) / 2;
    const e = factors(depth(i), layerStep(i));
    out.eInverse[i] = 1 / (e.kappa * dual);
    out.eB[i] = e.b;
    out.eC[i] = e.c / dual;
    if (i === cells) break;
    const step = x[i + 1] - x[i];
    const h = factors(depth(i + 0.5), layerStep(i));
    out.hInverse[i] = (c0 * dt) / (h.kappa * step);
    out.hB[i] = h.b;
    out.hC[i] = (h.c * c0 * dt) / step;
  }
  return out;
}
