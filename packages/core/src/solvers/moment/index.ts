import type { WiresScene } from '../../scene/index.ts';
import type { Solver } from '../solver.ts';
import { solveAdaptive } from './adaptive.ts';
import { planScene } from './check.ts';
import { meshNodes, type WireMesh } from '../../grid/index.ts';
import { solveScene } from './solve.ts';
import type { WireEvidence, WireEstimate } from '../../methods/index.ts';

/** Integral equation on thin wires, by the method of moments. */
export const moment: Solver<WiresScene, WireMesh, WireEstimate, WireEvidence> = {
  plan: planScene,
  meshView: (mesh) => ({ nodes: meshNodes(mesh) }),
  solve: (scene, options) => (scene.accuracy === 'adaptive' ? solveAdaptive(scene, options, solveScene) : solveScene(scene, options)),
};
