import { type Problem, problem } from '@jadebell/core/document';
import { DatabaseError } from 'sequelize';

/** Numbers by which the database says that there is no room: the system's ENOSPC, a full disk, a full table. */
const noRoom = new Set([28, 1021, 1114]);

const noDisk = (error: unknown): boolean => error instanceof DatabaseError && noRoom.has((error.parent as { errno?: number }).errno ?? 0);

/** A thread tells by its code that its own memory is out; a refused buffer has no code, only a RangeError's words. */
const noMemory = (error: unknown): boolean =>
  (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY' || (error instanceof RangeError && /alloc|memory/i.test(error.message));

/** What a user is told of an error that ended a run. */
export function faultOf(error: unknown): Problem {
  if (noDisk(error))
    return problem(
      'error',
      'machine.disk',
      { part: 'machine' },
      'The disk is full: what this run found could not be kept.',
      'Make room on the disk or delete runs that are no longer needed, then run it again.',
    );
  if (noMemory(error))
    return problem(
      'error',
      'machine.memory',
      { part: 'machine' },
      'The machine has not enough free memory for this run.',
      'Close other programs, or take a coarser accuracy.',
    );
  return problem(
    'error',
    'run.failed',
    { part: 'solve' },
    `The run ended by a fault of the program: ${(error as Error).message}`,
    'Run it again; if it happens again, export the project and report it.',
  );
}
