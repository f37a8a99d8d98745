export * from './body.ts';
export * from './kernel.ts';
export * from './model.ts';
export * from './picture.ts';
