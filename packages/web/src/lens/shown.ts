import { formatSI } from '@jadebell/core/expressions/format';
import { runName } from '../ui/runName.ts';
import type { Run } from '../api/types.ts';

/** A run that the lens shows. */
export interface ShownRun {
  run: Run;
  /** What it is called on every card: its number, of another project with its title. */
  label: string;
  /** Number of its colour, the same on every card. */
  tint: number;
  /** Where its parameters differ from those of the others, in words. */
  differs: string;
}

/** Names of parameters whose values are not the same in all runs. */
export function differingParameters(runs: readonly Run[]): string[] {
  const names = [...new Set(runs.flatMap((r) => r.parameters.map((g) => g.name)))];
  return names.filter((name) => new Set(runs.map((r) => r.parameters.find((g) => g.name === name)?.si ?? null)).size > 1);
}

/** A parameter of a run as text; a dash where it has none. */
export function parameterText(run: Run, name: string): string {
  const parameter = run.parameters.find((g) => g.name === name);
  if (!parameter) return '–';
  return parameter.si === null ? parameter.expression : formatSI(parameter.si, parameter.measure, 4);
}

/** Runs with their names, colours and differences: the first is the one that is looked at. */
export function shownRuns(runs: readonly { run: Run; title: string }[]): ShownRun[] {
  const home = runs[0]?.run.projectId;
  const differing = differingParameters(runs.map((r) => r.run));
  const taken = new Set<number>();
  return runs.map(({ run, title }) => {
    // A run keeps the colour of its number; those of other projects take what is left.
    let tint = run.number;
    if (run.projectId !== home) for (tint = 4; taken.has(((tint - 1) % 8) + 1) && tint < 12; tint++);
    taken.add(((tint - 1) % 8) + 1);
    return {
      run,
      tint,
      label: run.projectId === home ? `run ${runName(run)}` : `${title} run ${runName(run)}`,
      differs: differing.length > 4 ? `${differing.length} parameters differ` : differing.map((n) => `${n} = ${parameterText(run, n)}`).join(', '),
    };
  });
}
