import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { type Problem, problemText, type Study } from '@jadebell/core/document';
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
  readMeasures,
} from '@jadebell/core/exploring';
import { writeCsv } from '@jadebell/core/formats';
import { nodeHost, thisMachine } from '@jadebell/node';
import { exit } from './exit.ts';
import { check } from './load.ts';
import type { Options } from './options.ts';
import { columnTitle, figureText, plannedOf, resultOf, unitIn } from './points.ts';
import { err, out, printProblems } from './print.ts';
import { stopSignal } from './stopSignal.ts';
import { limited, tolerated } from './tolerated.ts';

/** What came of a point. */
interface Done {
  point: Point;
  state: 'done' | 'stopped' | 'failed';
  measures: Read[];
  problems: Problem[];
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

/** What came of all points so far, as a table and as JSON. */
async function write(
  folder: string,
  stem: string,
  study: Study,
  plan: Plan,
  done: readonly Done[],
  measures: readonly string[],
  tolerance?: object,
): Promise<void> {
  const read = (d: Done, name: string): Read | undefined => d.measures.find((m) => m.name === name);
  const unitOf = (name: string): string => done.map((d) => read(d, name)?.unit).find((u) => u) ?? '';
  const columns = [
    ...plan.moved.map((m) => ({ title: columnTitle(m.parameter, unitIn(m.measure)), values: done.map((d) => d.point.values[m.parameter]) })),
    ...measures.map((name) => ({ title: columnTitle(name, unitOf(name)), values: done.map((d) => read(d, name)?.value ?? NaN) })),
  ];
  const points = done.map(({ point, state, measures: m, problems }) => ({
    values: point.values,
    digest: point.digest,
    state,
    measures: Object.fromEntries(m.map(({ name, ...rest }) => [name, rest])),
    problems,
  }));
  await writeFile(join(folder, `${stem}-${study.name}.csv`), writeCsv(columns));
  await writeFile(join(folder, `${stem}-${study.name}.json`), `${JSON.stringify({ study, points, ...(tolerance ? { tolerance } : {}) }, null, 2)}\n`);
}

/** Solves the points of a study, or without a folder tells what it is and costs; gives the exit code. */
export async function study(file: string, options: Options): Promise<number> {
  const { project, plan: own } = await plannedOf(file, options, 'studies');
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
    const now: Done = same
      ? { ...same, point }
      : {
          point,
          state: !result ? 'failed' : result.meta.evidence.ended === 'stopped' ? 'stopped' : 'done',
          measures: result ? readMeasures(point.project, readingOf(result)) : [],
          problems: problems.filter((p) => p.severity === 'error'),
        };
    // A point that was cut short is none of the study's: it is solved when that goes on.
    if (now.state === 'stopped') break;
    known.set(digest, now);
    done.push(now);
    await write(options.out, stem, own, plan, done, measures.map((m) => m.name)); // prettier-ignore
    if (!options.quiet) {
      const figures = now.measures.map(figureText);
      err(
        `${done.length} of ${plan.points.length}: ${pointText(point.values, plan.moved)}: ${[...now.problems.map(problemText), ...figures].join('; ') || now.state}`,
      );
    }
    if (signal.aborted) break;
  }
  if (done.length < plan.points.length) return exit.stopped;
  const solved = done.map((d) => ({ point: d.point, reads: d.measures }));
  const varied = tolerated(project, own, plan, solved);
  if (varied) {
    await write(options.out, stem, own, plan, done, measures.map((m) => m.name), varied.tolerance); // prettier-ignore
    for (const line of varied.words) out(line);
  }
  for (const line of limited(measures.map((m) => m.name), plan, solved)) out(line); // prettier-ignore
  return done.some((d) => d.state === 'failed') ? exit.project : exit.good;
}
