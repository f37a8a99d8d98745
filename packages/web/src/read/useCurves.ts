import { decibel, impedance, phaseDegrees } from '@jadebell/core/s';
import useSWRImmutable from 'swr/immutable';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';

export interface RunCurves {
  run: Run;
  frequency: Float64Array;
  db: number[];
  phase: number[];
  resistance: number[];
  reactance: number[];
}

async function load(run: Run): Promise<RunCurves> {
  const [frequency, s] = await Promise.all([getArray(run.id, 'frequency'), getArray(run.id, 's')]);
  const ports = s.shape[1];
  const port = Math.max(
    0,
    run.meta!.ports.findIndex((p) => p.name === run.meta!.excited),
  );
  const values = Array.from(frequency.data, (_, i) => ({ re: s.data[(i * ports + port) * 2], im: s.data[(i * ports + port) * 2 + 1] }));
  const z = values.map((v) => impedance(v, run.meta!.ports[port].resistance));
  return {
    run,
    frequency: frequency.data as Float64Array,
    db: values.map(decibel),
    phase: values.map(phaseDegrees),
    resistance: z.map((v) => v.re),
    reactance: z.map((v) => v.im),
  };
}

/** S11 and input impedance of runs, in their order. */
export function useCurves(runs: Run[]): { curves: RunCurves[]; error: Error | undefined } {
  const { data, error } = useSWRImmutable<RunCurves[], Error>(
    runs.length ? ['curves', ...runs.map((r) => r.id)] : null,
    () => Promise.all(runs.map(load)),
    { keepPreviousData: true },
  );
  return { curves: data ?? [], error };
}
