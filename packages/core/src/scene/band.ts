import { needsFrequency, type Place, type Problem, problem, type Project, type Quantity } from '../document/index.ts';
import type { SceneRecorder } from './recorders.ts';

/** Evaluates an expression of a project; NaN, and a problem told, where it fails. */
export type Evaluate = (text: string, quantity: Quantity, place: Place) => number;

/** The band and the recorded frequencies, hertz; tells what is wrong with them. */
export function resolveBand(project: Project, value: Evaluate, problems: Problem[]): { from: number; to: number; recordAt: number[] } {
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
  recordAt.forEach((f, i) => {
    if (from > 0 && to > from && (f < from * (1 - 1e-9) || f > to * (1 + 1e-9)))
      problems.push(
        problem(
          'error',
          'recorder.outside-band',
          { part: 'recorders', chip: `recordAt.${i}` },
          'Fields are asked for at a frequency outside the band.',
          'Move it into the band, or widen the band.',
        ),
      );
  });
  return { from, to, recordAt };
}

/** Tells that recorders have no frequency to record at. */
export function tellNoFrequency(recorders: readonly SceneRecorder[], recordAt: readonly number[], problems: Problem[]): void {
  if (recorders.some(needsFrequency) && !recordAt.length)
    problems.push(
      problem(
        'error',
        'recorder.no-frequency',
        { part: 'recorders' },
        'Recorders are set, but no frequency to record at.',
        'Add a frequency under Feed.',
      ),
    );
}
