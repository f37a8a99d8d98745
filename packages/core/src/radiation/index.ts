export * from './cuts.ts';
export * from './figures.ts';
export * from './frame.ts';
export * from './nearToFar.ts';
export * from './phaseCentre.ts';
export * from './polarisation.ts';
export * from './quadrature.ts';
export * from './sampler.ts';
