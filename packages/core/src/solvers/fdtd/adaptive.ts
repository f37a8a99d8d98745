import { buildGrid, cellCount, type Grid, unrefined } from '../../grid/index.ts';
import type { TimeEvidence } from '../../methods/index.ts';
import type { ResultSet } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import { solveInPasses } from '../inPasses.ts';
import type { SolveOptions } from '../solver.ts';
import { discretise } from './discretise.ts';
import { RefinementIndicator, refined } from './refine.ts';
import type { SolveOnce } from './solveOnce.ts';

/** Passes after which adaptive accuracy ends whatever still changes. */
const mostPasses = 8;
/** Cells beyond which no further pass is begun. */
const mostCells = 60e6;

/** Solves a scene on finer and finer grids, each refined where the fields of the last jump most from cell to cell; the grid is that of the pass that is given. */
export async function solveAdaptive(
  scene: GridScene,
  options: SolveOptions,
  solve: SolveOnce,
): Promise<{ grid: Grid; result: ResultSet<TimeEvidence> }> {
  const first = buildGrid(scene);
  const { model, result } = await solveInPasses(
    {
      first: { refinement: unrefined, grid: first, jumps: new RefinementIndicator(first) },
      most: mostPasses,
      solve: ({ grid, jumps }, o) => solve(scene, discretise(scene, grid), o, (s) => jumps.take(s)),
      next: ({ refinement, grid, jumps }) => {
        const finer = refined(scene, refinement, grid, jumps);
        return cellCount(finer.grid) > mostCells ? null : { ...finer, jumps: new RefinementIndicator(finer.grid) };
      },
    },
    scene.details.change,
    options,
  );
  return { grid: model.grid, result };
}
