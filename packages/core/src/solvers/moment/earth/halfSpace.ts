import { type Complex, div } from '../../../numerics/complex.ts';
import { eps0 } from '../../../numerics/constants.ts';

/** Root with a negative imaginary part, as waves fade along it. */
export function fading([a, b]: Complex): Complex {
  const r = Math.hypot(a, b);
  const re = Math.sqrt(Math.max(0, (r + a) / 2));
  const im = Math.sqrt(Math.max(0, (r - a) / 2));
  // (re + j im)^2 = a + j b for equal signs where b > 0.
  return b > 0 ? [-re, -im] : [re, -im];
}

/** Relative permittivity of earth at a frequency, e' - j sigma / (w e0). */
export const earthPermittivity = ({ permittivity, conductivity }: { permittivity: number; conductivity: number }, frequency: number): Complex => [
  permittivity,
  -conductivity / (2 * Math.PI * frequency * eps0),
];

/**
 * Reflection of the tangential electric field at a half-space of relative permittivity `eps` for a transverse wave number s (over k0, complex): of TM
 * and TE waves, with kz over k0 above.
 */
export function reflections(eps: Complex, s2: Complex): { kz: Complex; e: Complex; h: Complex } {
  const kz = fading([1 - s2[0], -s2[1]]);
  const k1 = fading([eps[0] - s2[0], eps[1] - s2[1]]);
  const z1 = div(k1, eps);
  return {
    kz,
    e: div([z1[0] - kz[0], z1[1] - kz[1]], [z1[0] + kz[0], z1[1] + kz[1]]),
    h: div([kz[0] - k1[0], kz[1] - k1[1]], [kz[0] + k1[0], kz[1] + k1[1]]),
  };
}

/** Reflection of a half-space for very large transverse wave numbers: that of a charge at rest, (1 - eps) / (1 + eps). */
export const staticReflection = (eps: Complex): Complex => div([1 - eps[0], -eps[1]], [1 + eps[0], eps[1]]);
