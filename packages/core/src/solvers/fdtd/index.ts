import type { Solver } from '../solver.ts';
import { checkScene, estimateScene } from './check.ts';
import { scatterScene } from './scatter.ts';
import { solveScene } from './solve.ts';

/** Finite-difference time-domain solver on a graded Cartesian grid. */
export const fdtd: Solver = {
  name: 'fdtd',
  title: 'Time domain',
  check: checkScene,
  estimate: estimateScene,
  solve: (scene, options) => (scene.wave ? scatterScene(scene, scene.wave, options) : solveScene(scene, options)),
};
