import type { Problem } from '../../document/index.ts';
import type { Grid } from '../../grid/index.ts';
import { modelAt } from '../../materials/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { Annex } from './annex.ts';
import type { Branches } from './branches.ts';
import type { Cuts } from '../../discretisation/cuts.ts';
import type { SplitEdge } from '../../discretisation/split/types.ts';
import type { PortEdge } from './portEdges.ts';
import type { MediumClass } from './dispersion.ts';
import type { Mixing } from '../../discretisation/subpixel.ts';
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

/** An edge that the sweep leaves as it is, as sheets across no axis split it or a face beside it: update coefficients of the whole edge, E = ca E + cb curl H'. */
export interface HeldEdge {
  edge: SplitEdge;
  ca: number;
  cb: number;
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
  /**
   * What the edges of these rows lie in: distinct rows of sx relative permittivities at the band's centre, 0 of metal and lossy sheets, infinite of edges that a
   * port holds; and [k][component][j] the number of each, of no meaning where `rowOf` is 0 or 1.
   */
  media: Float32Array;
  mediaOf: Uint32Array;
  ports: PortEdge[][];
  /** Media with memory: what the classes in `mediumRows` mean, from 1. */
  classes: readonly MediumClass[];
  mediumRows: Map<string, MediumRow>;
  /** Guided ports, in the order of the scene. */
  guides: GuidePlane[];
  /** Where their guides go on in cells of their own; null where they do not. */
  annexes: (Annex | null)[];
  /** Cells that curved metal cuts, if there is any. */
  cuts: Cuts | null;
  splitEdges: HeldEdge[];
  /** Edges at curved dielectric surfaces whose changes mix. */
  mixing: Mixing | null;
  /** Losses of metal. */
  branches: Branches;
  problems: Problem[];
  /** The same with another step, seconds. */
  withStep(dt: number): Discrete;
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
  return d.media[d.mediaOf[(k * 3 + c) * (ny + 1) + j] * d.sx + i] === 0;
}

/** Relative permittivity, real part, of an electric edge at a frequency in hertz, else at the band's centre: 0 in metal, walls and lossy sheets, infinite where a port holds it. */
export function permittivityOf(d: Discrete, c: Axis, at: readonly number[], frequency = d.centre): number {
  if (isMetal(d, c, at)) return 0;
  const medium = mediumOf(d, c, at);
  if (medium) return modelAt(medium.model, 2 * Math.PI * frequency).re;
  const slot = (at[2] * 3 + c) * d.grid.lines[1].length + at[1];
  return d.rowOf[slot] === 1 ? 1 : d.media[d.mediaOf[slot] * d.sx + at[0]];
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
