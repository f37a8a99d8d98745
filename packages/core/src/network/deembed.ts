import { rightDivide } from '../numerics/complexSolve.ts';
import type { Network, ResultArray } from './types.ts';

/** A gap's capacitance or inductance at a frequency in hertz. */
export const atFrequency = ([constant, square]: readonly [number, number], frequency: number): number => constant + square * frequency ** 2;

/** Whether a result can be told without the gaps of its ports: some gap is known, and all channels were excited in their order. */
export const knowsGaps = ({ ports, excitations }: Network): boolean =>
  ports.some((p) => p.gap) && excitations.length === ports.length && excitations.every((c, e) => c === e);

/**
 * S [n, channels, channels, 2] seen from behind the gaps of lumped ports, at the same references: V and I of each such port go through its
 * capacitance across and its inductance in series, at a line's end in this order, else in the other. Null where a gap is unknown or S is singular.
 */
export function deembedded(s: ResultArray, frequency: ArrayLike<number>, meta: Network): ResultArray | null {
  const n = meta.ports.length;
  if (!knowsGaps(meta) || s.shape[1] !== n || s.shape[2] !== n) return null;
  const size = 2 * n * n;
  const data = new Float64Array(s.data.length);
  const a = new Float64Array(size);
  const b = new Float64Array(size);
  for (let f = 0; f < frequency.length; f++) {
    const w = 2 * Math.PI * frequency[f];
    meta.ports.forEach(({ gap, resistance, reactance = 0 }, i) => {
      // In units of the reference: admittance across, reactance in series.
      const [y, x] = gap
        ? [w * atFrequency(gap.capacitance, frequency[f]) * resistance, (w * atFrequency(gap.inductance, frequency[f])) / resistance]
        : [0, 0];
      // Part of the current may turn into the capacitance before it has gone through all of the inductance.
      const turn = gap?.mutual ? 1 - w * w * gap.mutual * atFrequency(gap.capacitance, frequency[f]) : 1;
      for (let j = 0; j < n; j++) {
        const at = 2 * (i * n + j);
        const [re, im] = [s.data[f * size + at], s.data[f * size + at + 1]];
        const own = i === j ? 1 : 0;
        // V = (z* a + z b) and I = a - b, with z in units of the resistance, over its square root.
        const xi = reactance / resistance;
        const v = [own + re - xi * im, im + xi * (re - own)];
        let [ir, ii] = [own - re, -im];
        if (gap?.impedance) [ir, ii] = [ir + y * v[1], ii - y * v[0]];
        const behind = [(v[0] + x * ii) / turn, (v[1] - x * ir) / turn];
        const current = gap?.impedance ? [ir, ii] : [ir + y * behind[1], ii - y * behind[0]];
        const turned = [-xi * current[1], xi * current[0]];
        for (const k of [0, 1]) {
          a[at + k] = (behind[k] + current[k] + turned[k]) / 2;
          b[at + k] = (behind[k] - current[k] + turned[k]) / 2;
        }
      }
    });
    const out = rightDivide(b, a, n, n);
    if (!out) return null;
    data.set(out, f * size);
  }
  return { shape: s.shape.slice(), data };
}
