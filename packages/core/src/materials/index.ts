export * from './library.ts';
export * from './response.ts';
export * from './poles.ts';
