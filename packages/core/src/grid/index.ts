export { cellCount, cellsOf, type Grid, nearestLine } from '../yee/index.ts';
export type { AxisLimit, Gridded } from './constraints.ts';
export * from './grid.ts';
export * from './lines.ts';
export * from './wireMarks.ts';
export * from './wireMesh.ts';
