import { readFile, rename, writeFile } from 'node:fs/promises';
import { type Problem, ProblemError, type Project, readProject } from '@jadebell/core/document';
import { type Point, type Read } from '@jadebell/core/exploring';
import { unitsFor } from '@jadebell/core/expressions/format';
import { valueText } from '@jadebell/core/reading';
import { packResult, type ResultSet, unpackResult } from '@jadebell/core/results';
import type { SolverHost } from '@jadebell/core/solvers';
import { thisMachine } from '@jadebell/node';
import { applyChanges, check } from './load.ts';
import { type Options, UsageError } from './options.ts';

/**
 * The project of a file with changes, and its study or search of a name, or its only one.
 * @throws ProblemError where the file is no good project.
 * @throws UsageError where there is no such one.
 */
export async function plannedOf<K extends 'studies' | 'searches'>(
  file: string,
  options: Options,
  part: K,
): Promise<{ project: Project; plan: NonNullable<Project[K]>[number] }> {
  const word = part === 'studies' ? 'study' : 'search';
  const reading = readProject(await readFile(file, 'utf8'));
  if (!reading.project) throw new ProblemError(reading.problems);
  const { project, problems } = applyChanges(reading.project, options);
  if (problems.length) throw new ProblemError(problems);
  const all = (project[part] ?? []) as NonNullable<Project[K]>;
  const names = all.map((s) => s.name).join(', ') || 'none';
  const asked = options[word];
  const plan = asked === undefined && all.length === 1 ? all[0] : all.find((s) => s.name === asked);
  if (!plan)
    throw new UsageError(
      asked === undefined ? `${word} needs --${word} NAME. There are: ${names}.` : `There is no ${word} named ${asked}. There are: ${names}.`,
    );
  return { project, plan: (options.accuracy ? { ...plan, accuracy: options.accuracy } : plan) as NonNullable<Project[K]>[number] };
}

/** The result of a point: the one that is kept, or a new one, which then is. */
export async function resultOf(
  point: Point,
  kept: string,
  resume: boolean,
  host: SolverHost,
  signal: AbortSignal,
): Promise<{ result: ResultSet | null; problems: Problem[] }> {
  if (resume) {
    // What is not there, or cannot be read, is solved.
    const result = await readFile(kept).then(unpackResult).catch(() => null); // prettier-ignore
    if (result) return { result, problems: [] };
  }
  const { loaded, problems } = await check(point.project, thisMachine());
  if (!loaded) return { result: null, problems };
  const result = (await loaded.solver.solve(loaded.scene, { host, signal })) as ResultSet;
  if (!signal.aborted) {
    // Under its name it is whole, whenever the program is ended.
    await writeFile(`${kept}.part`, packResult(result, point.project));
    await rename(`${kept}.part`, kept);
  }
  return { result, problems };
}

/** A figure in words, or why there is none. */
export const figureText = (m: Read): string =>
  `${m.name} ${m.value === null ? `none (${m.why})` : `${m.open ? 'at least ' : ''}${valueText(m.value, m.unit)}`}`;

/** The head of a column in a unit. */
export const columnTitle = (name: string, unit: string): string => (unit ? `${name} (${unit})` : name);
/** The SI unit of what a parameter measures. */
export const unitIn = (measure: string): string => (measure === 'angle' ? 'rad' : (unitsFor(measure).find(([size]) => size === 1)?.[1] ?? ''));
