import type { Measure, Project } from '@jadebell/core/document';
import { arraysOfCurve, type Read, readingOf, readTaken, takenBehind, withFormulas } from '@jadebell/core/exploring';
import { evaluateParameters } from '@jadebell/core/expressions';
import type { RunReading } from '@jadebell/core/reading';
import type { ResultMeta } from '@jadebell/core/results';
import type { RunRow } from '../db/models.ts';
import { loadResult } from '../api/results.ts';

/** A run's result as curves are taken from it, with the arrays that are asked for. */
export async function readingOfRun(run: RunRow, arraysOf: (meta: ResultMeta) => string[]): Promise<RunReading> {
  // It may have come without its facts.
  const { meta } = await loadResult(run.meta ? run : await run.reload(), []);
  const { arrays } = await loadResult(run, [...new Set(arraysOf(meta))]);
  return readingOf({ meta, arrays });
}

/** Most figures that are kept. */
const most = 200_000;

/** Measures of results, each read once: a result never changes. */
class Measured {
  private readonly known = new Map<string, Read>();

  /** Measures of a run, which solved a project. */
  async of(run: RunRow, measures: readonly Measure[], project: Project): Promise<Read[]> {
    const scope = evaluateParameters(project);
    const values = JSON.stringify(scope.summary);
    const taken = takenBehind(measures, project);
    const keys = taken.map((m) => `${run.id} ${JSON.stringify(m)} ${readsParameters(m) ? values : ''}`);
    const missing = taken.filter((_, n) => !this.known.has(keys[n]));
    if (missing.length) {
      const reading = await readingOfRun(run, (meta) => missing.flatMap((m) => arraysOfCurve(m, meta)));
      if (this.known.size > most) this.known.clear();
      taken.forEach((m, n) => this.known.has(keys[n]) || this.known.set(keys[n], readTaken(m, reading, scope)));
    }
    return withFormulas(measures, project, keys.map((key) => this.known.get(key)!)); // prettier-ignore
  }
}

/** Whether what a measure reads may depend on parameters: it has expressions. */
const readsParameters = (measure: Measure): boolean => ['at', 'from', 'to'].some((field) => field in measure);

/** What has been read of results so far. */
export const measured = new Measured();
