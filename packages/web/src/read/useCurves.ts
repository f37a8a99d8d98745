import type { Complex } from '@jadebell/core/results';
import { decibel, impedance, phaseDegrees, referredTo, sCurve, sLabel } from '@jadebell/core/s';
import useSWRImmutable from 'swr/immutable';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';

/** One term of S over the band. */
export interface Term {
  label: string;
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
  /** Reflection of the first excitation. */
  db: number[];
  /** Input impedance of the first excited port, where it is a lumped one. */
  impedance: { resistance: number[]; reactance: number[] } | null;
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

async function load(run: Run, reference: Complex | null): Promise<RunCurves> {
  const [frequency, own] = await Promise.all([getArray(run.id, 'frequency'), getArray(run.id, 's')]);
  const { ports, excitations } = run.meta!;
  const referred = reference && referredTo(own, run.meta!, reference);
  const s = referred ?? own;
  const terms = termsOf(run).map(({ label, to, from }): Term => {
    const values = sCurve(s, to, from);
    return { label, db: values.map(decibel), phase: values.map(phaseDegrees) };
  });
  const first = ports[excitations[0]];
  const z = first.mode === undefined ? sCurve(own, excitations[0], 0).map((v) => impedance(v, first.resistance)) : null;
  return {
    run,
    frequency: frequency.data as Float64Array,
    terms,
    db: terms[0].db,
    reference: referred ? reference : null,
    impedance: z && { resistance: z.map((v) => v.re), reactance: z.map((v) => v.im) },
  };
}

/** S and input impedance of runs, in their order. */
export function useCurves(all: Run[], reference: Complex | null = null): { curves: RunCurves[]; error: Error | undefined } {
  // A run lit by a plane wave has none.
  const runs = all.filter((r) => r.meta!.excitations.length);
  const { data, error } = useSWRImmutable<RunCurves[], Error>(
    runs.length ? ['curves', reference?.re ?? '', reference?.im ?? '', ...runs.map((r) => r.id)] : null,
    () => Promise.all(runs.map((r) => load(r, reference))),
    { keepPreviousData: true },
  );
  return { curves: runs.length ? (data ?? []) : [], error };
}
