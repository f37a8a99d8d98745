import type { ResultSet, TimeEvidence } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import type { Discrete } from './discrete.ts';
import type { Simulation } from './simulation.ts';

/** Solves a scene once, as it is: what stages above the solver (passes, calibration of ports) are given. `observe` sees the fields, `given` is the discrete model where it is known. */
export type SolveOnce = (
  scene: GridScene,
  options: SolveOptions,
  observe?: (s: Simulation) => void,
  given?: Discrete,
) => Promise<ResultSet<TimeEvidence>>;
