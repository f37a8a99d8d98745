import { parentPort } from 'node:worker_threads';
import { ProblemError, type Project } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { checkProject, type Job } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';
import { faultOf } from './fault.ts';

/** What a thread is given to solve. */
export interface Task {
  project: Project;
  cellsPerSecond: number;
  jobs: Job[];
}

const port = parentPort!;
const stopper = new AbortController();
let begin: (task: Task) => void;
const given = new Promise<Task>((resolve) => (begin = resolve));
port.on('message', (message: 'stop' | Task) => {
  if (message === 'stop') stopper.abort();
  else begin(message);
});

try {
  // What every run needs is there before it comes.
  const [kernel, host] = [await loadGeometryKernel(), await nodeHost()];
  const { project, cellsPerSecond, jobs } = await given;
  const { ready, problems } = await checkProject(project, thisMachine(cellsPerSecond), kernel);
  if (!ready) throw new ProblemError(problems.filter((p) => p.severity === 'error'));
  const result = await ready.solver.solve(ready.scene, {
    host,
    signal: stopper.signal,
    jobs: { have: new Map(jobs.map((job) => [job.excited, job])), done: (job) => port.postMessage({ job }) },
    onProgress: (progress) => port.postMessage({ progress }),
  });
  port.postMessage({ result });
} catch (error) {
  const problems = error instanceof ProblemError ? error.problems : [faultOf(error)];
  port.postMessage({ problems });
}
