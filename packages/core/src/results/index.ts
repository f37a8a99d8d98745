export { resultOf, type Told } from './assemble.ts';
export * from './derive.ts';
export * from './resultSet.ts';
export type { Complex } from '../numerics/complex.ts';
export * from './container.ts';
export * from './current.ts';
export * from './read.ts';
