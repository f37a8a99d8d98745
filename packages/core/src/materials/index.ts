export * from './library.ts';
export * from './response.ts';
