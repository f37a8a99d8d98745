import { modelAt } from './poleModel.ts';
import type { PoleModel } from './poleModel.ts';

/** A dielectric as an axis sees it: its level relative permittivity, or its poles. */
export interface Dielectric {
  level: number;
  model: PoleModel | null;
}

/** Step of the derivative over frequency, as a part of it: its own error and that of rounding are both near 1e-8. */
const h = 1e-4;

/**
 * Relative permittivity and loss of a dielectric at a frequency in hertz, and d(w e') / dw over it, by which energy is stored in a medium with memory
 * (Landau and Lifshitz, Electrodynamics of Continuous Media, sec. 80).
 */
export function mediumAt({ level, model }: Dielectric, frequency: number): { re: number; loss: number; stored: number } {
  if (!model) return { re: level, loss: 0, stored: level };
  const at = (f: number): { re: number; loss: number } => modelAt(model, 2 * Math.PI * f);
  const { re, loss } = at(frequency);
  return { re, loss, stored: ((1 + h) * at(frequency * (1 + h)).re - (1 - h) * at(frequency * (1 - h)).re) / (2 * h) };
}
