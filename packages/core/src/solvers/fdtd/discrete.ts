import type { Problem } from '../../document/index.ts';
import type { Grid } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { Branches } from './branches.ts';
import { CutCells } from './cutCells.ts';
import type { PortEdge } from './portEdges.ts';
import type { MediumClass } from './dispersion.ts';
import type { Mixing } from './subpixel.ts';
import type { GuidePlane } from './portPlane.ts';
import type { Axis } from '../../numerics/axis.ts';

/** A row of electric edges in media with memory. */
export interface MediumRow {
  component: Axis;
  j: number;
  k: number;
  /** First x index; from there the class of each edge, 0 for none, and its free part where curved metal cuts it. */
  first: number;
  classes: Uint16Array;
  free: Float32Array | null;
  /** Edges that remember nothing of their medium, as a port or a lossy sheet lies on them: they have its conductivity at the band's centre. */
  level: Set<number> | null;
}

/** The discrete model: grid, time step, and update coefficients as a dictionary of rows. */
export interface Discrete {
  grid: Grid;
  dt: number;
  /** Centre of the band, Hz. */
  centre: number;
  /** Row length in floats. */
  sx: number;
  /** Distinct coefficient rows, one after another: ca then cb, each of sx floats. */
  dictionary: Float32Array;
  /** [k][component][j]: 0 wall, 1 vacuum, otherwise 2 + number of the dictionary row. */
  rowOf: Uint32Array;
  ports: PortEdge[][];
  /** Media with memory: what the classes in `mediumRows` mean, from 1. */
  classes: readonly MediumClass[];
  mediumRows: Map<string, MediumRow>;
  /** Guided ports, in the order of the scene. */
  guides: GuidePlane[];
  /** Relative permittivity, real part, of an electric edge at a frequency in hertz, else at the band's centre; 0 in metal, walls and lossy sheets. */
  permittivity(c: Axis, index: readonly number[], frequency?: number): number;
  /** Cells that curved metal cuts, if there is any. */
  cuts: CutCells | null;
  /** Edges at curved dielectric surfaces whose changes mix. */
  mixing: Mixing | null;
  /** Losses of metal. */
  branches: Branches;
  /** Marks of edges in lossy sheets, by row: 'component j k'. */
  sheetRows: Map<string, Uint16Array>;
  problems: Problem[];
}

/** Whether an edge is metal (or a wall) in the discrete model. */
export function isMetal(d: Discrete, c: Axis, [i, j, k]: readonly number[]): boolean {
  const [nx, ny, nz] = d.grid.lines.map((x) => x.length - 1);
  if (i < 0 || j < 0 || k < 0 || i > nx || j > ny || k > nz) return false;
  if (k === nz) return c !== 2;
  const row = d.rowOf[(k * 3 + c) * (ny + 1) + j];
  if (row === 0) return true;
  if (c !== 0 && (i === 0 || i === nx)) return true;
  if (row === 1 || i === nx) return false;
  const at = (row - 2) * 2 * d.sx + i;
  if (d.sheetRows.get(key(c, j, k))?.[i]) return true;
  return d.dictionary[at] === 0 && d.dictionary[at + d.sx] === 0;
}

/** Coefficients ca and cb of an edge that is neither wall nor metal. */
export function coefficients(d: Discrete, c: Axis, [i, j, k]: ArrayLike<number> & Iterable<number>): [number, number] {
  const row = d.rowOf[(k * 3 + c) * d.grid.lines[1].length + j];
  if (row === 1) return [1, c0 * d.dt];
  const at = (row - 2) * 2 * d.sx + i;
  return [d.dictionary[at], d.dictionary[at + d.sx]];
}

/** Medium with memory that an edge lies in, as the stepping has it; null for none. */
export function mediumOf(d: Discrete, c: Axis, [i, j, k]: readonly number[]): MediumClass | null {
  const row = d.mediumRows.get(key(c, j, k));
  const kind = row && !row.level?.has(i) ? (row.classes[i - row.first] ?? 0) : 0;
  return kind ? d.classes[kind - 1] : null;
}

/** Name of a row of edges. */
export const key = (c: number, j: number, k: number): string => `${c} ${j} ${k}`;
