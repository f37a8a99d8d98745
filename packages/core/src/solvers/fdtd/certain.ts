import { buildGrid, cellCount } from '../../grid/index.ts';
import type { ResultSet } from '../../results/index.ts';
import type { Scene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { Jumps, refined } from './refine.ts';
import type { Simulation } from './simulation.ts';

/** Change of S from pass to pass that is asked for if nothing else is. */
export const defaultChange = 0.01;
const mostPasses = 8;
/** Passes in a row that must change the result by less than is asked: one alone may do so by chance. */
const quiet = 2;
/** Cells beyond which no further pass is begun. */
const mostCells = 60e6;

type Solve = (scene: Scene, options: SolveOptions, observe: (s: Simulation) => void) => Promise<ResultSet>;

/** Largest change between two results of one scene: of S between waves that propagate, or of a scatterer's cross-sections as a part of them. */
export function changeBetween(a: ResultSet, b: ResultSet): number {
  const [s, t] = [a.arrays.s, b.arrays.s];
  if (s && t) {
    const [points, to, from] = s.shape;
    const beta = b.arrays.beta?.data;
    // Below cutoff S has no bound.
    const dead = (f: number, c: number): boolean => !!beta && beta[2 * (f * to + c) + 1] < 0;
    let worst = 0;
    for (let f = 0; f < points; f++)
      for (let c = 0; c < to; c++)
        for (let e = 0; e < from; e++) {
          if (dead(f, c) || dead(f, b.meta.excitations[e])) continue;
          const i = 2 * ((f * to + c) * from + e);
          worst = Math.max(worst, Math.hypot(s.data[i] - t.data[i], s.data[i + 1] - t.data[i + 1]));
        }
    return worst;
  }
  const [p, q] = [a.meta.scattered?.figures ?? [], b.meta.scattered?.figures ?? []];
  return q.reduce((m, f, i) => Math.max(m, Math.abs(p[i].scattering - f.scattering) / f.scattering, Math.abs(p[i].back - f.back) / f.largest), 0);
}

/**
 * Solves a scene on finer and finer grids, each refined where the fields of the last jump most from cell to cell, until the result
 * changes by less than is asked for twice in a row. A run stopped by hand gives the last pass that was finished.
 */
export async function solveCertain(scene: Scene, options: SolveOptions, solve: Solve): Promise<ResultSet> {
  const bound = scene.details.change ?? defaultChange;
  const passes: NonNullable<ResultSet['meta']['evidence']['passes']> = [];
  let now = scene;
  let last: ResultSet | null = null;
  let seconds = 0;
  for (let pass = 1; ; pass++) {
    const grid = buildGrid(now);
    const jumps = new Jumps(grid);
    const change = passes.at(-1)?.change ?? null;
    const result: ResultSet = await solve(
      now,
      // Jobs of different passes are of different grids.
      { ...options, jobs: undefined, onProgress: options.onProgress && ((p) => options.onProgress!({ ...p, pass, change })) },
      (s) => jumps.take(s),
    );
    seconds += result.meta.evidence.seconds;
    const stopped = options.signal?.aborted ?? false;
    // Half a pass is worth less than the whole one before it.
    if (stopped && last) break;
    passes.push({ cells: cellCount(grid), change: last && changeBetween(last, result) });
    last = result;
    // Without S or a cross-section there is nothing to compare.
    if (stopped || (!result.arrays.s && !result.meta.scattered?.figures.length)) break;
    if (pass >= mostPasses || passes.slice(-quiet).filter((p) => p.change !== null && p.change < bound).length === quiet) break;
    const next = refined(now, jumps);
    if (cellCount(buildGrid(next)) > mostCells) break;
    now = next;
  }
  return { ...last, meta: { ...last.meta, evidence: { ...last.meta.evidence, seconds, passes } } };
}
