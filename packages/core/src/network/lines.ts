import { type Complex, abs, arg } from '../numerics/complex.ts';

/** Voltage standing wave ratio of a reflection on a real reference; infinite from |s| = 1 on. */
export const standingWaveRatio = (s: Complex): number => {
  const size = abs(s);
  return size >= 1 ? Infinity : (1 + size) / (1 - size);
};

/** Phase, radians, with the jumps of 2 pi taken out; a gap of NaN begins anew. */
export function unwrapped(phase: ArrayLike<number>): Float64Array {
  const out = Float64Array.from(phase);
  for (let i = 1; i < out.length; i++) {
    const step = out[i] - out[i - 1];
    if (Number.isFinite(step)) out[i] -= 2 * Math.PI * Math.round(step / (2 * Math.PI));
  }
  return out;
}

/**
 * Derivative of samples y over x: by the three-point formula for unequal steps, which is exact for a parabola, at the ends by its one-sided form. NaN for
 * fewer than two samples.
 */
export function derivative(x: ArrayLike<number>, y: ArrayLike<number>): Float64Array {
  const n = x.length;
  if (n < 2) return new Float64Array(n).fill(NaN);
  const slope = Float64Array.from({ length: n - 1 }, (_, i) => (y[i + 1] - y[i]) / (x[i + 1] - x[i]));
  return Float64Array.from({ length: n }, (_, i) => {
    if (n === 2) return slope[0];
    const k = Math.min(Math.max(i, 1), n - 2);
    const [h, g] = [x[k] - x[k - 1], x[k + 1] - x[k]];
    // Slopes of the parabola through three points: at its middle the weighted mean, at its ends as far again from the inner slope.
    const middle = (slope[k - 1] * g + slope[k] * h) / (h + g);
    if (i === k) return middle;
    return i < k ? 2 * slope[0] - middle : 2 * slope[n - 2] - middle;
  });
}

/** Group delay, s, of a transfer over frequency, Hz: -d(phase)/d(omega), from the turn between neighbours, which has no jumps while it is less than half a turn. */
export const groupDelay = (frequency: ArrayLike<number>, s: readonly Complex[]): Float64Array =>
  derivative(frequency, unwrapped(s.map((v) => arg(v)))).map((d) => -d / (2 * Math.PI));
