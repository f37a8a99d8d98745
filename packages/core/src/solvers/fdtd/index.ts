import type { Solver } from '../solver.ts';
import { checkScene, estimateScene } from './check.ts';
import { solveScene } from './solve.ts';

/** Finite-difference time-domain solver on a graded Cartesian grid. */
export const fdtd: Solver = {
  name: 'fdtd',
  title: 'Time domain',
  check: checkScene,
  estimate: estimateScene,
  solve: solveScene,
};
