import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { type Problem, ProblemError, problemText, projectJsonSchema, readProject } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions';
import { knowsGaps } from '@jadebell/core/results';
import { cautionsOf } from '@jadebell/core/reading';
import { curvesCsv, patternCsv, summaryJson, touchstoneOf } from '@jadebell/core/formats';
import { nodeHost, thisMachine } from '@jadebell/node';
import { exit } from './exit.ts';
import { load, type Loaded } from './load.ts';
import { modesOf, modesText } from './modes.ts';
import { accuracies, costText, type Estimate } from '@jadebell/core/methods';

const usage = `jadebell: solve Jade Bell projects from the command line

  jadebell schema                       print the JSON Schema of a project
  jadebell check FILE                   evaluate and check a project
  jadebell estimate FILE                cells, memory, steps and expected time
  jadebell solve FILE --out DIR         solve and write Touchstone, CSV and JSON
  jadebell modes FILE                   solve the modes of its sections and guided ports

options
  --set NAME=EXPRESSION                 change a parameter; may be repeated
  --accuracy ${accuracies.join('|')}  override the project's accuracy
  --threads N                           threads to use (default: all)
  --section NAME                        of modes: that section or guided port alone
  --json                                print results of check, estimate and modes as JSON
  --quiet                               print nothing but problems

exit codes: 0 good, 1 the project has errors, 2 wrong usage, 3 stopped (what was done is written), 4 failed`;

/** What the options have to be, each with what is said where it is not. */
const optionsSchema = z.object({
  out: z.string().min(1, '--out needs a folder.').optional(),
  set: z
    .array(z.string().regex(/^[^=]+=/, { error: ({ input }) => `--set needs NAME=EXPRESSION, not '${String(input)}'.` }))
    .default([])
    .transform((list) =>
      Object.fromEntries(list.map((entry) => [entry.slice(0, entry.indexOf('=')).trim(), entry.slice(entry.indexOf('=') + 1).trim()])),
    ),
  accuracy: z.enum(accuracies, { error: ({ input }) => `--accuracy is one of ${accuracies.join(', ')}, not '${String(input)}'.` }).optional(),
  threads: z
    .string()
    .refine((t) => /^\d+$/.test(t) && Number(t) >= 1 && Number(t) <= 64, {
      error: ({ input }) => `--threads is a whole number from 1 to 64, not '${String(input)}'.`,
    })
    .transform(Number)
    .optional(),
  section: z.string().optional(),
  json: z.boolean().optional(),
  quiet: z.boolean().optional(),
  help: z.boolean().optional(),
});
type Options = z.infer<typeof optionsSchema>;

const out = (text: string): void => void process.stdout.write(`${text}\n`);
const err = (text: string): void => void process.stderr.write(`${text}\n`);
const printProblems = (problems: Problem[]): void => problems.forEach((p) => err(problemText(p)));

class UsageError extends Error {}

function readOptions(values: unknown): Options {
  const { data, error } = optionsSchema.safeParse(values);
  if (error) throw new UsageError(error.issues[0].message);
  return data;
}

/** Whether a project has sections, which are solved by themselves, and nothing is wrong but that nothing feeds its model. */
const sectionsAlone = async (file: string, problems: Problem[]): Promise<boolean> =>
  problems.length > 0 && problems.every((p) => p.code === 'port.none') && !!readProject(await readFile(file, 'utf8')).project?.sections.length;

const estimateText = (e: Estimate): string => `${costText(e)}; about ${Math.ceil(e.seconds)} s here${e.passes ? ` for ${e.passes} passes` : ''}`;

async function solve({ project, scene, solver }: Loaded, file: string, options: Options): Promise<number> {
  if (!options.out) throw new UsageError('solve needs --out DIR.');
  await mkdir(options.out, { recursive: true });
  const stopper = new AbortController();
  const onSignal = (): void => stopper.abort();
  process.once('SIGINT', onSignal);
  process.once('SIGTERM', onSignal);
  const host = await nodeHost(options.threads);
  const result = await solver.solve(scene, {
    host,
    signal: stopper.signal,
    onProgress: options.quiet
      ? undefined
      : (p) =>
          err(
            `${(100 * p.fraction).toFixed(0).padStart(3)} %  ${p.pass ? `pass ${p.pass}${typeof p.change !== 'number' ? '' : ` (the last changed S by ${p.change.toPrecision(2)})`}  ` : ''}${p.turns > 1 ? `excitation ${p.turn + 1} of ${p.turns}  ` : ''}step ${p.step}${p.energy === undefined ? '' : `  energy ${p.energy.toExponential(1)}`}${p.secondsLeft === null ? '' : `  about ${Math.ceil(p.secondsLeft)} s left`}`,
          ),
  });
  const stem = basename(file).replace(/\.json$/i, '');
  const touchstone = touchstoneOf(result, project.title);
  const files: [string, string | null][] = [
    [`${stem}.s${touchstone?.ports}p`, touchstone?.text ?? null],
    [`${stem}-without-gaps.s${touchstone?.ports}p`, knowsGaps(result.meta) ? touchstoneOf(result, project.title, { gaps: 'out' })!.text : null],
    [`${stem}-s11.csv`, curvesCsv(result)],
    [`${stem}-pattern.csv`, patternCsv(result)],
    [`${stem}-result.json`, `${summaryJson(result)}\n`],
  ];
  for (const [name, text] of files) {
    if (text === null) continue;
    const path = join(options.out, name);
    await writeFile(path, text);
    if (!options.quiet) out(path);
  }
  if (!options.quiet)
    for (const f of result.meta.farField?.figures ?? [])
      err(
        `${formatSI(f.frequency, 'frequency')}: directivity ${(10 * Math.log10(f.directivity)).toFixed(2)} dBi, gain ${(10 * Math.log10(f.gain)).toFixed(2)} dBi, realised gain ${(10 * Math.log10(f.realisedGain)).toFixed(2)} dBi`,
      );
  const areas = (v: number): string => `${(10 * Math.log10(v)).toFixed(2)} dBsm`;
  if (!options.quiet)
    for (const f of result.meta.scattered?.figures ?? [])
      err(`${formatSI(f.frequency, 'frequency')}: radar cross-section back ${areas(f.back)}, largest ${areas(f.largest)}, scattering ${f.scattering.toPrecision(4)} m², absorption ${f.absorption.toPrecision(3)} m²`); // prettier-ignore
  for (const caution of cautionsOf(result.meta)) err(`warning: ${caution}`);
  return result.meta.evidence.ended === 'stopped' ? exit.stopped : exit.good;
}

/** Runs the command line; gives the exit code. */
export async function main(args: string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        set: { type: 'string', multiple: true },
        accuracy: { type: 'string' },
        threads: { type: 'string' },
        section: { type: 'string' },
        json: { type: 'boolean' },
        quiet: { type: 'boolean' },
        help: { type: 'boolean' },
      },
    });
    const options = readOptions(values);
    const [command, file, ...more] = positionals;
    if (options.help || !command) {
      out(usage);
      return options.help ? exit.good : exit.usage;
    }
    if (command === 'schema') {
      out(JSON.stringify(projectJsonSchema(), null, 2));
      return exit.good;
    }
    if (!['check', 'estimate', 'modes', 'solve'].includes(command)) throw new UsageError(`There is no command '${command}'.`);
    if (!file || more.length) throw new UsageError(`${command} needs one project file.`);
    if (command === 'solve' && !options.out) throw new UsageError('solve needs --out DIR.');
    if (command === 'modes') {
      const { solved, problems } = await modesOf(file, options, options.section);
      printProblems(problems);
      if (solved.length) out(options.json ? JSON.stringify(solved, null, 2) : solved.map(modesText).join('\n'));
      return problems.some((p) => p.severity === 'error') ? exit.project : exit.good;
    }
    const machine = thisMachine();
    const { loaded, problems } = await load(file, options, machine);
    if (command === 'check' && (await sectionsAlone(file, problems))) {
      if (options.json) out(JSON.stringify({ good: true, problems: [] }, null, 2));
      else if (!options.quiet) out('no errors; nothing feeds the model, so there are its sections alone to be solved: jadebell modes');
      return exit.good;
    }
    if (command === 'check' && options.json) out(JSON.stringify({ good: loaded !== null, problems }, null, 2));
    else printProblems(problems);
    if (!loaded) return exit.project;
    if (command === 'check') {
      if (!options.json && !options.quiet) out(`${loaded.project.title}: no errors`);
      return exit.good;
    }
    if (command === 'estimate') {
      const { estimate } = loaded;
      out(options.json ? JSON.stringify(estimate, null, 2) : estimateText(estimate));
      return exit.good;
    }
    return await solve(loaded, file, options);
  } catch (error) {
    if (error instanceof ProblemError) {
      printProblems(error.problems);
      return exit.project;
    }
    const { code, message } = error as NodeJS.ErrnoException;
    if (error instanceof UsageError || code?.startsWith('ERR_PARSE_ARGS')) {
      err(`jadebell: ${message}\nRun 'jadebell --help' for the commands.`);
      return exit.usage;
    }
    err(code === 'ENOENT' ? `jadebell: There is no file ${(error as NodeJS.ErrnoException).path}. Check the path.` : `jadebell: ${message}`);
    return exit.failed;
  }
}
