export * from './format.ts';
export * from './names.ts';
export * from './project.ts';
