import type { Axis } from '../numerics/axis.ts';

/** A cut through a model: beyond it stands a straight stretch of its section, and then the mirror image of what is before it. */
export interface Fold {
  axis: Axis;
  /** Coordinate of the cut, metres; no face may lie just there. */
  at: number;
  /** Side of the cut that is replaced: 1 the larger coordinates. */
  inward: 1 | -1;
  /** Length of the straight stretch, metres. */
  length: number;
}

/** Where the model is as it is at a coordinate of the folded one. */
export function unfolded({ at, inward, length }: Fold, x: number): number {
  const depth = inward * (x - at);
  return depth <= 0 ? x : depth < length ? at : at - inward * (depth - length);
}
