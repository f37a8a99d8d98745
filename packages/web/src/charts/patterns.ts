import { intensity, type Pattern } from '@jadebell/core/radiation';
import type { PatternFigures } from '@jadebell/core/results';

export type Quantity = 'directivity' | 'gain' | 'realisedGain';
export const quantityNames: Record<Quantity, string> = { directivity: 'directivity', gain: 'gain', realisedGain: 'realised gain' };

/** Factor from intensity to the quantity, linear. */
const factor = (f: PatternFigures, quantity: Quantity): number => (f[quantity] / f.directivity) * ((4 * Math.PI) / f.fromPattern);

/** dBi of a quantity in direction (t, p) of the grid. */
export const patternDb = (pattern: Pattern, figures: PatternFigures, quantity: Quantity, t: number, p: number): number =>
  10 * Math.log10(Math.max(1e-12, intensity(pattern, t, p) * factor(figures, quantity)));

/** A full turn through the pattern: constant phi (theta from 0 down one side and up the other), or theta = 90 deg. */
export function cutOf(pattern: Pattern, figures: PatternFigures, quantity: Quantity, cut: 'phi0' | 'phi90' | 'horizon'): number[] {
  const { nTheta, nPhi } = pattern;
  const db = (t: number, p: number): number => patternDb(pattern, figures, quantity, t, p);
  if (cut === 'horizon') return Array.from({ length: nPhi }, (_, p) => db((nTheta - 1) / 2, p));
  const first = cut === 'phi0' ? 0 : nPhi / 4;
  const opposite = first + nPhi / 2;
  const turn = 2 * (nTheta - 1);
  return Array.from({ length: turn }, (_, i) => (i < nTheta ? db(i, first) : db(turn - i, opposite)));
}
