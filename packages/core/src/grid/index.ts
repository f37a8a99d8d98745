export * from './grid.ts';
export * from './lines.ts';
export * from './wireMarks.ts';
export * from './wireMesh.ts';
