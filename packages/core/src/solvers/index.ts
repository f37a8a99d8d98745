export { type Checked, checkProject } from './checkProject.ts';
export { meshOf } from './moment/index.ts';
export { solverOf, solvers } from './registry.ts';
export * from './solver.ts';
