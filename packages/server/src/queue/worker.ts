import { parentPort, workerData } from 'node:worker_threads';
import { ProblemError, type Project } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { checkProject, type Job } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';
import { faultOf } from './fault.ts';

const { project, cellsPerSecond, jobs } = workerData as { project: Project; cellsPerSecond: number; jobs: Job[] };
const port = parentPort!;
const stopper = new AbortController();
port.on('message', (message) => {
  if (message === 'stop') stopper.abort();
});

try {
  const { ready, problems } = await checkProject(project, thisMachine(cellsPerSecond), await loadGeometryKernel());
  if (!ready) throw new ProblemError(problems.filter((p) => p.severity === 'error'));
  const result = await ready.solver.solve(ready.scene, {
    host: await nodeHost(),
    signal: stopper.signal,
    jobs: { have: new Map(jobs.map((job) => [job.excited, job])), done: (job) => port.postMessage({ job }) },
    onProgress: (progress) => port.postMessage({ progress }),
  });
  port.postMessage({ result });
} catch (error) {
  const problems = error instanceof ProblemError ? error.problems : [faultOf(error)];
  port.postMessage({ problems });
}
