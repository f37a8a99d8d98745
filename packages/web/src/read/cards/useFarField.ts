import { glance, type GlanceFigures, type PatternSource, patternSource } from '@jadebell/core/reading';
import { type Pattern, PatternSampler } from '@jadebell/core/radiation';
import { useMemo } from 'react';
import useSWRImmutable from 'swr/immutable';
import { getArray, type NumberArray } from '../../api/client.ts';
import type { Run } from '../../api/types.ts';
import { nearestRecorded, useFrequency } from '../lens/useFrequency.ts';

/** The far field of a run at a recorded frequency; cards share it, and what was worked out of it. */
export class FarField {
  readonly source: PatternSource;
  readonly sampler: PatternSampler;
  private figures: GlanceFigures | null = null;
  constructor(
    readonly run: Run,
    array: NumberArray,
    /** Index of the recorded frequency. */
    readonly at: number,
  ) {
    const [, nTheta, nPhi] = array.shape;
    const size = nTheta * nPhi * 4;
    const pattern: Pattern = { nTheta, nPhi, values: array.data.subarray(at * size, (at + 1) * size) as Float64Array };
    this.source = patternSource(run.meta!, at, pattern)!;
    this.sampler = new PatternSampler(pattern);
  }
  /** Figures at a glance, worked out once. */
  get glance(): GlanceFigures {
    return (this.figures ??= glance(this.source, this.sampler));
  }
}

const known = new WeakMap<NumberArray, Map<number, FarField>>();
function farFieldOf(run: Run, array: NumberArray, at: number): FarField {
  let all = known.get(array);
  if (!all) known.set(array, (all = new Map()));
  let own = all.get(at);
  if (!own) all.set(at, (own = new FarField(run, array, at)));
  return own;
}

const has = (run: Run | undefined): run is Run => !!(run?.meta!.farField ?? run?.meta!.scattered);

/** Far fields of runs at the frequency that the card looks at, of those that have one; null while they are read. */
export function useFarFields(runs: readonly (Run | undefined)[]): { fars: FarField[] | null; error?: Error } {
  const all = runs.filter(has);
  const { data, error } = useSWRImmutable<NumberArray[], Error>(
    all.length ? ['far', ...all.map((r) => r.id)] : null,
    () => Promise.all(all.map((r) => getArray(r.id, 'farField'))),
    { keepPreviousData: true },
  );
  const frequency = useFrequency();
  const key = all.map((r) => r.id).join();
  const fars = useMemo(
    () => (!all.length ? [] : data?.length === all.length ? all.map((r, i) => farFieldOf(r, data[i], nearestRecorded(r.meta!, frequency))) : null),
    [data, key, frequency], // eslint-disable-line react-hooks/exhaustive-deps -- the key stands for the runs.
  );
  return { fars, error };
}

/** The far field of one run; null while it is read or where there is none. */
export function useFarField(run: Run | undefined): { far: FarField | null; error?: Error } {
  const { fars, error } = useFarFields([run]);
  return { far: fars?.[0] ?? null, error };
}
