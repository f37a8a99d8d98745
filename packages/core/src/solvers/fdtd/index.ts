import type { ResultSet, TimeEvidence } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions, Solver, TimeEstimate } from '../solver.ts';
import { buildGrid } from '../../grid/index.ts';
import { calibratePorts } from './calibrate.ts';
import { solveCertain } from './certain.ts';
import type { SolveOnce } from './solveOnce.ts';
import { checkScene, estimateScene } from './check.ts';
import { portsOnGrid } from './portsOnGrid.ts';
import { scatterScene } from './scatter.ts';
import { solveScene } from './solve.ts';

const once: SolveOnce = (scene, options, observe, given) =>
  scene.wave ? scatterScene(scene, scene.wave, options, observe) : solveScene(scene, options, observe, given);

/** The stages of a run: once, or in passes on finer grids; then the calibration of ports on the grid of what was solved. */
async function solve(scene: GridScene, options: SolveOptions): Promise<ResultSet<TimeEvidence>> {
  const last = scene.accuracy === 'certain' ? await solveCertain(scene, options, once) : { scene, result: await once(scene, options) };
  return calibratePorts(last.scene, () => buildGrid(last.scene), last.result, options, once);
}

/** Finite-difference time-domain solver on a graded Cartesian grid. */
export const fdtd: Solver<GridScene, TimeEstimate, TimeEvidence> = {
  name: 'fdtd',
  title: 'Time domain',
  check: checkScene,
  estimate: estimateScene,
  look: portsOnGrid,
  solve,
};
