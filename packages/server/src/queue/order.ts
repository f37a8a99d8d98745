import type { Problem, Project } from '@jadebell/core/document';
import type { ResultSet } from '@jadebell/core/results';
import type { Job, Progress } from '@jadebell/core/solvers';

/** What a thread is given to solve. */
export interface Task {
  project: Project;
  cellsPerSecond: number;
  jobs: Job[];
}

/** What the queue tells a solver thread: a task, with how many threads it may be solved once it is looked at, and that it is to stop. */
export type Order = { run: string } & ({ task: Task } | { threads: number } | { stop: true });

/** What a solver thread tells: the memory that its task needs, how far it is, a job that can be gone on from, and what came of it. */
export type Report = { bytes: number } | { progress: Progress } | { job: Job } | { result: ResultSet } | { problems: Problem[] };
