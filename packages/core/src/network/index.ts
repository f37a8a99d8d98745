export * from './lines.ts';
export * from './matrices.ts';
export * from './renormalise.ts';
export * from './smith.ts';
export * from './types.ts';
export * from './deembed.ts';
