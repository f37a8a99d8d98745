import {
  fieldShares,
  figuresOf,
  glance,
  type GlanceFigures,
  keepsEach,
  mixedSource,
  type PatternSource,
  patternSource,
  summed,
} from '@jadebell/core/reading';
import { type Pattern, PatternSampler } from '@jadebell/core/radiation';
import { farFrequencies, type IncidentWave, type PatternFigures, type ResultArray, excitationKey } from '@jadebell/core/results';
import { useMemo } from 'react';
import { getArray } from '../../api/client.ts';
import { useKept } from '../../api/useKept.ts';
import type { Run } from '../../api/types.ts';
import { type Excitation, useLens } from '../../lens/lens.ts';
import { nearestRecorded, useFrequency } from '../../lens/useFrequency.ts';

/** What far fields are made of: that of each excitation, and S where they are to be combined. */
interface Parts {
  run: Run;
  fields: ResultArray[];
  network: { frequency: ResultArray; s: ResultArray; beta?: ResultArray } | null;
}

/** The far field of a run at a recorded frequency; cards share it, and what was worked out of it. */
export class FarField {
  readonly run: Run;
  readonly source: PatternSource;
  readonly sampler: PatternSampler;
  private figures: GlanceFigures | null = null;
  constructor(
    readonly parts: Parts,
    shares: readonly IncidentWave[],
    /** Index of the frequency among those of the far field. */
    readonly at: number,
  ) {
    const { run, fields, network } = parts;
    this.run = run;
    const [, nTheta, nPhi] = fields[0].shape;
    const size = nTheta * nPhi * 4;
    const part = (n: number): Pattern => ({ nTheta, nPhi, values: fields[n].data.subarray(at * size, (at + 1) * size) as Float64Array });
    const recorded = patternSource(run.meta!, at, part(0))!;
    const alone = shares.length === 1 && shares[0].column === 0;
    this.source =
      alone || !network
        ? recorded
        : mixedSource(run.meta!, recorded, summed(shares.map((s) => part(s.column).values), shares), network, shares); // prettier-ignore
    this.sampler = new PatternSampler(this.source.pattern);
  }
  /** Figures at a glance, worked out once. */
  get glance(): GlanceFigures {
    return (this.figures ??= glance(this.source, this.sampler));
  }
}

const known = new WeakMap<Parts, Map<string, FarField>>();
const mostKept = 64;
function farFieldOf(parts: Parts, excitation: Excitation | null, at: number): FarField {
  const shares = fieldShares(parts.run.meta!, excitation);
  let all = known.get(parts);
  if (!all) known.set(parts, (all = new Map()));
  const key = `${at} ${shares.map((s) => `${s.column}:${s.amplitude.join(':')}`).join()}`;
  let own = all.get(key);
  if (!own) {
    if (all.size >= mostKept) all.delete(all.keys().next().value!);
    all.set(key, (own = new FarField(parts, shares, at)));
  }
  return own;
}

const has = (run: Run | undefined): run is Run => !!(run?.meta!.farField ?? run?.meta!.scattered);

async function load(run: Run): Promise<Parts> {
  const { others = [], ports } = run.meta!;
  const fields = await Promise.all([0, ...others.map((o) => o.turn)].map((turn) => getArray(run.id, excitationKey('farField', turn))));
  if (!keepsEach(run.meta!)) return { run, fields, network: null };
  const guided = ports.some((p) => p.mode !== undefined);
  const [frequency, s, beta] = await Promise.all([
    getArray(run.id, 'frequency'),
    getArray(run.id, 's'),
    guided ? getArray(run.id, 'beta') : undefined,
  ]);
  return { run, fields, network: { frequency, s, beta } };
}

/** Far fields of runs at the frequency and for the excitation of the lens, of those that have one; null while they are read. */
export function useFarFields(runs: readonly (Run | undefined)[]): { fars: FarField[] | null; error?: Error } {
  const all = runs.filter(has);
  const key = all.map((r) => r.id).join();
  const { data, error } = useKept(all.length ? `far ${key}` : null, () => Promise.all(all.map(load)));
  const frequency = useFrequency();
  const excitation = useLens((s) => s.excitation);
  const fars = useMemo(
    () =>
      !all.length
        ? []
        : data && data.map((p) => p.run.id).join() === key
          ? data.map((p) => farFieldOf(p, excitation, nearestRecorded(farFrequencies(p.run.meta!), frequency)))
          : null,
    [data, key, frequency, excitation], // oxlint-disable-line react/exhaustive-deps -- the key stands for the runs.
  );
  return { fars, error };
}

/** The far field of one run; null while it is read or where there is none. */
export function useFarField(run: Run | undefined): { far: FarField | null; error?: Error } {
  const { fars, error } = useFarFields([run]);
  return { far: fars?.[0] ?? null, error };
}

/** The far fields of one run at every recorded frequency, where they are few; else at that of the lens alone. */
export function useEveryFarField(run: Run | undefined, most: number): FarField[] {
  const { far } = useFarField(run);
  const excitation = useLens((s) => s.excitation);
  return useMemo(() => {
    if (!far) return [];
    const all = farFrequencies(far.run.meta!);
    return all.length > most ? [far] : all.map((_, at) => farFieldOf(far.parts, excitation, at));
  }, [far, excitation, most]);
}

const nothing: readonly Run[] = [];

/** Figures of the far fields of runs for the waves of the lens, by run, where those are others than what was recorded. */
export function useMixedFigures(runs: readonly Run[], wanted: boolean): ReadonlyMap<string, readonly PatternFigures[]> {
  const excitation = useLens((s) => s.excitation);
  const own = wanted && excitation ? runs.filter((r) => r.meta!.farField && keepsEach(r.meta!)) : nothing;
  const key = own.map((r) => r.id).join();
  const { data } = useKept(own.length ? `far ${key}` : null, () => Promise.all(own.map(load)));
  return useMemo(() => {
    const out = new Map<string, readonly PatternFigures[]>();
    if (own.length && data)
      for (const parts of data)
        out.set(
          parts.run.id,
          farFrequencies(parts.run.meta!).flatMap((_, at) => {
            const far = farFieldOf(parts, excitation, at);
            return figuresOf(far.source, far.glance) ?? [];
          }),
        );
    return out;
  }, [data, excitation, key]); // oxlint-disable-line react/exhaustive-deps -- the key stands for the runs.
}
