import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { type Problem, ProblemError, problemText, type Project, readProject, type Study } from '@jadebell/core/document';
import {
  costOf,
  costText,
  type Plan,
  planStudy,
  type Point,
  type PointCost,
  pointsLookedAt,
  pointText,
  type Read,
  readingOf,
  readMeasure,
} from '@jadebell/core/exploring';
import { evaluateParameters } from '@jadebell/core/expressions';
import { unitsFor } from '@jadebell/core/expressions/format';
import { writeCsv } from '@jadebell/core/formats';
import { valueText } from '@jadebell/core/reading';
import { packResult, type ResultSet, unpackResult } from '@jadebell/core/results';
import type { SolverHost } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';
import { exit } from './exit.ts';
import { applyChanges, check } from './load.ts';
import { type Options, UsageError } from './options.ts';
import { err, out, printProblems } from './print.ts';
import { stopSignal } from './stopSignal.ts';

/** What came of a point. */
interface Done {
  point: Point;
  state: 'done' | 'stopped' | 'failed';
  measures: Read[];
  problems: Problem[];
}

/**
 * The project of a file with changes, and its study of a name, or its only one.
 * @throws ProblemError where the file is no good project.
 * @throws UsageError where there is no such study.
 */
async function studyOf(file: string, options: Options): Promise<{ project: Project; study: Study }> {
  const reading = readProject(await readFile(file, 'utf8'));
  if (!reading.project) throw new ProblemError(reading.problems);
  const { project, problems } = applyChanges(reading.project, options);
  if (problems.length) throw new ProblemError(problems);
  const studies = project.studies ?? [];
  const names = studies.map((s) => s.name).join(', ') || 'none';
  const study = options.study === undefined && studies.length === 1 ? studies[0] : studies.find((s) => s.name === options.study);
  if (!study)
    throw new UsageError(
      options.study === undefined
        ? `study needs --study NAME. There are: ${names}.`
        : `There is no study named ${options.study}. There are: ${names}.`,
    );
  return { project, study: options.accuracy ? { ...study, accuracy: options.accuracy } : study };
}

/** What a study is and costs, in words. */
async function told(study: Study, plan: Plan): Promise<string> {
  const looks: PointCost[] = [];
  for (const at of pointsLookedAt(plan.points)) {
    const { loaded, problems } = await check(plan.points[at].project, thisMachine());
    looks.push(loaded ? { at, seconds: loaded.estimate.seconds } : { at, fault: problems.filter((p) => p.severity === 'error').map(problemText)[0] });
  }
  return costText(study.name, plan, costOf(looks, plan.points.length));
}

/** The result of a point: the one that is kept, or a new one, which then is. */
async function resultOf(
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

/** What came of all points so far, as a table and as JSON. */
async function write(folder: string, stem: string, study: Study, plan: Plan, done: readonly Done[], measures: readonly string[]): Promise<void> {
  const read = (d: Done, name: string): Read | undefined => d.measures.find((m) => m.name === name);
  const unitOf = (name: string): string => done.map((d) => read(d, name)?.unit).find((u) => u) ?? '';
  const title = (name: string, unit: string): string => (unit ? `${name} (${unit})` : name);
  const unitIn = (measure: string): string => (measure === 'angle' ? 'rad' : (unitsFor(measure).find(([size]) => size === 1)?.[1] ?? ''));
  const columns = [
    ...plan.moved.map((m) => ({ title: title(m.parameter, unitIn(m.measure)), values: done.map((d) => d.point.values[m.parameter]) })),
    ...measures.map((name) => ({ title: title(name, unitOf(name)), values: done.map((d) => read(d, name)?.value ?? NaN) })),
  ];
  const points = done.map(({ point, state, measures: m, problems }) => ({
    values: point.values,
    digest: point.digest,
    state,
    measures: Object.fromEntries(m.map(({ name, ...rest }) => [name, rest])),
    problems,
  }));
  await writeFile(join(folder, `${stem}-${study.name}.csv`), writeCsv(columns));
  await writeFile(join(folder, `${stem}-${study.name}.json`), `${JSON.stringify({ study, points }, null, 2)}\n`);
}

/** Solves the points of a study, or without a folder tells what it is and costs; gives the exit code. */
export async function study(file: string, options: Options): Promise<number> {
  const { project, study: own } = await studyOf(file, options);
  const plan = planStudy(project, own);
  printProblems(plan.problems);
  if (!plan.points.length) return exit.project;
  if (!options.out) {
    out(await told(own, plan));
    return exit.good;
  }
  const folder = join(options.out, 'points');
  await mkdir(folder, { recursive: true });
  const stem = basename(file).replace(/\.json$/i, '');
  const measures = project.measures ?? [];
  const [signal, host] = [stopSignal(), await nodeHost(options.threads)];
  const done: Done[] = [];
  const known = new Map<string, Done>();
  for (const point of plan.points) {
    const { digest } = point;
    const same = known.get(digest);
    const { result, problems } = same
      ? { result: null, problems: [] }
      : await resultOf(point, join(folder, `${digest}.zip`), options.resume ?? false, host, signal);
    const scope = evaluateParameters(point.project);
    const now: Done = same
      ? { ...same, point }
      : {
          point,
          state: !result ? 'failed' : result.meta.evidence.ended === 'stopped' ? 'stopped' : 'done',
          measures: result ? measures.map((m) => readMeasure(m, readingOf(result), scope)) : [],
          problems: problems.filter((p) => p.severity === 'error'),
        };
    // A point that was cut short is none of the study's: it is solved when that goes on.
    if (now.state === 'stopped') break;
    known.set(digest, now);
    done.push(now);
    await write(options.out, stem, own, plan, done, measures.map((m) => m.name)); // prettier-ignore
    if (!options.quiet) {
      const figures = now.measures.map(
        (m) => `${m.name} ${m.value === null ? `none (${m.why})` : `${m.open ? 'at least ' : ''}${valueText(m.value, m.unit)}`}`,
      );
      err(
        `${done.length} of ${plan.points.length}: ${pointText(point.values, plan.moved)}: ${[...now.problems.map(problemText), ...figures].join('; ') || now.state}`,
      );
    }
    if (signal.aborted) break;
  }
  if (done.length < plan.points.length) return exit.stopped;
  return done.some((d) => d.state === 'failed') ? exit.project : exit.good;
}
