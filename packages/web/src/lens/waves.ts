import { abs2, polar, scale } from '@jadebell/core/numerics';
import { channelKeys, type IncidentWave } from '@jadebell/core/results';
import type { Run } from '../api/types.ts';
import type { Excitation } from './lens.ts';

/** The waves of an excitation by column of S; absent: the first that was excited alone, or those that were recorded together. */
export function wavesOf({ meta }: Run, excitation: Excitation | null): IncidentWave[] {
  const { excitations, combined, ports } = meta!;
  if (excitation) {
    const names = channelKeys(ports);
    return excitation.waves.flatMap(({ channel, amplitude, phase }) => {
      const column = excitations.indexOf(names.indexOf(channel));
      return column < 0 ? [] : [{ column, amplitude: polar(amplitude, (phase * Math.PI) / 180) }];
    });
  }
  if (combined)
    return combined.map((w) => ({
      column: excitations.indexOf(w.channel),
      amplitude: polar(w.amplitude, w.phase),
    }));
  return excitations.length ? [{ column: 0, amplitude: [1, 0] }] : [];
}

/** Whether the fields of a run can be told for any excitation. */
export const keepsEach = ({ meta }: Run): boolean => !!meta!.others?.length;

const asRecorded: IncidentWave[] = [{ column: 0, amplitude: [1, 0] }];

/** Shares of each excitation's fields for 1 W in all; those that were recorded where the run kept no others. */
export function fieldShares(run: Run, excitation: Excitation | null): IncidentWave[] {
  if (!excitation || !keepsEach(run)) return asRecorded;
  const waves = wavesOf(run, excitation).filter((w) => abs2(w.amplitude) !== 0);
  const size = Math.hypot(...waves.flatMap((w) => w.amplitude));
  return size > 0 ? waves.map((w) => ({ column: w.column, amplitude: scale(1 / size, w.amplitude) })) : asRecorded;
}

/** Adds up complex numbers, pairs, of several excitations by their shares; one alone is passed on. */
export function summed<T extends Float32Array | Float64Array>(parts: readonly T[], shares: readonly IncidentWave[]): T {
  if (parts.length === 1 && shares[0].amplitude[0] === 1 && shares[0].amplitude[1] === 0) return parts[0];
  const out = parts[0].slice() as T;
  out.fill(0);
  parts.forEach((part, k) => {
    const [re, im] = shares[k].amplitude;
    for (let i = 0; i < out.length; i += 2) {
      out[i] += re * part[i] - im * part[i + 1];
      out[i + 1] += re * part[i + 1] + im * part[i];
    }
  });
  return out;
}
