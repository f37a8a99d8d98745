export * from './csv.ts';
export * from './resultFiles.ts';
export * from './touchstone.ts';
