import type { Complex } from '../../numerics/complex.ts';
import { rightDivide } from '../../numerics/complexSolve.ts';
import { renormalised } from '../../network/renormalise.ts';
import type { Channel } from './channels.ts';

/** Whether a lumped port of a run refers to a complex impedance. */
export const hasReactance = (channels: readonly Channel[]): boolean => channels.some((c) => c.kind === 'lumped' && c.reactance !== 0);

/** What S of each channel stands on as it is solved: resistances; null for modes, which stay as they are. */
export const ownResistances = (channels: readonly Channel[]): (Complex | null)[] =>
  channels.map((c) => (c.kind === 'lumped' ? [c.resistance, 0] : null));

/** The impedance that S of each channel is to refer to, ohms; null for modes. */
export const ownReferences = (channels: readonly Channel[]): (Complex | null)[] =>
  channels.map((c) => (c.kind === 'lumped' ? [c.resistance, c.reactance] : null));

/** Waves of a channel, as they are on its resistance, on what it refers to. */
export function onReference(channel: Channel, a: Complex, b: Complex): [a: Complex, b: Complex] {
  if (channel.kind !== 'lumped' || !channel.reactance) return [a, b];
  // With v = a + b and i = a - b in units of the resistance, (v + z i) / 2 and (v - z* i) / 2.
  const xi = channel.reactance / channel.resistance;
  const turned: Complex = [(-xi * (a[1] - b[1])) / 2, (xi * (a[0] - b[0])) / 2];
  return [
    [a[0] + turned[0], a[1] + turned[1]],
    [b[0] + turned[0], b[1] + turned[1]],
  ];
}

/**
 * How the runs, one for each channel, must be added up for given waves on the channels' own complex references, at one frequency. `a` and `b` are the
 * waves of the runs on the resistances, [channel][run]; `wanted` those into each channel. Null where the runs do not tell.
 */
export function sharesOfRuns(
  channels: readonly Channel[],
  a: readonly Complex[][],
  b: readonly Complex[][],
  wanted: readonly Complex[],
): Complex[] | null {
  const n = channels.length;
  const flat = (m: readonly Complex[][]): Float64Array => Float64Array.from(m.flatMap((row) => row.flat()));
  const s = rightDivide(flat(b), flat(a), n, n);
  const own = ownReferences(channels);
  const there = s && renormalised({ shape: [1, n, n, 2], data: s }, ownResistances(channels), own);
  if (!there) return null;
  // The waves out on the complex references, then those in on the resistances: with V = (z* a + z b) / sqrt R and I = (a - b) / sqrt R it is (V + R I) / 2 sqrt R.
  const inwards = wanted.map((x, i): Complex => {
    const z = own[i];
    if (!z) return x;
    let [re, im] = [0, 0];
    wanted.forEach((w, j) => {
      const at = 2 * (i * n + j);
      re += there.data[at] * w[0] - there.data[at + 1] * w[1];
      im += there.data[at] * w[1] + there.data[at + 1] * w[0];
    });
    // a + j X (b - a) / 2 R
    const xi = z[1] / (2 * z[0]);
    return [x[0] - xi * (im - x[1]), x[1] + xi * (re - x[0])];
  });
  // A x = a: as rows, x A^T = a.
  const turned = a.map((_, r) => a.map((row) => row[r]));
  const x = rightDivide(Float64Array.from(inwards.flat()), flat(turned), 1, n);
  return x && channels.map((_, i): Complex => [x[2 * i], x[2 * i + 1]]);
}
