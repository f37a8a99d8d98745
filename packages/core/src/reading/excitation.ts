import { abs2, polar, scale } from '../numerics/complex.ts';
import type { Combination } from '../document/index.ts';
import {
  channelKeys,
  excitationKey,
  farFrequencies,
  type IncidentWave,
  type ResultArray,
  type ResultMeta,
  type ResultSet,
} from '../results/index.ts';
import { PatternSampler } from '../radiation/index.ts';
import { figuresOf, glance, mixedSource, patternSource } from './patterns.ts';

type Told = Pick<ResultMeta, 'excitations' | 'combined' | 'ports' | 'others'>;

/** The waves of an excitation by column of S; absent: the first that was excited alone, or those that were recorded together. */
export function wavesOf({ excitations, combined, ports }: Told, excitation: Combination | null): IncidentWave[] {
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
export const keepsEach = ({ others }: Told): boolean => !!others?.length;

const asRecorded: IncidentWave[] = [{ column: 0, amplitude: [1, 0] }];

/** Shares of each excitation's fields for 1 W in all; those that were recorded where the run kept no others. */
export function fieldShares(meta: Told, excitation: Combination | null): IncidentWave[] {
  if (!excitation || !keepsEach(meta)) return asRecorded;
  const waves = wavesOf(meta, excitation).filter((w) => abs2(w.amplitude) !== 0);
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

/**
 * A result as told for other waves than those of its own fields: fields, currents and patterns added up by their shares, figures of the far field worked out anew.
 * What recorders tell in figures, powers among them, does not add up: it is that of the one excitation where one alone runs in, else it is left out.
 */
export function resultFor(result: ResultSet, shares: readonly IncidentWave[]): ResultSet {
  const { meta, arrays } = result;
  const alone = shares.length === 1;
  if (alone && shares[0].column === 0) return result;
  const other = alone ? meta.others?.find((o) => o.turn === shares[0].column) : undefined;
  const recorded = other?.recorded ?? meta.recorded;
  const each = Object.keys(arrays).filter((name) => shares.some((s) => s.column > 0 && excitationKey(name, s.column) in arrays));
  const sum = (name: string): ResultArray => {
    const parts = shares.map((s) => arrays[excitationKey(name, s.column)]);
    return { shape: parts[0].shape, data: summed(parts.map((p) => p.data as Float64Array), shares) }; // prettier-ignore
  };
  const own = { ...arrays, ...Object.fromEntries(each.map((name) => [name, sum(name)])) };
  const figures = meta.farField && farFrequencies(meta).map((_, f) => other?.figures?.[f] ?? mixedFigures(result, own.farField, shares, f));
  return { meta: { ...meta, combined: undefined, recorded, farField: meta.farField && { ...meta.farField, figures: figures! } }, arrays: own };
}

/** Figures of a sum of far fields at one of their frequencies. */
function mixedFigures(
  { meta, arrays }: ResultSet,
  sum: ResultArray,
  shares: readonly IncidentWave[],
  f: number,
): ReturnType<typeof figuresOf> & object {
  const [, nTheta, nPhi] = sum.shape;
  const part = ({ data }: ResultArray): Float64Array => data.subarray(4 * f * nTheta * nPhi, 4 * (f + 1) * nTheta * nPhi) as Float64Array;
  const recorded = patternSource(meta, f, { nTheta, nPhi, values: part(arrays.farField) })!;
  const source = mixedSource(meta, recorded, part(sum), { frequency: arrays.frequency, s: arrays.s, beta: arrays.beta }, shares);
  return figuresOf(source, glance(source, new PatternSampler(source.pattern)))!;
}
