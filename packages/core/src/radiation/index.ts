export * from './figures.ts';
export * from './nearToFar.ts';
export * from './quadrature.ts';
