import { buildGrid, cellCount, type Grid, unrefined } from '../../grid/index.ts';
import { isSettled, type Pass, type ResultSet, type TimeEvidence } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { changeBetween, defaultChange } from '../change.ts';
import { discretise } from './discretise.ts';
import { Jumps, refined } from './refine.ts';
import type { SolveOnce } from './solveOnce.ts';

const mostPasses = 8;
/** Cells beyond which no further pass is begun. */
const mostCells = 60e6;

/**
 * Solves a scene on finer and finer grids, each refined where the fields of the last jump most from cell to cell, until the result
 * changes by less than is asked for twice in a row. A run stopped by hand gives the last pass that was finished. The grid is that of the pass that is given.
 */
export async function solveCertain(
  scene: GridScene,
  options: SolveOptions,
  solve: SolveOnce,
): Promise<{ grid: Grid; result: ResultSet<TimeEvidence> }> {
  const asked = scene.details.change ?? defaultChange;
  const passes: Pass[] = [];
  let now = { refinement: unrefined, grid: buildGrid(scene) };
  let last: ResultSet<TimeEvidence> | null = null;
  let solved = now.grid;
  let seconds = 0;
  for (let pass = 1; ; pass++) {
    const { grid } = now;
    const jumps = new Jumps(grid);
    const change = passes.at(-1)?.change ?? null;
    const result: ResultSet<TimeEvidence> = await solve(
      scene,
      discretise(scene, grid),
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
    solved = grid;
    // Without S or a cross-section there is nothing to compare.
    if (stopped || (!result.arrays.s && !result.meta.scattered?.figures.length)) break;
    if (pass >= mostPasses || isSettled(passes, asked)) break;
    const next = refined(scene, now.refinement, grid, jumps);
    if (cellCount(next.grid) > mostCells) break;
    now = next;
  }
  return { grid: solved, result: { ...last, meta: { ...last.meta, evidence: { ...last.meta.evidence, seconds, passes, asked } } } };
}
