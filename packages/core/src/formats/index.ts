export * from './csv.ts';
export * from './resultFiles.ts';
export * from './touchstone.ts';
export * from './export/models.ts';
export * from './table.ts';
