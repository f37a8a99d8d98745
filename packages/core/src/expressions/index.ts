export { plainNumber } from './amount.ts';
export * from './constant.ts';
export * from './format.ts';
export * from './names.ts';
export * from './project.ts';
export { namesUsed } from './uses.ts';
export * from './nearest.ts';
export * from './reference.ts';
export { ExpressionFault, type Value, valueOf } from './language.ts';
