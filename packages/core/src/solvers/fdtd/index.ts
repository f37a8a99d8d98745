import type { ResultSet } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions, Solver } from '../solver.ts';
import { buildGrid, type Grid } from '../../grid/index.ts';
import { calibratePorts } from './calibrate.ts';
import { solveAdaptive } from './adaptive.ts';
import { discretise } from './discretise.ts';
import { planScene } from './check.ts';
import { portsOnGrid } from './portsOnGrid.ts';
import { solveScene } from './solve.ts';
import { solveSourced } from './sourced.ts';
import { steady } from './steady.ts';
import type { TimeEvidence, TimeEstimate } from '../../methods/index.ts';

const once = steady((scene, discrete, options, observe) =>
  scene.source ? solveSourced(scene, scene.source, discrete, options, observe) : solveScene(scene, discrete, options, observe),
);

/** The stages of a run, each of which gives the next what it found: the grid; the discrete model on it; its solution, once or in passes on finer grids; the calibration of ports on the grid of what was solved. */
async function solve(scene: GridScene, options: SolveOptions): Promise<ResultSet<TimeEvidence>> {
  if (scene.accuracy === 'adaptive') {
    const { grid, result } = await solveAdaptive(scene, options, once);
    return calibratePorts(scene, grid, result, options, once);
  }
  const grid = buildGrid(scene);
  return calibratePorts(scene, grid, await once(scene, discretise(scene, grid), options), options, once);
}

/** Finite-difference time-domain solver on a graded Cartesian grid. */
export const fdtd: Solver<GridScene, Grid, TimeEstimate, TimeEvidence> = {
  plan: planScene,
  meshView: ({ lines, outerCells }) => ({ grid: { lines, outerCells } }),
  checkOnMesh: portsOnGrid,
  solve,
};
