import { totalmem } from 'node:os';
import type { Machine } from '@jadebell/core/solvers';
import { threadsHere } from './host.ts';

/** This machine, with a cautious guess of its speed until a run has measured it. */
export const thisMachine = (cellsPerSecond = 8e7 * threadsHere()): Machine => ({
  memory: totalmem() * 0.7,
  threads: threadsHere(),
  cellsPerSecond,
});
