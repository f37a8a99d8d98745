export * from './host.ts';
export * from './machine.ts';
