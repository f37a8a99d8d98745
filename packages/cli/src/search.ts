import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { aims, problemText, type Project, type SearchPlan } from '@jadebell/core/document';
import { endings, planSearch, pointText, readingOf, readMeasures, SearchRun, type SearchSetup, type Tried } from '@jadebell/core/exploring';
import { durationText, formatSI } from '@jadebell/core/expressions';
import { writeCsv } from '@jadebell/core/formats';
import { valueText } from '@jadebell/core/reading';
import { nodeHost, thisMachine } from '@jadebell/node';
import { exit } from './exit.ts';
import { check } from './load.ts';
import type { Options } from './options.ts';
import { columnTitle, figureText, plannedOf, resultOf, unitIn } from './points.ts';
import { err, out, printProblems } from './print.ts';
import { stopSignal } from './stopSignal.ts';

/** What a search moves and seeks and costs at most, in words. */
async function told(project: Project, search: SearchPlan, { bounded, sought }: SearchSetup): Promise<string> {
  const bounds = bounded.map((b) => `${b.parameter} from ${formatSI(b.from, b.measure)} to ${formatSI(b.to, b.measure)}`).join('; ');
  const goals = sought.map((g) => `${g.measure} ${aims[g.aim]} ${valueText(g.value, g.unit)}`).join('; ');
  const { loaded } = await check(project, thisMachine());
  const cost = loaded ? `, about ${durationText(search.points * loaded.estimate.seconds)} as the project stands` : '';
  return `${search.name}: ${bounds}; so that ${goals}; at most ${search.points} points${cost}`;
}

const whereText = ({ values }: Tried, { bounded }: SearchSetup): string =>
  pointText(values, bounded.map((b) => ({ ...b, values: [] }))); // prettier-ignore

/** The points that were tried as a table and as JSON. */
async function write(folder: string, stem: string, search: SearchPlan, run: SearchRun): Promise<void> {
  const solved = run.tried.filter((t) => !t.beyond);
  const measures = [...new Set(run.setup.sought.map((g) => g.measure))];
  const read = (t: Tried, name: string): number => t.reads.find((r) => r.name === name)?.value ?? NaN;
  const columns = [
    ...run.setup.bounded.map((b) => ({ title: columnTitle(b.parameter, unitIn(b.measure)), values: solved.map((t) => t.values[b.parameter]) })),
    ...measures.map((name) => ({
      title: columnTitle(name, run.setup.sought.find((g) => g.measure === name)!.unit),
      values: solved.map((t) => read(t, name)),
    })),
    { title: 'cost', values: solved.map((t) => t.cost) },
  ];
  const best = run.best === null ? null : run.tried[run.best];
  await writeFile(join(folder, `${stem}-${search.name}.csv`), writeCsv(columns));
  await writeFile(join(folder, `${stem}-${search.name}.json`), `${JSON.stringify({ search, ended: run.ended, best, tried: run.tried }, null, 2)}\n`);
}

/** Seeks values at which goals are met, or without a folder tells what it would seek; gives the exit code. */
export async function search(file: string, options: Options): Promise<number> {
  const { project, plan } = await plannedOf(file, options, 'searches');
  const setup = planSearch(project, plan);
  printProblems(setup.problems);
  if (setup.problems.some((p) => p.severity === 'error')) return exit.project;
  if (!options.out) {
    out(await told(project, plan, setup));
    return exit.good;
  }
  const folder = join(options.out, 'points');
  await mkdir(folder, { recursive: true });
  const stem = basename(file).replace(/\.json$/i, '');
  const [signal, host] = [stopSignal(), await nodeHost(options.threads)];
  const run = new SearchRun(project, plan, setup);
  while (!run.ended) {
    const [point] = run.open;
    const { result, problems } = await resultOf(point, join(folder, `${point.digest}.zip`), options.resume ?? false, host, signal);
    // A point that was cut short is none of the search's: it is solved when that goes on.
    if (signal.aborted) return exit.stopped;
    const reads = result ? readMeasures(point.project, readingOf(result)) : null;
    run.tell(point.digest, reads);
    await write(options.out, stem, plan, run);
    const tried = run.tried.find((t) => t.digest === point.digest)!;
    const sought = (reads ?? []).filter((r) => setup.sought.some((g) => g.measure === r.name)).map(figureText);
    const faults = problems.filter((p) => p.severity === 'error').map(problemText);
    if (!options.quiet)
      err(
        `${run.solved} of at most ${plan.points}: ${whereText(tried, setup)}: ${[...faults, ...sought, `cost ${Number(tried.cost.toPrecision(3))}`].join('; ')}`,
      );
  }
  await write(options.out, stem, plan, run);
  const best = run.best === null ? null : run.tried[run.best];
  if (!options.quiet)
    out(
      `Ended, as ${endings[run.ended]}. ${best ? `Best: ${whereText(best, setup)}, cost ${Number(best.cost.toPrecision(3))}` : 'No point could be judged'}.`,
    );
  return best ? exit.good : exit.project;
}
