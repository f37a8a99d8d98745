// Kinds of ledger lines: one definition each, from which schema, chips, sentence and evaluation follow.
export * from './fresh.ts';
export * from './handles.ts';
export * from './kinds.ts';
export * from './outlines.ts';
export * from './partData.ts';
export * from './recipe.ts';
export * from './shape.ts';
export type { ModelSource } from './source.ts';
