export { productKernel } from './products.ts';
export { type Checked, checkProject } from './checkProject.ts';
export { solverOf, solvers } from './registry.ts';
export * from './solver.ts';
