// What a study says: how parameters move, and which figures are read from each point.
export * from './cards.ts';
export * from './measure.ts';
export * from './moves.ts';
export * from './search.ts';
export * from './settings.ts';
export * from './study.ts';
export * from './variant.ts';
