import type { ResultSet } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import type { Discrete } from './discrete.ts';
import type { Simulation } from './simulation.ts';
import type { TimeEvidence } from '../../methods/index.ts';

/** Solves a discrete model of a scene once: what stages above the solver (passes, calibration of ports) are given. `observe` sees the fields. */
export type SolveOnce = (
  scene: GridScene,
  discrete: Discrete,
  options: SolveOptions,
  observe?: (s: Simulation) => void,
) => Promise<ResultSet<TimeEvidence>>;
