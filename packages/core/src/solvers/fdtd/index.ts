import type { ResultSet, TimeEvidence } from '../../results/index.ts';
import type { Scene } from '../../scene/index.ts';
import type { SolveOptions, Solver, TimeEstimate } from '../solver.ts';
import { solveCertain } from './certain.ts';
import type { Simulation } from './simulation.ts';
import { checkScene, estimateScene } from './check.ts';
import { portsOnGrid } from './portsOnGrid.ts';
import { scatterScene } from './scatter.ts';
import { solveScene } from './solve.ts';

const once = (scene: Scene, options: SolveOptions, observe?: (s: Simulation) => void): Promise<ResultSet<TimeEvidence>> =>
  scene.wave ? scatterScene(scene, scene.wave, options, observe) : solveScene(scene, options, observe);

/** Finite-difference time-domain solver on a graded Cartesian grid. */
export const fdtd: Solver<TimeEstimate, TimeEvidence> = {
  name: 'fdtd',
  title: 'Time domain',
  check: checkScene,
  estimate: estimateScene,
  look: portsOnGrid,
  solve: (scene, options) => (scene.accuracy === 'certain' ? solveCertain(scene, options, once) : once(scene, options)),
};
