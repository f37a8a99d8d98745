export { lineDepth, type PortLine, portLine } from './portLine.ts';
export * from './ports.ts';
export * from './recorders.ts';
export * from './scene.ts';
export * from './guides.ts';
export { seesSeveral } from './mixedGuides.ts';
export * from './sections.ts';
export * from './waves.ts';
export { imageSign, type Mirror, type Mirrors } from './symmetry.ts';
