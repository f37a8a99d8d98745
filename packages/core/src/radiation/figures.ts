import { intensity } from './nearToFar.ts';
import type { Pattern } from './surface.ts';
import { thetaWeights } from './quadrature.ts';

/** Total power of a pattern, W, and its strongest direction. */
export function patternPower(p: Pattern): { power: number; peak: number; theta: number; phi: number } {
  const w = thetaWeights(p.nTheta - 1);
  let power = 0;
  let peak = -1;
  let theta = 0;
  let phi = 0;
  for (let t = 0; t < p.nTheta; t++)
    for (let f = 0; f < p.nPhi; f++) {
      const u = intensity(p, t, f);
      power += (u * w[t] * 2 * Math.PI) / p.nPhi;
      if (u > peak * (1 + 1e-6)) {
        peak = u;
        theta = (t * Math.PI) / (p.nTheta - 1);
        phi = (f * 2 * Math.PI) / p.nPhi;
      }
    }
  return { power, peak, theta, phi };
}
