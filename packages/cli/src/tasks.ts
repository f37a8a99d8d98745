/** Developers' tasks, started by scripts/run.mjs. */
import { bench, benchLarge } from './bench.ts';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { benchModel } from './benchModel.ts';
import { benchSection } from './benchSection.ts';
import { benchWires } from './benchWires.ts';
import { solveDemo } from './demo.ts';
import { reference } from './reference.ts';
import { thresholds } from './thresholds.ts';
import { verify } from './verify.ts';

const print = (line: string): void => console.log(line);
const tasks: Record<string, (args: string[]) => Promise<number>> = {
  bench: async ([only]) => {
    const parts: Record<string, typeof bench> = { model: benchModel, section: benchSection, solver: bench, wires: benchWires, large: benchLarge };
    for (const [name, run] of Object.entries(parts)) if (only === undefined || only === name) await run(print);
    return 0;
  },
  reference: async () => {
    writeFileSync('docs/reference.md', reference());
    execFileSync('npx', ['oxfmt', 'docs/reference.md']);
    return 0;
  },
  demo: (args) => solveDemo('demo', args[0], print).then(() => 0),
  thresholds: ([only]) => thresholds(only, 'docs/thresholds.md', print).then(() => 0),
  verify: (args) => verify(args, 'docs/verification.md', print),
};

const [name, ...args] = process.argv.slice(2);
process.exit(await tasks[name](args));
