export type { LineFigures, ModeFigures } from './figures.ts';
export { type FilledSection, fillSection } from './fillSection.ts';
export { followers } from './follow.ts';
export { mostSectionCells, sectionCells, sectionGrid, type SectionGrid } from './sectionGrid.ts';
export { checkSection, overlap, prepareSection, type SolvedSection, solveModes } from './solveModes.ts';
