// What an entry of a project is made of: expressions, names, references, materials, and the findings that point at them.
export * from './accepts.ts';
export * from './chips.ts';
export * from './conductor.ts';
export * from './fields.ts';
export * from './parameter.ts';
export * from './material.ts';
export * from './part.ts';
export * from './problem.ts';
export * from './walk.ts';
