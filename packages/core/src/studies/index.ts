// What a study says: how parameters move, and which figures are read from each point.
export * from './measure.ts';
export * from './moves.ts';
export * from './study.ts';
