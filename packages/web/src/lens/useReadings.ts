import { type NetworkView, type RunReading, viewNetwork, wavesOf } from '@jadebell/core/reading';
import { type Complex, type ResultArray, knowsGaps, readReference } from '@jadebell/core/results';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { getArray } from '../api/client.ts';
import { useKept } from '../api/useKept.ts';
import type { ShownRun } from './shown.ts';
import { useLens } from './lens.ts';

/** A run as curves are taken from it, with its place among those that are shown. */
export interface ShownReading extends RunReading {
  shown: ShownRun;
  /** Seen without the gaps of its ports beside itself with them. */
  bare: boolean;
}

const none = new Float64Array(0);
/** Arrays of runs by run and name. */
async function load(keys: readonly [run: string, name: string][]): Promise<Map<string, ResultArray>> {
  const arrays = await Promise.all(keys.map(([run, name]) => getArray(run, name)));
  return new Map(keys.map(([run, name], i) => [`${run}/${name}`, arrays[i]]));
}

/** The readings of runs under the lens; `more` names arrays that are needed besides S. While they load, the last stay. */
export function useReadings(
  runs: readonly ShownRun[],
  more: (run: ShownRun) => readonly string[],
): { readings: ShownReading[]; loading: boolean; error?: Error } {
  const { gaps, references, shifts, excitation } = useLens(useShallow((s) => ({ gaps: s.gaps, references: s.references, shifts: s.shifts, excitation: s.excitation }))); // prettier-ignore
  const keys = runs.flatMap((r): [string, string][] => {
    const { excitations, ports } = r.run.meta!;
    const own = excitations.length ? ['frequency', 's', ...(ports.some((p) => p.mode !== undefined) ? ['beta'] : [])] : [];
    return [...new Set([...own, ...more(r)])].map((name) => [r.run.id, name]);
  });
  const key = keys.length ? `readings ${keys.map((k) => k.join('/')).join()}` : null;
  const { data, loading, error } = useKept(key, () => load(keys));
  const readings = useMemo(() => {
    const typed = Object.entries(references).flatMap(([port, text]): [string, Complex][] => {
      const z = readReference(text);
      return z ? [[port, z]] : [];
    });
    return runs.flatMap((shown): ShownReading[] => {
      const { run } = shown;
      const meta = run.meta!;
      const array = (name: string): ResultArray | undefined => data?.get(`${run.id}/${name}`);
      const frequency = array('frequency')?.data ?? none;
      const s = array('s');
      if (meta.excitations.length && !s) return [];
      const kinds: NetworkView['gaps'][] = gaps === 'both' && knowsGaps(meta) ? ['kept', 'out'] : [gaps === 'out' ? 'out' : 'kept'];
      return kinds.map((kind) => ({
        shown,
        meta,
        frequency,
        array,
        waves: wavesOf(run.meta!, excitation),
        bare: kind === 'out' && kinds.length > 1,
        network: s ? viewNetwork(meta, frequency, s, array('beta'), { gaps: kind, shifts, references: Object.fromEntries(typed) }) : null,
      }));
    });
    // oxlint-disable-next-line react/exhaustive-deps -- the list of runs is made anew each time; its keys tell whether it differs.
  }, [data, gaps, references, shifts, excitation, runs.map((r) => r.run.id + r.label).join()]);
  return { readings, loading, error };
}
