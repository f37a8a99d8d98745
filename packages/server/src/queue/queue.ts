import { EventEmitter } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { Problem } from '@jadebell/core/document';
import type { ResultSet } from '@jadebell/core/results';
import type { Job, Progress } from '@jadebell/core/solvers';
import { problem } from '@jadebell/core/document';
import { thisMachine } from '@jadebell/node';
import type { Sequelize } from 'sequelize';
import { storeArrays } from '../db/arrays.ts';
import { loadJobs, removeJobs, storeJob } from '../db/jobs.ts';
import { FactRow, RunRow } from '../db/models.ts';
import { storedDocument } from '../db/stored.ts';

interface Active {
  id: string;
  worker: Worker;
  progress: Progress | null;
  finished: Promise<void>;
}

/**
 * The run queue: rows in the database, one solver thread at a time (it uses all cores itself). Emits 'run' with a run's id
 * whenever that run changed. After a restart queued runs go on; a run that was under way is marked as interrupted.
 */
export class RunQueue extends EventEmitter<{ run: [string] }> {
  private active: Active | null = null;
  private closing = false;
  private speed = thisMachine().cellsPerSecond;

  constructor(private readonly sequelize: Sequelize) {
    super();
    this.setMaxListeners(100);
  }

  /** Takes up what the last start left. */
  async open(): Promise<void> {
    await RunRow.update({ state: 'interrupted', endedAt: new Date() }, { where: { state: 'running' } });
    const fact = await FactRow.findByPk('cells-per-second');
    if (fact) this.speed = Number(fact.value);
    void this.next();
  }

  /** Cell updates per second that runs on this machine have reached. */
  get cellsPerSecond(): number {
    return this.speed;
  }

  /** Progress of a run under way. */
  progress(id: string): Progress | null {
    return this.active?.id === id ? this.active.progress : null;
  }

  /** Says that a run was added. */
  wake(id: string): void {
    this.emit('run', id);
    void this.next();
  }

  /** Stops a run: one under way keeps what it has, a queued one never starts. */
  async stop(id: string): Promise<void> {
    // A run that is just being taken from the queue is neither queued nor active: wait until it is one of them.
    await this.starting;
    if (this.active?.id === id) {
      this.active.worker.postMessage('stop');
      return;
    }
    const [count] = await RunRow.update({ state: 'stopped', endedAt: new Date() }, { where: { id, state: 'queued' } });
    if (count) this.emit('run', id);
  }

  /** Ends the solver thread of a run and waits until it is gone. */
  async abandon(id: string): Promise<void> {
    await this.starting;
    if (this.active?.id !== id) return;
    const { worker, finished } = this.active;
    await worker.terminate();
    await finished;
  }

  /** Ends the work under way at once; its run will be shown as interrupted. */
  async close(): Promise<void> {
    this.closing = true;
    await this.starting;
    if (!this.active) return;
    const { worker, finished } = this.active;
    await worker.terminate();
    await finished;
  }

  private starting: Promise<void> | null = null;

  private async next(): Promise<void> {
    if (this.active || this.starting || this.closing) return;
    this.starting = this.take().finally(() => (this.starting = null));
    await this.starting;
  }

  /** Takes the oldest queued run and starts it, unless it was stopped or removed meanwhile. */
  private async take(): Promise<void> {
    for (;;) {
      const run = await RunRow.findOne({ where: { state: 'queued' }, order: [['createdAt', 'ASC']] });
      if (!run || this.closing) return;
      const startedAt = new Date();
      const [taken] = await RunRow.update({ state: 'running', startedAt }, { where: { id: run.id, state: 'queued' } });
      if (!taken) continue;
      this.start(run, await loadJobs(run.id));
      this.emit('run', run.id);
      return;
    }
  }

  private start(run: RunRow, jobs: Job[]): void {
    const project = storedDocument(run.document);
    const worker = new Worker(new URL('./worker.mjs', import.meta.url), { workerData: { project, jobs, cellsPerSecond: this.speed } });
    let settle: () => void = () => undefined;
    const active: Active = { id: run.id, worker, progress: null, finished: new Promise((resolve) => (settle = resolve)) };
    this.active = active;
    let ending: Promise<void> | null = null;
    let keeping: Promise<unknown> = Promise.resolve();
    const end = (work: () => Promise<unknown>): void => {
      ending ??= keeping
        .then(work)
        .catch((error: unknown) => this.fail(run, error as Error))
        .then(async () => {
          await worker.terminate();
          this.active = null;
          settle();
          this.emit('run', run.id);
          void this.next();
        });
    };
    worker.on('message', (message: { progress?: Progress; job?: Job; result?: ResultSet; problems?: Problem[] }) => {
      if (message.progress) {
        active.progress = message.progress;
        this.emit('run', run.id);
      } else if (message.job) {
        // A job that cannot be kept is done again after a stop; the run itself goes on.
        keeping = keeping.then(() => storeJob(run.id, message.job!)).catch(() => undefined);
      } else if (message.result) end(() => this.keep(run, message.result!));
      else end(() => run.update({ state: 'failed', endedAt: new Date(), problems: JSON.stringify(message.problems) }));
    });
    worker.on('error', (error) => end(() => this.fail(run, error)));
    worker.on('exit', () => end(() => RunRow.update({ state: 'interrupted', endedAt: new Date() }, { where: { id: run.id, state: 'running' } })));
  }

  private async keep(run: RunRow, result: ResultSet): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      await storeArrays(run.id, result, transaction);
      const state = result.meta.evidence.ended === 'stopped' ? 'stopped' : 'done';
      if (state === 'done') await removeJobs(run.id, transaction);
      await run.update({ state, endedAt: new Date(), meta: JSON.stringify(result.meta) }, { transaction });
    });
    const { evidence } = result.meta;
    if (evidence.method === 'wires' || evidence.seconds < 1) return;
    this.speed = evidence.cellsPerSecond;
    await FactRow.upsert({ name: 'cells-per-second', value: String(this.speed) });
  }

  private async fail(run: RunRow, error: Error): Promise<void> {
    const memory = /memory|allocation/i.test(error.message);
    const entry = memory
      ? problem(
          'error',
          'machine.memory',
          { part: 'machine' },
          'The machine has not enough free memory for this run.',
          'Close other programs, or take a coarser accuracy.',
        )
      : problem(
          'error',
          'run.failed',
          { part: 'solve' },
          `The run ended by a fault of the program: ${error.message}`,
          'Run it again; if it happens again, export the project and report it.',
        );
    await RunRow.update({ state: 'failed', endedAt: new Date(), problems: JSON.stringify([entry]) }, { where: { id: run.id } });
  }
}
