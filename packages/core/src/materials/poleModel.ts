import type { Complex } from '../numerics/complex.ts';
/** A relative permittivity e' - j e'': its real part and its loss e'', which is positive in a passive medium. */
export interface Permittivity {
  re: number;
  loss: number;
}

/** A pole of a permittivity with its residue, both in rad/s: r / (s - p), and its conjugate where p is complex. */
export interface Pole {
  p: Readonly<Complex>;
  r: Readonly<Complex>;
}

/** Relative permittivity as a function of s: its limit at infinite frequency and poles. A conductivity is a pole at zero. */
export interface PoleModel {
  infinity: number;
  poles: Pole[];
}

/** Permittivity e' - j e'' of a model at the complex frequency j w, w in rad/s. */
export function modelAt({ infinity, poles }: PoleModel, w: number): Permittivity {
  let [re, im] = [infinity, 0];
  for (const { p, r } of poles)
    for (const sign of p[1] === 0 ? [1] : [1, -1]) {
      // r / (j w - p) and the conjugate pole.
      const [dr, di] = [-p[0], w - sign * p[1]];
      const d = dr * dr + di * di;
      const [rr, ri] = [r[0], sign * r[1]];
      re += (rr * dr + ri * di) / d;
      im += (ri * dr - rr * di) / d;
    }
  return { re, loss: -im };
}

/** The term strength w0^2 / (w0^2 + s g + s^2), resonance w0 and damping g in rad/s. */
export function resonance(strength: number, w0: number, g: number): Pole[] {
  const square = w0 * w0 - (g * g) / 4;
  if (square > 0) {
    const w = Math.sqrt(square);
    return [{ p: [-g / 2, w], r: [0, (-strength * w0 * w0) / (2 * w)] }];
  }
  // Two real poles, kept apart.
  const half = Math.max(Math.sqrt(-square), 1e-4 * g);
  return [1, -1].map((s) => ({ p: [-g / 2 + s * half, 0], r: [(s * strength * w0 * w0) / (2 * half), 0] }));
}

/** The term (static - infinity) / (1 + s tau). */
export const relaxation = (step: number, tau: number): Pole => ({ p: [-1 / tau, 0], r: [step / tau, 0] });
