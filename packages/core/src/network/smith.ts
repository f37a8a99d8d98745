import type { Complex } from '../numerics/complex.ts';

/** A circle, or part of one, in the plane of the reflection. */
export interface Arc {
  x: number;
  y: number;
  radius: number;
}

/**
 * The circles of constant resistance and reactance (in units of the reference) in the plane of the reflection (P. H. Smith, Electronics 12, 29,
 * 1939). Admittance circles are these turned by half a turn.
 */
export const resistanceCircle = (r: number): Arc => ({ x: r / (1 + r), y: 0, radius: 1 / (1 + r) });
/** Reflections of one reactance over the reference. */
export const reactanceCircle = (x: number): Arc => ({ x: 1, y: 1 / x, radius: 1 / Math.abs(x) });
/** Reflections of one standing wave ratio. */
export const ratioCircle = (vswr: number): Arc => ({ x: 0, y: 0, radius: (vswr - 1) / (vswr + 1) });

/** Reflection (z - 1) / (z + 1) of an impedance z over the reference, a ratio. */
export function reflectionOf(z: Complex): Complex {
  const d = (z[0] + 1) ** 2 + z[1] ** 2;
  return [(z[0] ** 2 - 1 + z[1] ** 2) / d, (2 * z[1]) / d];
}

/** Where a circle of constant reactance ends on the circle of constant resistance `r`: the reflection of r + jx. */
export const crossing = (r: number, x: number): Complex => reflectionOf([r, x]);
