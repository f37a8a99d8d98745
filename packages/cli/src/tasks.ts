/** Developers' tasks, started by scripts/run.mjs. */
import { bench } from './bench.ts';
import { solveDemo } from './demo.ts';
import { verify } from './verify.ts';

const print = (line: string): void => console.log(line);
const tasks: Record<string, (args: string[]) => Promise<number>> = {
  bench: () => bench(print).then(() => 0),
  demo: () => solveDemo('demo', print).then(() => 0),
  verify: (args) => verify(args, 'docs/verification.md', print),
};

const [name, ...args] = process.argv.slice(2);
process.exit(await tasks[name](args));
