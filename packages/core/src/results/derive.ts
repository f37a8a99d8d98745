import type { Complex, ResultSet } from './resultSet.ts';

/** S11 of the excited port over the band. */
export function reflection(result: ResultSet, port = 0): { frequency: Float64Array; s: Complex[] } {
  const frequency = result.arrays.frequency.data as Float64Array;
  const { data, shape } = result.arrays.s;
  const at = (i: number): number => (i * shape[1] + port) * 2;
  return { frequency, s: Array.from(frequency, (_, i) => ({ re: data[at(i)], im: data[at(i) + 1] })) };
}

/** 20 log10 |s|, with a floor of -200 dB. */
export const decibel = (s: Complex): number => Math.max(-200, 20 * Math.log10(Math.hypot(s.re, s.im)));
/** Phase in degrees, -180 to 180. */
export const phaseDegrees = (s: Complex): number => (Math.atan2(s.im, s.re) * 180) / Math.PI;

/** Input impedance R (1 + s) / (1 - s) for a real reference resistance, ohms. */
export function impedance(s: Complex, resistance: number): Complex {
  const d = (1 - s.re) ** 2 + s.im ** 2;
  return { re: (resistance * (1 - s.re * s.re - s.im * s.im)) / d, im: (resistance * 2 * s.im) / d };
}

/**
 * Frequencies at which the reactance passes through zero upwards (series resonance), by linear interpolation, with the
 * resistance there.
 */
export function resonances(frequency: ArrayLike<number>, z: readonly Complex[]): { frequency: number; resistance: number }[] {
  const found: { frequency: number; resistance: number }[] = [];
  for (let i = 1; i < z.length; i++) {
    const [a, b] = [z[i - 1].im, z[i].im];
    if (!(a < 0 && b >= 0)) continue;
    const t = a / (a - b);
    found.push({ frequency: frequency[i - 1] + t * (frequency[i] - frequency[i - 1]), resistance: z[i - 1].re + t * (z[i].re - z[i - 1].re) });
  }
  return found;
}
