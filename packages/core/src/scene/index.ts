export * from '../ports/index.ts';
export { bandFrequencies } from './band.ts';
export * from './recorders.ts';
export { buildScene } from './build.ts';
export { seenBy, isInhomogeneous } from './onGrid/portFilling.ts';
export * from './sections.ts';
export * from './types.ts';
export { imageSign, type Mirror, type Mirrors } from '../yee/index.ts';
export type { PlacedRecorder } from '../recorders/index.ts';
