export * from './ports.ts';
export * from './scene.ts';
