export * from './chips.ts';
export * from './ports/index.ts';
export * from './problem.ts';
export * from './read.ts';
export * from './recorders/index.ts';
export * from './schema.ts';
export * from './shapes/index.ts';
