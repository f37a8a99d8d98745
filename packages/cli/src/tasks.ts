/** Developers' tasks, started by scripts/run.mjs. */
import { bench } from './bench.ts';

const tasks: Record<string, (args: string[]) => Promise<number>> = {
  bench: async () => {
    await bench((line) => console.log(line));
    return 0;
  },
};

const [name, ...args] = process.argv.slice(2);
process.exit(await tasks[name](args));
