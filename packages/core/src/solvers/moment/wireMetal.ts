import { type Complex, div, mul } from '../../numerics/complex.ts';
import { eps0, mu0 } from '../../numerics/constants.ts';
import type { SceneWire } from '../../scene/index.ts';

/** I0(z) / I1(z) for z = (1 + j) x: by continued fraction I1/I0 = (z/2) / (1 + (z/2)^2 / (1 * 2 + ...)), for large x by its limit. */
export function besselRatio(x: number): Complex {
  // I_1 / I_0 = 1 / (2 / z + 1 / (4 / z + 1 / (6 / z + ...))).
  if (x > 400) return [1 + 1 / (4 * x), -1 / (4 * x) - 3 / (16 * x * x)];
  const inverse: Complex = div([1, 0], [x, x]);
  let t: Complex = [0, 0];
  for (let n = 40 + Math.ceil(2 * x); n > 0; n--) {
    const d: Complex = [2 * n * inverse[0] + t[0], 2 * n * inverse[1] + t[1]];
    t = div([1, 0], d);
  }
  return div([1, 0], t);
}

/**
 * Impedance of a round wire per metre by its skin effect, ohm/m: (gamma / (2 pi a sigma)) I0(gamma a) / I1(gamma a) with gamma = (1 + j) / delta
 * (S. A. Schelkunoff, The electromagnetic theory of coaxial transmission lines and cylindrical shields, Bell Syst. Tech. J. 13, 1934).
 */
export function wireImpedance(wire: Pick<SceneWire, 'radius' | 'metal'>, frequency: number): Complex {
  if (!wire.metal) return [0, 0];
  const { conductivity, permeability } = wire.metal;
  const x = wire.radius * Math.sqrt(Math.PI * frequency * mu0 * permeability * conductivity);
  const size = x / (2 * Math.PI * wire.radius * wire.radius * conductivity);
  return mul([size, size], besselRatio(x));
}

/**
 * What a thin dielectric coat adds: potential in V at the surface for 1 C/m of charge, (1 / eps - 1 / eps0) ln(b / a) / 2 pi, as the radial field
 * in it is that of the charge over its own permittivity (J. H. Richmond, E. H. Newman, Dielectric coated wire antennas, Radio Science 11, 1976).
 */
export function coatPotential(wire: Pick<SceneWire, 'radius' | 'coat'>): Complex {
  if (!wire.coat) return [0, 0];
  const [re, loss] = wire.coat.permittivity;
  const [a, b] = div([1, 0], [re, -loss]);
  const factor = Math.log(wire.coat.radius / wire.radius) / (2 * Math.PI * eps0);
  return [(a - 1) * factor, b * factor];
}
