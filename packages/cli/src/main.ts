import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { type Problem, ProblemError, projectJsonSchema, readProject } from '@jadebell/core/document';
import { exportKinds, fieldForms } from '@jadebell/core/formats';
import { accuracies, costText, type Estimate } from '@jadebell/core/methods';
import { thisMachine } from '@jadebell/node';
import { exit } from './exit.ts';
import { exportResult } from './export.ts';
import { load } from './load.ts';
import { modesOf, modesText } from './modes.ts';
import { argumentOptions, readOptions, UsageError } from './options.ts';
import { err, out, printProblems } from './print.ts';
import { search } from './search.ts';
import { solve } from './solve.ts';
import { study } from './study.ts';

const usage = `jadebell: solve Jade Bell projects from the command line

  jadebell schema                       print the JSON Schema of a project
  jadebell check FILE                   evaluate and check a project
  jadebell estimate FILE                cells, memory, steps and expected time
  jadebell solve FILE --out DIR         solve and write Touchstone, CSV and JSON
  jadebell study FILE [--out DIR]       solve the points of a study; without --out, say what it is and costs
  jadebell search FILE [--out DIR]      seek values at which goals are met; without --out, say what is sought
  jadebell modes FILE                   solve the modes of its sections and guided ports
  jadebell export RESULT [--out DIR]    write files of a kept result; without --out, list what it has

options
  --set NAME=EXPRESSION                 change a parameter; may be repeated
  --accuracy ${accuracies.join('|')}  override the project's accuracy
  --threads N                           threads to use (default: all)
  --study NAME                          of study: which one; may be left out where there is only one
  --search NAME                         of search: which one; may be left out where there is only one
  --resume                              of study and search: keep what an earlier call has solved into DIR
  --section NAME                        of modes: that section or guided port alone
  --as KIND                             of export: ${exportKinds.map((k) => k.key).join(', ')}; may be repeated (default: all)
  --of NAME                             of export: that recorder or wire alone; may be repeated
  --at FREQUENCY                        of export: the recorded one nearest to it alone; may be repeated
  --fields ${fieldForms.join('|')}             of export: form of fields on planes and in boxes; may be repeated (default: vtr)
  --touchstone 1|2, --gaps kept|out     of export: version of Touchstone files, gaps of lumped ports
  --reference [CHANNEL=]OHMS            of export: impedance that S refers to; may be repeated
  --shift PORT=LENGTH                   of export: how far a port's plane is moved into the structure
  --excite CHANNEL=AMPLITUDE@DEGREES    of export: waves of which fields and patterns are told; may be repeated
  --json                                print results of check, estimate and modes as JSON
  --quiet                               print nothing but problems

exit codes: 0 good, 1 the project has errors, 2 wrong usage, 3 stopped (what was done is written), 4 failed`;

/** Whether a project has sections, which are solved by themselves, and nothing is wrong but that nothing feeds its model. */
const sectionsAlone = async (file: string, problems: Problem[]): Promise<boolean> =>
  problems.length > 0 && problems.every((p) => p.code === 'port.none') && !!readProject(await readFile(file, 'utf8')).project?.sections.length;

const estimateText = (e: Estimate): string => `${costText(e)}; about ${Math.ceil(e.seconds)} s here${e.passes ? ` for ${e.passes} passes` : ''}`;

/** Runs the command line; gives the exit code. */
export async function main(args: string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: argumentOptions,
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
    if (!['check', 'estimate', 'modes', 'solve', 'study', 'search', 'export'].includes(command))
      throw new UsageError(`There is no command '${command}'.`);
    if (!file || more.length) throw new UsageError(`${command} needs one ${command === 'export' ? 'kept result' : 'project file'}.`);
    if (command === 'export') {
      await exportResult(file, options);
      return exit.good;
    }
    if (command === 'study') return await study(file, options);
    if (command === 'search') return await search(file, options);
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
