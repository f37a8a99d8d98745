import { channelNames } from '@jadebell/core/results';
import type { Run } from '../api/types.ts';
import type { Excitation } from './lens.ts';

/** A wave by its column in S. */
export interface Wave {
  column: number;
  re: number;
  im: number;
}

/** The waves of an excitation by column of S; absent: the first that was excited alone, or those that were recorded together. */
export function wavesOf({ meta }: Run, excitation: Excitation | null): Wave[] {
  const { excitations, combined, ports } = meta!;
  if (excitation) {
    const names = channelNames(ports);
    return excitation.waves.flatMap(({ channel, amplitude, phase }) => {
      const column = excitations.indexOf(names.indexOf(channel));
      const turn = (phase * Math.PI) / 180;
      return column < 0 ? [] : [{ column, re: amplitude * Math.cos(turn), im: amplitude * Math.sin(turn) }];
    });
  }
  if (combined)
    return combined.map((w) => ({
      column: excitations.indexOf(w.channel),
      re: w.amplitude * Math.cos(w.phase),
      im: w.amplitude * Math.sin(w.phase),
    }));
  return excitations.length ? [{ column: 0, re: 1, im: 0 }] : [];
}

/** Whether the fields of a run can be told for any excitation. */
export const keepsEach = ({ meta }: Run): boolean => !!meta!.others?.length;

const asRecorded: Wave[] = [{ column: 0, re: 1, im: 0 }];

/** Shares of each excitation's fields for 1 W in all; those that were recorded where the run kept no others. */
export function fieldShares(run: Run, excitation: Excitation | null): Wave[] {
  if (!excitation || !keepsEach(run)) return asRecorded;
  const waves = wavesOf(run, excitation).filter((w) => w.re !== 0 || w.im !== 0);
  const size = Math.hypot(...waves.flatMap((w) => [w.re, w.im]));
  return size > 0 ? waves.map((w) => ({ column: w.column, re: w.re / size, im: w.im / size })) : asRecorded;
}

/** Adds up complex numbers, pairs, of several excitations by their shares; one alone is passed on. */
export function summed<T extends Float32Array | Float64Array>(parts: readonly T[], shares: readonly Wave[]): T {
  if (parts.length === 1 && shares[0].re === 1 && shares[0].im === 0) return parts[0];
  const out = parts[0].slice() as T;
  out.fill(0);
  parts.forEach((part, k) => {
    const { re, im } = shares[k];
    for (let i = 0; i < out.length; i += 2) {
      out[i] += re * part[i] - im * part[i + 1];
      out[i + 1] += re * part[i + 1] + im * part[i];
    }
  });
  return out;
}
