import { decibel, sCurve } from '@jadebell/core/results';
import useSWRImmutable from 'swr/immutable';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';

export interface RunCurve {
  run: Run;
  frequency: ArrayLike<number>;
  /** Reflection of the first excitation. */
  db: number[];
}

/** Reflection of runs as they were solved, whatever the lens of Read does, in their order. */
export function useLensFreeCurves(all: readonly Run[]): { curves: RunCurve[]; error: Error | undefined } {
  // A run lit by a plane wave has none.
  const runs = all.filter((r) => r.meta!.excitations.length);
  const { data, error } = useSWRImmutable<RunCurve[], Error>(
    runs.length ? ['reflections', ...runs.map((r) => r.id)] : null,
    () =>
      Promise.all(
        runs.map(async (run) => {
          const [frequency, s] = await Promise.all([getArray(run.id, 'frequency'), getArray(run.id, 's')]);
          return { run, frequency: frequency.data, db: sCurve(s, run.meta!.excitations[0], 0).map(decibel) };
        }),
      ),
    { keepPreviousData: true },
  );
  return { curves: runs.length ? (data ?? []) : [], error };
}
