export { constantNames, functionNames, reservedNames, unitNameList } from './language.ts';
export * from './format.ts';
export * from './project.ts';
