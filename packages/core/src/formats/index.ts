export * from './csv.ts';
export * from './data.ts';
export * from './farField.ts';
export * from './resultFiles.ts';
export * from './touchstone.ts';
export * from './export/models.ts';
export * from './table.ts';
export * from './vtk.ts';
