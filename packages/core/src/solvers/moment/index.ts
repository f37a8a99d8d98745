import type { WiresScene } from '../../scene/index.ts';
import type { WireEvidence } from '../../results/index.ts';
import type { Solver, WireEstimate } from '../solver.ts';
import { solveCertain } from './certain.ts';
import { checkScene, estimateScene } from './check.ts';
import { solveScene } from './solve.ts';

export { meshOf } from './solve.ts';

/** Integral equation on thin wires, by the method of moments. */
export const moment: Solver<WiresScene, WireEstimate, WireEvidence> = {
  name: 'moment',
  title: 'Wires',
  check: checkScene,
  estimate: estimateScene,
  solve: (scene, options) => (scene.accuracy === 'certain' ? solveCertain(scene, options, solveScene) : solveScene(scene, options)),
};
