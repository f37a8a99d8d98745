import { Worker } from 'node:worker_threads';
import type { Problem, Project } from '@jadebell/core/document';
import type { Influence, Spread, Tolerance, ToleranceTask } from '@jadebell/core/searching';

export type Asked =
  | { kind: 'picture' | 'check'; document: Project; cellsPerSecond: number }
  /** Points of the unit cube with a figure of each, and how their parameters are spread. */
  | { kind: 'influence'; x: number[][]; y: number[]; spreads: Spread[] }
  | { kind: 'tolerance'; task: ToleranceTask };
export type Question = Asked & { ticket: number };
export type Answer =
  | { picture: string }
  | { problems: Problem[]; seconds: number | null }
  | { influence: Influence | null }
  | { tolerance: Tolerance }
  | { fault: string };

/** Evaluates projects on a thread of its own, so that the API goes on answering. A thread that dies fails what it was asked and is started again. */
export class ModelService {
  private worker: Worker | null = null;
  private ticket = 0;
  private readonly waiting = new Map<number, { resolve(a: Answer): void; reject(e: Error): void }>();

  /** A picture of a project for the shelf; empty where its model cannot be drawn. */
  async picture(document: Project): Promise<string> {
    const found = await this.ask({ kind: 'picture', document, cellsPerSecond: 0 });
    return 'picture' in found ? found.picture : '';
  }

  /** All that stands against a run of a project on a machine that updates so many cells a second, and how long it takes; null where it cannot be run. */
  async check(document: Project, cellsPerSecond: number): Promise<{ problems: Problem[]; seconds: number | null }> {
    const found = await this.ask({ kind: 'check', document, cellsPerSecond });
    if ('problems' in found) return found;
    throw new Error('fault' in found ? found.fault : 'The check gave no answer.');
  }

  /** How parameters make a figure what it is, by points of the unit cube; null where they are too few. */
  async influence(x: number[][], y: number[], spreads: Spread[]): Promise<Influence | null> {
    const found = await this.ask({ kind: 'influence', x, y, spreads });
    if ('influence' in found) return found.influence;
    throw new Error('fault' in found ? found.fault : 'Nothing was said of what matters.');
  }

  /** What parameters that are spread make of figures. */
  async tolerance(task: ToleranceTask): Promise<Tolerance> {
    const found = await this.ask({ kind: 'tolerance', task });
    if ('tolerance' in found) return found.tolerance;
    throw new Error('fault' in found ? found.fault : 'Nothing was said of what may come.');
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private ask(asked: Asked): Promise<Answer> {
    const ticket = ++this.ticket;
    return new Promise((resolve, reject) => {
      this.waiting.set(ticket, { resolve, reject });
      (this.worker ??= this.start()).postMessage({ ticket, ...asked } satisfies Question);
    });
  }

  private start(): Worker {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url));
    worker.on('message', ({ ticket, ...found }: Answer & { ticket: number }) => {
      this.waiting.get(ticket)?.resolve(found);
      this.waiting.delete(ticket);
    });
    const end = (error: Error): void => {
      if (this.worker === worker) this.worker = null;
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', () => end(new Error('The thread that evaluates models ended.')));
    return worker;
  }
}
