import { EventEmitter } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import type { ResourceLimits, Worker } from 'node:worker_threads';
import { methodOf } from '@jadebell/core/methods';
import type { ResultSet } from '@jadebell/core/results';
import type { Job, Progress } from '@jadebell/core/solvers';
import { thisMachine, threadsHere } from '@jadebell/node';
import type { Logger } from 'pino';
import { ConnectionError, DatabaseError, literal, Op, type Sequelize } from 'sequelize';
import { storeArrays } from '../db/arrays.ts';
import { loadJobs, removeJobs, storeJob } from '../db/jobs.ts';
import { FactRow, RunRow } from '../db/models.ts';
import { storedDocument } from '../db/stored.ts';
import { faultOf } from './fault.ts';
import type { Order, Report } from './order.ts';
import { Threads } from './threads.ts';

/** How often a point is taken from the queue before it counts as one that ends the server. */
const mostAttempts = 5;

/** A run that has a thread. */
interface Active {
  id: string;
  /** It is a point of a study or search, beside which others may run. */
  point: boolean;
  worker: Worker;
  progress: Progress | null;
  /** Memory that it needs; null until it was looked at. */
  bytes: number | null;
  /** With how many threads it is solved; 0 until it may be. */
  threads: number;
  /** It has come to its end, and what it found is being kept; its thread may have another run already. */
  over: boolean;
  /** It is being removed. */
  abandoned: boolean;
  finished: Promise<void>;
}

/**
 * The run queue: rows in the database, and solver threads. A run that was asked for by itself has all cores; points of studies run beside each other, a core
 * each, as far as memory goes: that takes less time than one after the other on all cores. Emits 'run' with a run's id whenever that run changed. After a
 * restart queued runs go on, and so do points that were under way; another run that was is marked as interrupted.
 */
export class RunQueue extends EventEmitter<{ run: [string] }> {
  private readonly active = new Map<string, Active>();
  private readonly threads: Threads;
  private closing = false;
  private speed = thisMachine().cellsPerSecond;

  /** `pause` is the time in milliseconds between two tries to reach a lost database, `limits` what a solver thread may take. */
  constructor(
    private readonly sequelize: Sequelize,
    private readonly log: Logger,
    private readonly pause = 2000,
    limits?: ResourceLimits,
  ) {
    super();
    this.setMaxListeners(100);
    this.threads = new Threads(limits);
  }

  /** Takes up what the last start left. */
  async open(): Promise<void> {
    // Points go on by themselves, unless it was one of them that ended the server again and again; of others a person decides.
    const again = { state: 'running', study: { [Op.ne]: null }, attempts: { [Op.lt]: mostAttempts } };
    await RunRow.update({ state: 'queued', startedAt: null }, { where: again });
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
    return this.active.get(id)?.progress ?? null;
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
    const active = this.active.get(id);
    if (active) {
      if (active.over) return;
      // One that waits for memory goes on, to find that it is stopped.
      this.tell(active, { run: id, stop: true });
      if (!active.threads) this.admit(active, 1);
      return;
    }
    const [count] = await RunRow.update({ state: 'stopped', endedAt: new Date() }, { where: { id, state: 'queued' } });
    if (count) this.emit('run', id);
  }

  /** Ends the solver thread of a run and waits until it is gone. */
  async abandon(id: string): Promise<void> {
    await this.starting;
    const active = this.active.get(id);
    if (active) active.abandoned = true;
    if (active && !active.over) await active.worker.terminate();
    await active?.finished;
  }

  /** Ends the work under way at once; its runs will be shown as interrupted. */
  async close(): Promise<void> {
    this.closing = true;
    await this.starting;
    await this.threads.close();
    for (const { over, worker } of this.active.values()) if (!over) await worker.terminate();
    await Promise.all([...this.active.values()].map((a) => a.finished));
  }

  private starting: Promise<void> | null = null;
  /** A run came while others were being taken. */
  private more = false;

  private async next(): Promise<void> {
    this.more = true;
    if (this.starting || this.closing) return;
    this.starting = this.insist(() => this.fill())
      .catch((error: unknown) => this.log.error({ err: error }, 'no run could be taken from the queue'))
      .finally(() => (this.starting = null));
    await this.starting;
  }

  private async fill(): Promise<void> {
    while (this.more && !this.closing) {
      this.more = false;
      while (await this.take());
    }
  }

  /** Takes the oldest queued run, points of studies last, and starts it if there is room beside those that run; tells whether one was taken. */
  private async take(): Promise<boolean> {
    // Besides those that are solved one more is made ready.
    const room = this.underWay.every((a) => a.point) && this.underWay.length <= (this.underWay.length ? threadsHere() : 0);
    // Where results are kept more slowly than they are found, those that wait for it would fill the memory.
    const kept = this.active.size - this.underWay.length <= threadsHere();
    if (!room || !kept || this.closing) return false;
    const run = await RunRow.findOne({
      where: { state: 'queued' },
      order: [
        [literal('study IS NOT NULL'), 'ASC'],
        // One that may have ended the server stands behind all others.
        ['attempts', 'ASC'],
        ['createdAt', 'ASC'],
        ['number', 'ASC'],
      ],
    });
    if (!run || this.closing || (run.study === null && this.underWay.length)) return false;
    const jobs = await loadJobs(run.id);
    const startedAt = new Date();
    // It may have been stopped or removed meanwhile.
    const [taken] = await RunRow.update({ state: 'running', startedAt, attempts: run.attempts + 1 }, { where: { id: run.id, state: 'queued' } });
    if (taken) {
      this.start(run, jobs);
      this.emit('run', run.id);
    }
    return true;
  }

  private tell({ worker }: Active, order: Order): void {
    worker.postMessage(order);
  }

  /** Runs that are not over. */
  private get underWay(): Active[] {
    return [...this.active.values()].filter((a) => !a.over);
  }

  /** Lets runs that were looked at be solved, as far as cores and memory go beside those that are. */
  private admitAll(): void {
    for (const active of this.underWay) {
      if (active.threads || active.bytes === null) continue;
      const others = this.underWay.filter((a) => a.threads);
      const taken = others.reduce((sum, a) => sum + (a.bytes ?? 0), 0);
      // One alone has been checked for what the machine has.
      if (others.length && (others.length >= threadsHere() || taken + active.bytes > thisMachine().memory)) continue;
      this.admit(active, Math.max(1, Math.floor(threadsHere() / this.underWay.length)));
    }
  }

  private admit(active: Active, threads: number): void {
    active.threads = threads;
    this.tell(active, { run: active.id, threads });
  }

  private start(run: RunRow, jobs: Job[]): void {
    const worker = this.threads.take();
    let settle: () => void = () => undefined;
    const finished = new Promise<void>((resolve) => (settle = resolve));
    const active: Active = {
      id: run.id,
      point: run.study !== null,
      worker,
      progress: null,
      bytes: null,
      threads: 0,
      over: false,
      abandoned: false,
      finished,
    };
    this.active.set(run.id, active);
    let ending: Promise<void> | null = null;
    let keeping: Promise<unknown> = Promise.resolve();
    /** What is done with what a run has come to; `whole`: its thread can take another at once. */
    const end = (work: () => Promise<unknown>, whole: boolean): void => {
      if (ending) return;
      active.over = true;
      const released = whole && !this.closing ? this.threads.giveBack(worker, active.bytes ?? 0) : worker.terminate();
      this.admitAll();
      void this.next();
      ending = keeping
        .then(() => this.insist(work))
        .catch((error: unknown) => this.insist(() => this.fail(run, error)))
        .catch((error: unknown) => this.log.error({ err: error, run: run.id }, 'what came of a run could not be told'))
        .then(async () => {
          await released;
          this.active.delete(run.id);
          settle();
          this.emit('run', run.id);
          // One that is tried again waits already.
          void this.next();
        });
    };
    worker.on('message', (report: Report) => {
      if ('bytes' in report) {
        active.bytes = report.bytes;
        this.admitAll();
      } else if ('progress' in report) {
        active.progress = report.progress;
        this.emit('run', run.id);
      } else if ('job' in report) {
        // A job that cannot be kept is done again after a stop; the run itself goes on.
        keeping = keeping.then(() => storeJob(run.id, report.job)).catch(() => undefined);
      } else if ('result' in report) end(() => this.keep(run, report.result, active.threads), true);
      else end(() => run.update({ state: 'failed', endedAt: new Date(), problems: JSON.stringify(report.problems) }), true);
    });
    worker.on('error', (error) => end(() => this.fail(run, error), false));
    worker.on('exit', () => {
      // A point whose thread was ended from outside is tried again.
      const again = active.point && !active.abandoned && run.attempts < mostAttempts - 1;
      const state = again ? { state: 'queued' as const, startedAt: null } : { state: 'interrupted' as const, endedAt: new Date() };
      end(() => RunRow.update(state, { where: { id: run.id, state: 'running' } }), false);
    });
    this.tell(active, { run: run.id, task: { project: storedDocument(run.document), jobs, cellsPerSecond: this.speed } });
  }

  private async keep(run: RunRow, result: ResultSet, threads: number): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      await storeArrays(run.id, result, transaction);
      const state = result.meta.evidence.ended === 'stopped' ? 'stopped' : 'done';
      if (state === 'done') await removeJobs(run.id, transaction);
      await run.update({ state, endedAt: new Date(), meta: JSON.stringify(result.meta) }, { transaction });
      const { evidence, solver } = result.meta;
      // Too short a run, or one on a part of the cores, tells little of the machine.
      const speed = evidence.seconds < 1 || threads < threadsHere() ? undefined : methodOf(solver).speed?.(evidence);
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
