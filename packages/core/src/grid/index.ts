export * from './grid.ts';
export * from './lines.ts';
