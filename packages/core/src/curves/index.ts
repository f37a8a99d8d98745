export * from './decimate.ts';
export * from './formula.ts';
export * from './markers.ts';
export * from './spectrum.ts';
