export { denseKernel } from './kernel.ts';
export { modeOperator, shifted, unknownsOf } from './operator.ts';
export { conductorsOf, uniformPermittivity } from './homogeneous.ts';
export type { Transverse } from './operator.ts';
export * from './guided.ts';
export * from './root.ts';
export * from './section.ts';
export * from './solveSection.ts';
export { absorberStrength } from './stretch.ts';
