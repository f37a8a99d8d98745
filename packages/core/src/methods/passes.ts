/** A pass of adaptive accuracy: its cells or unknowns, and by how much the result changed from the one before; null for the first. */
export interface Pass {
  cells: number;
  change: number | null;
}

/** Passes in a row that must change the result by less than is asked: one alone may do so by chance. */
const quiet = 2;

/** The fewest passes after which they can have settled. */
export const fewestPasses = quiet + 1;

/** Whether passes have settled: the last ones changed the result by less than is asked for, both as the largest change of |S|. */
export const isSettled = (passes: readonly Pass[], asked: number): boolean =>
  passes.length > quiet && passes.slice(-quiet).every((p) => p.change !== null && p.change < asked);

/**
 * What is still to come, in all, if the changes of further passes go on shrinking as the last two did: the tail of a geometric series. Null
 * where they do not shrink, or are too few to tell.
 */
export function changeToCome(passes: readonly Pass[]): number | null {
  const [before, last] = passes.slice(-2).map((p) => p.change);
  if (!before || last === null || last === undefined || last >= before) return null;
  return (last * last) / (before - last);
}
