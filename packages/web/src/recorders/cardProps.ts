import type { RecorderTold } from '@jadebell/core/recorders';
import type { Run } from '../api/types.ts';

/** What a card of a recorder gets: the run, the stem of its files, and what the recorder told. */
export interface RecorderCardProps<T = RecorderTold> {
  run: Run;
  stem: string;
  told: T;
}
