import type { Axis } from '../numerics/axis.ts';

/** A graded Cartesian grid: node coordinates in metres, absorbing layers included. */
export interface Grid {
  lines: [Float64Array, Float64Array, Float64Array];
  /** Cells outside the region at xMin, xMax, yMin, yMax, zMin, zMax: absorbing layers, or one behind a magnetic or periodic wall. */
  outerCells: number[];
  /** Shortest wavelength in the densest material over the largest cell in it. */
  cellsPerWavelength: number;
  /** Coordinates of faces that are not grid lines and are met by averaging within a cell, per axis. */
  unsnapped: [number[], number[], number[]];
  /**
   * Of strips and gaps that run across no axis: cells across that they have, where those that the accuracy asks for are too many, and cells of the whole grid
   * with these and with the least that there may be across.
   */
  followed?: { across: number; asked: number; cells: number; least: number };
}

/** Number of cells along an axis. */
export const cellsOf = (grid: Grid, axis: Axis): number => grid.lines[axis].length - 1;
/** All cells. */
export const cellCount = (grid: Grid): number => cellsOf(grid, 0) * cellsOf(grid, 1) * cellsOf(grid, 2);

/** Index of the grid line nearest to a coordinate. */
export function nearestLine(lines: Float64Array, at: number): number {
  let best = 0;
  for (let i = 1; i < lines.length; i++) if (Math.abs(lines[i] - at) < Math.abs(lines[best] - at)) best = i;
  return best;
}
