import { EventEmitter } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import { type ResourceLimits, Worker } from 'node:worker_threads';
import type { Problem } from '@jadebell/core/document';
import { methodOf } from '@jadebell/core/methods';
import type { ResultSet } from '@jadebell/core/results';
import type { Job, Progress } from '@jadebell/core/solvers';
import { thisMachine } from '@jadebell/node';
import type { Logger } from 'pino';
import { ConnectionError, DatabaseError, literal, type Sequelize } from 'sequelize';
import { storeArrays } from '../db/arrays.ts';
import { loadJobs, removeJobs, storeJob } from '../db/jobs.ts';
import { FactRow, RunRow } from '../db/models.ts';
import { storedDocument } from '../db/stored.ts';
import { faultOf } from './fault.ts';
import type { Task } from './worker.ts';

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

  /** `pause` is the time in milliseconds between two tries to reach a lost database, `limits` what a solver thread may take. */
  constructor(
    private readonly sequelize: Sequelize,
    private readonly log: Logger,
    private readonly pause = 2000,
    private readonly limits?: ResourceLimits,
  ) {
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
    await this.spare?.terminate();
    if (!this.active) return;
    const { worker, finished } = this.active;
    await worker.terminate();
    await finished;
  }

  private starting: Promise<void> | null = null;
  /** A thread that is ready for the next run. */
  private spare: Worker | null = null;

  private thread(): Worker {
    const worker = new Worker(new URL('./worker.mjs', import.meta.url), { resourceLimits: this.limits });
    // Of one that fails before it is needed nothing is expected.
    const gone = (): void => void (this.spare === worker && (this.spare = null));
    return worker.on('error', gone).on('exit', gone);
  }

  private async next(): Promise<void> {
    if (this.active || this.starting || this.closing) return;
    this.starting = this.insist(() => this.take())
      .catch((error: unknown) => this.log.error({ err: error }, 'no run could be taken from the queue'))
      .finally(() => (this.starting = null));
    await this.starting;
  }

  /** Takes the oldest queued run, points of studies last, and starts it, unless it was stopped or removed meanwhile. */
  private async take(): Promise<void> {
    for (;;) {
      const run = await RunRow.findOne({
        where: { state: 'queued' },
        order: [
          [literal('study IS NOT NULL'), 'ASC'],
          ['createdAt', 'ASC'],
          ['number', 'ASC'],
        ],
      });
      if (!run || this.closing) return;
      const jobs = await loadJobs(run.id);
      const startedAt = new Date();
      const [taken] = await RunRow.update({ state: 'running', startedAt }, { where: { id: run.id, state: 'queued' } });
      if (!taken) continue;
      this.start(run, jobs);
      this.emit('run', run.id);
      return;
    }
  }

  private start(run: RunRow, jobs: Job[]): void {
    const project = storedDocument(run.document);
    const worker = this.spare ?? this.thread();
    worker.removeAllListeners();
    worker.postMessage({ project, jobs, cellsPerSecond: this.speed } satisfies Task);
    // The next one makes itself ready meanwhile: points of studies may be shorter than that takes.
    this.spare = this.thread();
    let settle: () => void = () => undefined;
    const active: Active = { id: run.id, worker, progress: null, finished: new Promise((resolve) => (settle = resolve)) };
    this.active = active;
    let ending: Promise<void> | null = null;
    let keeping: Promise<unknown> = Promise.resolve();
    const end = (work: () => Promise<unknown>): void => {
      ending ??= keeping
        .then(() => this.insist(work))
        .catch((error: unknown) => this.insist(() => this.fail(run, error)))
        .catch((error: unknown) => this.log.error({ err: error, run: run.id }, 'what came of a run could not be told'))
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
      const { evidence, solver } = result.meta;
      // Too short a run tells little of the machine.
      const speed = evidence.seconds < 1 ? undefined : methodOf(solver).speed?.(evidence);
      if (speed === undefined) return;
      this.speed = speed;
      await FactRow.upsert({ name: 'cells-per-second', value: String(this.speed) }, { transaction });
    });
  }

  private async fail(run: RunRow, error: unknown): Promise<void> {
    await RunRow.update({ state: 'failed', endedAt: new Date(), problems: JSON.stringify([faultOf(error)]) }, { where: { id: run.id } });
  }

  /** Does what needs the database; one that cannot be reached is waited for, as the run behind it may have taken hours. */
  private async insist<T>(work: () => Promise<T>): Promise<T> {
    for (;;)
      try {
        return await work();
      } catch (error) {
        if (!isLost(error) || this.closing) throw error;
        this.log.warn({ err: error }, 'the database cannot be reached; the queue waits for it');
        await sleep(this.pause);
      }
  }
}

/** Whether an error tells that the connection to the database is gone. */
const isLost = (error: unknown): boolean =>
  error instanceof ConnectionError || (error instanceof DatabaseError && (error.parent as { fatal?: boolean }).fatal === true);
