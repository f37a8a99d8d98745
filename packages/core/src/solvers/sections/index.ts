export type { LineFigures, ModeFigures } from './figures.ts';
export { type FilledSection, fillSection } from './fillSection.ts';
export { followers } from './follow.ts';
export { mostSectionCells, sectionCells, sectionGrid, type SectionGrid } from './sectionGrid.ts';
export { checkSection, overlap, prepareSection, type SolvedSection, solveModes } from './solveModes.ts';
export { sectionOfGuide } from './guideSection.ts';
export { type Raster, rasterOf } from './raster.ts';
export { type ConvergencePass, convergeSection, type SweepStep, sweepSection } from './sweep.ts';
export { nodeFields, nodeParts } from './nodeFields.ts';
