import { type ResourceLimits, Worker } from 'node:worker_threads';

/** How long a thread without a run is kept, in milliseconds. */
const patience = 30_000;
/** A thread that has held more than this, in bytes, is not kept: its memory never shrinks. */
const mostHeld = 512 * 2 ** 20;

/** Solver threads, kept for the next run, as points of studies may be shorter than a new thread takes to be ready. */
export class Threads {
  private readonly idle: Worker[] = [];
  private waiting: NodeJS.Timeout | undefined;

  constructor(private readonly limits?: ResourceLimits) {}

  /** A thread for a run: one that is there, or a new one. Nothing listens to it yet. */
  take(): Worker {
    clearTimeout(this.waiting);
    const worker = this.idle.pop() ?? new Worker(new URL('./worker.mjs', import.meta.url), { resourceLimits: this.limits });
    worker.removeAllListeners();
    return worker;
  }

  /** Takes a thread back whose run has ended and needed so much memory. */
  async giveBack(worker: Worker, bytes: number): Promise<void> {
    worker.removeAllListeners();
    if (bytes > mostHeld) {
      await worker.terminate();
      return;
    }
    const gone = (): void => {
      const at = this.idle.indexOf(worker);
      if (at >= 0) this.idle.splice(at, 1);
    };
    worker.on('error', gone).on('exit', gone);
    this.idle.push(worker);
    clearTimeout(this.waiting);
    this.waiting = setTimeout(() => void this.close(), patience).unref();
  }

  /** Ends all that have no run. */
  async close(): Promise<void> {
    clearTimeout(this.waiting);
    await Promise.all(this.idle.splice(0).map((worker) => worker.terminate()));
  }
}
