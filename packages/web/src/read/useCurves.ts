import type { Complex } from '@jadebell/core/results';
import { decibel, impedance, phaseDegrees, referenceOf, referredTo, sCurve, sLabel, withoutGaps } from '@jadebell/core/s';
import useSWRImmutable from 'swr/immutable';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';

/** Whether curves are as solved, without the gaps of lumped ports, or both beside each other. */
export type Gaps = 'kept' | 'out' | 'both';

/** One term of S over the band. */
export interface Term {
  label: string;
  /** Seen from behind the gaps of the lumped ports. */
  bare: boolean;
  db: number[];
  phase: number[];
}

export interface RunCurves {
  run: Run;
  frequency: Float64Array;
  /** All terms that were computed, those of the first excitation first. */
  terms: Term[];
  /** What S is referred to in place of the ports' own impedances; modes without one keep theirs. */
  reference: Complex | null;
  gaps: Gaps;
  /** Reflection of the first excitation. */
  db: number[];
  /** Input impedance of the first excited port, where it is a lumped one: as solved, without its gap, or both. */
  impedances: { bare: boolean; resistance: number[]; reactance: number[] }[];
}

/** Terms of S that a run has, by label: reflection of what was excited first, then what it sends on, then the other excitations. */
export function termsOf(run: Run): { label: string; to: number; from: number }[] {
  const { ports, excitations } = run.meta!;
  return excitations.flatMap((own, from) => {
    const all = ports.map((_, to) => ({ label: sLabel(ports, to, own), to, from }));
    return [all[own], ...all.filter((t) => t.to !== own)];
  });
}

/** The terms that are shown at first: out of each port's first mode for the first excitation. */
export function firstTerms(run: Run): string[] {
  const { ports, excitations } = run.meta!;
  const own = excitations[0];
  return termsOf(run).filter((t) => t.from === 0 && (t.to === own || (ports[t.to].mode ?? 1) === 1)).slice(0, 4).map((t) => t.label); // prettier-ignore
}

async function load(run: Run, reference: Complex | null, gaps: Gaps): Promise<RunCurves> {
  const [frequency, solved] = await Promise.all([getArray(run.id, 'frequency'), getArray(run.id, 's')]);
  const { ports, excitations } = run.meta!;
  const bare = gaps === 'kept' ? null : withoutGaps(solved, frequency.data, run.meta!);
  const kinds = [...(gaps === 'out' && bare ? [] : [{ own: solved, bare: false }]), ...(bare ? [{ own: bare, bare: true }] : [])];
  const referable = reference !== null && referredTo(solved, run.meta!, reference) !== null;
  const first = ports[excitations[0]];
  const found = kinds.map(({ own, bare }) => {
    const s = (reference && referredTo(own, run.meta!, reference)) ?? own;
    const terms = termsOf(run).map(({ label, to, from }): Term => {
      const values = sCurve(s, to, from);
      return { label, bare, db: values.map(decibel), phase: values.map(phaseDegrees) };
    });
    const z = first.mode === undefined ? sCurve(own, excitations[0], 0).map((v) => impedance(v, referenceOf(first)!)) : null;
    return { terms, impedance: z && { bare, resistance: z.map((v) => v.re), reactance: z.map((v) => v.im) } };
  });
  return {
    run,
    frequency: frequency.data as Float64Array,
    terms: found.flatMap((k) => k.terms),
    db: found[0].terms[0].db,
    reference: referable ? reference : null,
    gaps: bare ? gaps : 'kept',
    impedances: found.flatMap((k) => k.impedance ?? []),
  };
}

/** S and input impedance of runs, in their order. */
export function useCurves(all: Run[], reference: Complex | null = null, gaps: Gaps = 'kept'): { curves: RunCurves[]; error: Error | undefined } {
  // A run lit by a plane wave has none.
  const runs = all.filter((r) => r.meta!.excitations.length);
  const { data, error } = useSWRImmutable<RunCurves[], Error>(
    runs.length ? ['curves', reference?.re ?? '', reference?.im ?? '', gaps, ...runs.map((r) => r.id)] : null,
    () => Promise.all(runs.map((r) => load(r, reference, gaps))),
    { keepPreviousData: true },
  );
  return { curves: runs.length ? (data ?? []) : [], error };
}
