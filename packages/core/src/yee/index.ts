// The staggered grid of Yee: its lines, where samples of each field stand, sums that are kept of them, and images behind planes of symmetry.
export * from './grid.ts';
export * from './mirror.ts';
export * from './regions.ts';
export * from './volume.ts';
