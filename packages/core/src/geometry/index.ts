export * from './body.ts';
export { either, exactBounds, insideLoops, loopCrossings, spansAlong, without, type Exact } from './exact.ts';
export type { Fold } from './fold.ts';
export { foldedBodies, mirrorOf } from './folded.ts';
export * from './kernel.ts';
export * from './model.ts';
export * from './outlinesOfModel.ts';
export * from './picture.ts';
export type { Face, Surface } from './surface.ts';
