import { fdtd } from './fdtd/index.ts';
import type { Solver } from './solver.ts';

export * from './solver.ts';

/** All solvers by name. A new one is a folder and a line here. */
export const solvers: Readonly<Record<string, Solver>> = { fdtd };
