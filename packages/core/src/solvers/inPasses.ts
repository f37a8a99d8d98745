import { defaultChange, type Evidence, isSettled, type Pass, sizeOf } from '../methods/index.ts';
import { passKey, type ResultSet } from '../results/index.ts';
import { changeBetween } from './change.ts';
import type { SolveOptions } from './solver.ts';

/** How passes are made of finer and finer models M of one scene. */
interface Passes<M, E extends Evidence> {
  first: M;
  most: number;
  solve(model: M, options: SolveOptions): Promise<ResultSet<E>>;
  /** The next finer model; null where it would be too large. */
  next(model: M, result: ResultSet<E>): M | null;
}

/**
 * Adaptive accuracy: solves finer and finer models until the result changes by less than is asked for, twice in a row. A run stopped by hand gives the last
 * pass that was finished. The model is that of the pass that is given.
 */
export async function solveInPasses<M, E extends Evidence>(
  { first, most, solve, next }: Passes<M, E>,
  asked = defaultChange,
  options: SolveOptions,
): Promise<{ model: M; result: ResultSet<E> }> {
  const passes: Pass[] = [];
  /** S of the passes before the last, so that they can be laid over one another. */
  const before: ResultSet['arrays'] = {};
  let last: { model: M; result: ResultSet<E> } | null = null;
  let seconds = 0;
  for (let model: M | null = first; model !== null;) {
    const pass = passes.length + 1;
    const change = passes.at(-1)?.change ?? null;
    const result: ResultSet<E> = await solve(model, {
      ...options,
      // Jobs of different passes are of different models.
      jobs: undefined,
      onProgress: options.onProgress && ((p) => options.onProgress!({ ...p, pass, change })),
    });
    seconds += result.meta.evidence.seconds;
    const stopped = options.signal?.aborted ?? false;
    // Half a pass is worth less than the whole one before it.
    if (stopped && last) break;
    if (last?.result.arrays.s && result.arrays.s && last.result.arrays.s.data.length === result.arrays.s.data.length)
      before[passKey(passes.length)] = last.result.arrays.s;
    passes.push({ cells: sizeOf(result.meta).count, change: last && changeBetween(last.result, result) });
    last = { model, result };
    // Without S or a cross-section there is nothing to compare.
    if (stopped || (!result.arrays.s && !result.meta.scattered?.figures.length)) break;
    model = pass >= most || isSettled(passes, asked) ? null : next(model, result);
  }
  const { model, result } = last!;
  return {
    model,
    result: { arrays: { ...result.arrays, ...before }, meta: { ...result.meta, evidence: { ...result.meta.evidence, seconds, passes, asked } } },
  };
}
