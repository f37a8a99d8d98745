import { RationalFit } from '../../numerics/rationalFit.ts';
import type { Drives } from './solution.ts';

export interface Sweep {
  /** Drives at a frequency of the band; those that were not solved lack the bases. */
  at(frequency: number): Drives;
  solved: number;
  /** Largest deviation of the fit at the last two frequencies that tested it; null where all were solved. */
  error: number | null;
  /** False if it was cut short. */
  whole: boolean;
}

interface SweepOptions {
  /** Largest deviation of a current at ports, loads and probes over the largest of its drive. */
  tolerance: number;
  /** Solves every frequency. */
  each?: boolean;
  aborted?(): boolean;
}

/** Bases of each drive that are fitted with the places. */
const weighed = 32;
/** Frequencies up to which all are solved. */
const few = 8;

/**
 * Currents over a band from few solutions: all currents of all drives are interpolated together by one rational function. The next sample is where the last one
 * changed the interpolant most, or, once it changes little, in the middle of the widest gap between samples; when two in a row were foretold
 * within the tolerance, and changed it nowhere by more, it ends.
 */
export async function sweepBand(
  frequencies: Float64Array,
  solve: (frequency: number) => Promise<Drives>,
  { tolerance, each, aborted }: SweepOptions,
): Promise<Sweep> {
  const known = new Map<number, Drives>();
  const take = async (f: number): Promise<Drives> => {
    const drives = await solve(f);
    known.set(f, drives);
    return drives;
  };
  if (each || frequencies.length <= few) {
    for (const f of frequencies) {
      if (aborted?.() && known.size) break;
      await take(f);
    }
    return { at: (f) => known.get(f) ?? lastOf(known), solved: known.size, error: null, whole: known.size === frequencies.length };
  }
  const last = frequencies.length - 1;
  const [from, to] = [frequencies[0], frequencies[last]];
  const z = (f: number): number => (2 * f - from - to) / (to - from);
  let fit: RationalFit | null = null;
  let width = 0;
  let scales: number[] = [];
  /** Places, then some of the bases, each drive over its own size, so that all weigh alike. */
  const join = (f: number, d: Drives): void => {
    const [p, b] = [d.places.length / d.count, d.bases.length / d.count];
    if (!fit) {
      scales = Array.from({ length: d.count }, (_, n) => largest(d.bases, n * b, (n + 1) * b) || 1);
      width = d.places.length / 2;
      fit = new RationalFit(tolerance / 10);
    }
    const step = 2 * Math.max(1, Math.ceil(b / 2 / weighed));
    const chosen = Math.ceil(b / step);
    const x = new Float64Array(d.places.length + 2 * d.count * chosen);
    for (let n = 0; n < d.count; n++) {
      for (let i = 0; i < p; i++) x[n * p + i] = d.places[n * p + i] / scales[n];
      for (let i = 0; i < chosen; i++)
        for (const c of [0, 1]) x[d.places.length + 2 * (n * chosen + i) + c] = d.bases[n * b + i * step + c] / scales[n];
    }
    fit.add(z(f), x);
  };
  for (const i of [0, last, Math.round(last / 2)]) join(frequencies[i], await take(frequencies[i]));
  const count = known.get(from)!.count;
  const at = (f: number): Float64Array => {
    const x = fit!.at(z(f), width);
    const each = x.length / count;
    for (let n = 0; n < count; n++) for (let i = n * each; i < (n + 1) * each; i++) x[i] *= scales[n];
    return x;
  };
  const told = (): Float64Array[] => Array.from(frequencies, at);
  let before = told();
  let within = 0;
  const errors: number[] = [];
  let whole = true;
  let next = widestGap(frequencies, known);
  while (next >= 0) {
    if (aborted?.()) {
      whole = false;
      break;
    }
    const f = frequencies[next];
    const drives = await take(f);
    const error = deviation([before[next]], [drives.places], count);
    errors.push(error.most);
    join(f, drives);
    const now = told();
    const change = deviation(before, now, count);
    before = now;
    within = error.most <= tolerance && change.most <= tolerance ? within + 1 : 0;
    if (within >= 2) break;
    next = change.most > tolerance && !known.has(frequencies[change.at]) ? change.at : widestGap(frequencies, known);
  }
  return {
    at: (f) => known.get(f) ?? { count, places: at(f), bases: new Float64Array(0) },
    solved: known.size,
    error: known.size < frequencies.length ? Math.max(...errors.slice(-2), 0) : null,
    whole,
  };
}

/** The frequency in the middle of the widest stretch in which none is known; -1 where all are. */
function widestGap(frequencies: Float64Array, known: ReadonlyMap<number, unknown>): number {
  let [best, widest, last] = [-1, 1, 0];
  frequencies.forEach((f, i) => {
    if (!known.has(f)) return;
    if (i - last > widest) [best, widest] = [(i + last) >> 1, i - last];
    last = i;
  });
  return best;
}

/** Largest difference of currents at any place and frequency, over the largest of its drive at any; and where in the list. */
function deviation(told: readonly Float64Array[], known: readonly Float64Array[], drives: number): { most: number; at: number } {
  const each = known[0].length / drives;
  let [most, at] = [0, 0];
  for (let d = 0; d < drives; d++) {
    let size = 0;
    for (const v of known) for (let i = d * each; i < (d + 1) * each; i += 2) size = Math.max(size, Math.hypot(v[i], v[i + 1]));
    if (size === 0) continue;
    known.forEach((v, n) => {
      const t = told[n];
      for (let i = d * each; i < (d + 1) * each; i += 2) {
        const off = Math.hypot(t[i] - v[i], t[i + 1] - v[i + 1]) / size;
        if (!(off <= most)) [most, at] = [off, n];
      }
    });
  }
  return { most, at };
}

/** What was solved last: it stands for what a run that was stopped did not reach. */
const lastOf = (known: ReadonlyMap<number, Drives>): Drives => [...known.values()][known.size - 1];

/** Largest size of complex numbers between two places of a list of pairs. */
function largest(x: Float64Array, from: number, to: number): number {
  let most = 0;
  for (let i = from; i < to; i += 2) most = Math.max(most, Math.hypot(x[i], x[i + 1]));
  return most;
}
