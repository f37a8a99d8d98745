import { type Complex, div } from '../../numerics/complex.ts';
import { leastSquares } from '../../numerics/leastSquares.ts';
import { atFrequency, type PortGap } from '../../results/index.ts';

/** A line between two equal ports. */
export interface ReferenceLine {
  /** Metres. */
  length: number;
  /** Ohms, of the mode. */
  impedance: number;
  /** Phase constant at a frequency in hertz, 1/m. */
  beta(frequency: number): number;
}

/**
 * Reflection of one half of the line, of an impedance in ohms, ended by an open or a short in its middle, behind a capacitance across the port (farads) and an
 * inductance (henries) in series.
 */
export function halfLine(
  line: ReferenceLine,
  impedance: number,
  open: boolean,
  frequency: number,
  resistance: number,
  c: number,
  l: number,
): Complex {
  const t = Math.tan((line.beta(frequency) * line.length) / 2);
  const w = 2 * Math.PI * frequency;
  // Purely reactive: jx.
  const x = (open ? -impedance / t : impedance * t) + w * l;
  const b = w * c - 1 / x;
  return div([1 / resistance, -b], [1 / resistance, b]);
}

/** Step of the slopes of the fit, in its own unknowns, which are of size 1. */
const h = 1e-6;

/**
 * Capacitance and inductance that make a lossless line between two equal ports agree with its S, [f][to][from = first], in least squares over the
 * band, by Gauss and Newton, and the impedance that the port sees (for a line that is not TEM it has no one meaning): each a constant and a part with the
 * square of frequency. The even and the odd sum of S11 and S21 are the reflections of half the
 * line, open and shorted in its middle.
 */
export function fitGap(frequency: ArrayLike<number>, s: ArrayLike<number>, resistance: number, line: ReferenceLine): PortGap {
  const n = frequency.length;
  const measured = Array.from({ length: 2 * n }, (_, i): Complex => {
    const [f, sign] = [i >> 1, i & 1 ? -1 : 1];
    return [s[4 * f] + sign * s[4 * f + 2], s[4 * f + 1] + sign * s[4 * f + 3]];
  });
  const top = frequency[n - 1];
  // In units of the port's resistance all unknowns are of the same size.
  const units = [1 / (2 * Math.PI * top * resistance), resistance / (2 * Math.PI * top)];
  const gapOf = (x: readonly number[]): PortGap & { impedance: [number, number] } => ({
    capacitance: [x[0] * units[0], (x[1] * units[0]) / top ** 2],
    inductance: [x[2] * units[1], (x[3] * units[1]) / top ** 2],
    before: 0,
    after: 0,
    impedance: [line.impedance * (1 + x[4]), (line.impedance * x[5]) / top ** 2],
  });
  const residual = (x: readonly number[]): Float64Array => {
    const out = new Float64Array(4 * n);
    const gap = gapOf(x);
    measured.forEach((m, i) => {
      const f = frequency[i >> 1];
      const [z, c, l] = [gap.impedance, gap.capacitance, gap.inductance].map((v) => atFrequency(v, f));
      const r = halfLine(line, z, i % 2 === 0, f, resistance, c, l);
      out.set([r[0] - m[0], r[1] - m[1]], 2 * i);
    });
    return out;
  };
  /** Largest difference of S11 or S21, which are half the sum and half the difference of the two. */
  const worst = (r: Float64Array): number => {
    let most = 0;
    for (let f = 0; f < n; f++)
      for (const sign of [1, -1]) most = Math.max(most, Math.hypot(r[4 * f] + sign * r[4 * f + 2], r[4 * f + 1] + sign * r[4 * f + 3]) / 2);
    return most;
  };
  let at = [0, 0, 0, 0, 0, 0];
  const before = worst(residual(at));
  for (let round = 0; round < 20; round++) {
    const r = residual(at);
    const slopes = at.map((_, k) => residual(at.map((v, i) => (i === k ? v + h : v))).map((v, i) => (v - r[i]) / h));
    const step = leastSquares(slopes, r);
    if (!step) break;
    at = at.map((v, i) => v - step[i]);
    if (Math.hypot(...step) < 1e-9) break;
  }
  return { ...gapOf(at), before, after: worst(residual(at)) };
}
