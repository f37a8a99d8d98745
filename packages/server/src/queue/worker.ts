import { parentPort } from 'node:worker_threads';
import { ProblemError } from '@jadebell/core/document';
import { loadGeometryKernel, ModelCache } from '@jadebell/core/geometry';
import type { ResultSet } from '@jadebell/core/results';
import { checkProject } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';
import { faultOf } from './fault.ts';
import type { Order, Report, Task } from './order.ts';

const port = parentPort!;
const tell = (report: Report): void => port.postMessage(report);
// What every run needs is there before it comes, and what was built for one may serve the next.
const kernel = loadGeometryKernel();
const cache = new ModelCache();

/** The run that is being solved. */
interface Under {
  run: string;
  stopper: AbortController;
  /** With how many threads it may go on. */
  go(threads: number): void;
}
let now: Under | null = null;

async function solve(task: Task, signal: AbortSignal, allowed: Promise<number>): Promise<ResultSet> {
  const { ready, problems } = await checkProject(task.project, thisMachine(task.cellsPerSecond), await kernel, undefined, cache);
  if (!ready) throw new ProblemError(problems.filter((p) => p.severity === 'error'));
  tell({ bytes: ready.estimate.bytes });
  return ready.solver.solve(ready.scene, {
    host: await nodeHost(await allowed),
    signal,
    jobs: { have: new Map(task.jobs.map((job) => [job.excited, job])), done: (job) => tell({ job }) },
    onProgress: (progress) => tell({ progress }),
  });
}

port.on('message', (order: Order) => {
  if ('task' in order) {
    const stopper = new AbortController();
    const allowed = new Promise<number>((go) => (now = { run: order.run, stopper, go }));
    void solve(order.task, stopper.signal, allowed)
      .then((result) => tell({ result }))
      .catch((error: unknown) => tell({ problems: error instanceof ProblemError ? error.problems : [faultOf(error)] }));
  } else if (now?.run !== order.run) return;
  else if ('stop' in order) now.stopper.abort();
  else now.go(order.threads);
});
