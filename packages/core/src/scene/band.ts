import { type Place, type Problem, problem, type Project } from '../document/index.ts';
import { formatSI } from '../expressions/index.ts';
import { atFrequencies, type PlacedRecorder } from '../recorders/index.ts';
import type { Evaluate } from './resolving.ts';
import type { Located } from './recorders.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** The band and the frequencies to record at, hertz. */
export interface Band {
  from: number;
  to: number;
  recordAt: number[];
}

/** The band and the recorded frequencies, hertz; tells what is wrong with them. */
export function resolveBand(project: Project, value: Evaluate, problems: Problem[]): Band {
  const from = value(project.solve.from, 'frequency', { part: 'band', chip: 'from' });
  const to = value(project.solve.to, 'frequency', { part: 'band', chip: 'to' });
  if (from <= 0 || to <= 0)
    problems.push(problem('error', 'band.not-positive', { part: 'band' }, 'The band must lie above 0 Hz.', 'Give two positive frequencies.'));
  else if (from >= to)
    problems.push(
      problem(
        'error',
        'band.empty',
        { part: 'band', chip: 'to' },
        'The band’s highest frequency is not above its lowest.',
        'Exchange them or widen the band.',
      ),
    );

  const recordAt = project.recordAt.map((text, i) => value(text, 'frequency', { part: 'recorders', chip: `recordAt.${i}` }));
  recordAt.forEach((f, i) => tellOutside({ from, to }, f, { part: 'recorders', chip: `recordAt.${i}` }, problems));
  return { from, to, recordAt };
}

/** Tells that a frequency, hertz, lies outside the band. */
function tellOutside({ from, to }: { from: number; to: number }, f: number, place: Place, problems: Problem[]): void {
  if (from > 0 && to > from && (f < from * (1 - sameNumber) || f > to * (1 + sameNumber)))
    problems.push(
      problem(
        'error',
        'recorder.outside-band',
        place,
        `Fields are asked for at a frequency outside the band, ${formatSI(from, 'frequency')} to ${formatSI(to, 'frequency')}.`,
        'Move it into the band, or widen the band.',
      ),
    );
}

/**
 * All frequencies, hertz, at which something is recorded, rising, and the recorders with the numbers of those that each keeps. Tells of
 * recorders that have none, and of frequencies of their own outside the band.
 */
export function withFrequencies(placed: readonly Located[], band: Band, problems: Problem[]): { recorders: PlacedRecorder[]; recordAt: number[] } {
  for (const { recorder, own } of placed)
    own.forEach((f, i) => tellOutside(band, f, { part: 'recorders', name: recorder.name, chip: `frequencies.${i}.0` }, problems));
  const lists = placed.map(({ own }) => (own.length ? own : band.recordAt));
  if (placed.some(({ recorder }, n) => atFrequencies(recorder) && !lists[n].length))
    problems.push(
      problem(
        'error',
        'recorder.no-frequency',
        { part: 'recorders' },
        'Recorders are set, but no frequency to record at.',
        'Add a frequency under Feed.',
      ),
    );
  const all: number[] = [];
  const same = (p: number, q: number): boolean => Math.abs(p - q) <= sameNumber * q;
  for (const f of [...band.recordAt, ...lists.flat()].sort((p, q) => p - q)) if (!all.length || !same(f, all[all.length - 1])) all.push(f);
  const recorders = placed.map(({ recorder }, n): PlacedRecorder => {
    if (!atFrequencies(recorder)) return recorder;
    const kept = all.flatMap((f, i) => (lists[n].some((x) => same(x, f)) ? [i] : []));
    return kept.length === all.length ? recorder : { ...recorder, kept };
  });
  return { recorders, recordAt: all };
}

/** Frequencies of the S-parameters over a band, Hz. */
export const bandFrequencies = ({ from, to, points }: { from: number; to: number; points: number }): Float64Array =>
  Float64Array.from({ length: points }, (_, i) => from + ((to - from) * i) / (points - 1));
