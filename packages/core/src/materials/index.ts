export * from './library.ts';
