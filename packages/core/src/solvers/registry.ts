import { fdtd } from './fdtd/index.ts';
import { moment } from './moment/index.ts';
import type { Scene } from '../scene/index.ts';
import type { Solver } from './solver.ts';

/** All solvers by name. A new one is a folder and a line here. */
export const solvers = { fdtd, moment } satisfies Readonly<Record<string, Solver>>;

/** The solver that a scene was made for. */
export const solverOf = ({ solver }: Pick<Scene, 'solver'>): Solver => solvers[solver];
