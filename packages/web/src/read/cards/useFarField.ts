import { type PatternSource, patternSource } from '@jadebell/core/reading';
import { type Pattern, PatternSampler } from '@jadebell/core/radiation';
import { useMemo } from 'react';
import { useArray } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { nearestRecorded, useFrequency } from '../lens/useFrequency.ts';

export interface FarField {
  source: PatternSource;
  sampler: PatternSampler;
  /** Index of the recorded frequency. */
  at: number;
}

/** The far field of a run at the frequency that the card looks at; null while it is read or where there is none. */
export function useFarField(run: Run | undefined): { far: FarField | null; error?: Error } {
  const meta = run?.meta;
  const has = !!(meta?.farField ?? meta?.scattered);
  const { data, error } = useArray(has ? run!.id : null, 'farField') as {
    data?: { shape: number[]; data: Float32Array | Float64Array };
    error?: Error;
  };
  const frequency = useFrequency();
  const at = meta ? nearestRecorded(meta, frequency) : 0;
  const far = useMemo(() => {
    if (!data || !meta) return null;
    const [, nTheta, nPhi] = data.shape;
    const size = nTheta * nPhi * 4;
    const pattern: Pattern = { nTheta, nPhi, values: data.data.subarray(at * size, (at + 1) * size) as Float64Array };
    const source = patternSource(meta, at, pattern);
    return source && { source, sampler: new PatternSampler(pattern), at };
  }, [data, meta, at]);
  return { far, error };
}
