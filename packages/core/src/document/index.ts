// The project document: its schema, how it is read, renamed and compared, and all that it is made of.
export * from '../entries/index.ts';
export * from '../shapes/index.ts';
export * from '../cards/index.ts';
export * from '../studies/index.ts';
export * from './changes.ts';
export { digester, solvedDigest } from './digest.ts';
export { type Port, portChips, portKind, portKinds, portSchema, portSentence } from '../ports/index.ts';
export { currentDocument } from './migrate.ts';
export { type Combination, combinationSchema, lensSchema } from './lens.ts';
export * from './read.ts';
export {
  atFrequencies,
  ownFrequencies,
  type Recorder,
  recorderChips,
  recorderKind,
  recorderKinds,
  recorderSchema,
  recorderSentence,
} from '../recorders/index.ts';
export * from './rename.ts';
export * from './schema.ts';
export * from './sections/index.ts';
export * from './variants.ts';
export { parametersUsed, usedByLine } from './uses.ts';
