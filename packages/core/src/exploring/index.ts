// How designs are explored: the points of studies, and the figures that are read from each.
export * from './cost.ts';
export * from './formulas.ts';
export * from './goals.ts';
export * from './measures.ts';
export * from './meshes.ts';
export * from './points.ts';
export * from './searches.ts';
export * from './tolerances.ts';
