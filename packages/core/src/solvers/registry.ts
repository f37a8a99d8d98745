import type { SolverName } from '../methods/index.ts';
import type { Scene, SceneOf } from '../scene/index.ts';
import { fdtd } from './fdtd/index.ts';
import { moment } from './moment/index.ts';
import type { Solver } from './solver.ts';

/** The solver of every method. A new one is a folder and a line here. */
export const solvers = { fdtd, moment } satisfies { readonly [N in SolverName]: Solver<SceneOf<N>> };

/** The solver that a scene was made for. */
export const solverOf = ({ solver }: Pick<Scene, 'solver'>): Solver => solvers[solver];
