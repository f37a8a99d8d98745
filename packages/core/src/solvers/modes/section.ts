/**
 * A cross-section on a graded grid, staggered as in the time-domain solver: E along u on edges (i + 1/2, j), along v on
 * (i, j + 1/2), along the guide on nodes (i, j). All arrays have (nu + 1)(nv + 1) values, u fastest; nu, nv are cells.
 */
export interface Section {
  /** Node coordinates, metres. */
  u: Float64Array;
  v: Float64Array;
  /** Relative permittivity of the edges along u, v and along the guide; 0 where there is perfect metal or nothing. Negative ones are allowed. */
  eu: Float64Array;
  ev: Float64Array;
  ew: Float64Array;
  /** Free part of each edge's length and of each cell's area beside curved or slanted metal; absent: all free. */
  lu?: Float64Array;
  lv?: Float64Array;
  area?: Float64Array;
  /** Loss part of the permittivities, e = e' - j e''; absent: none. */
  loss?: { u: Float64Array; v: Float64Array; w: Float64Array };
  /** Relative permeability along u (on edges along v), along v (on edges along u) and along the guide (on cells); absent: 1. */
  mu?: { u: Float64Array; v: Float64Array; w: Float64Array };
  /** Absorbing edges at uMin, uMax, vMin, vMax, inside the grid: thickness in metres, 0 for none, and strength. */
  absorb?: { thickness: [number, number, number, number]; strength: [number, number, number, number] };
  /** Bend: radius in metres, of either sign, at the coordinate `at` of an axis; positive where the centre lies towards smaller coordinates. */
  bend?: { axis: 'u' | 'v'; radius: number; at: number };
}

/** Walls of a section. Magnetic ones leave their edges free: tangential H vanishes there of itself. */
export type Wall = 'electric' | 'magnetic';
/** uMin, uMax, vMin, vMax. */
export type Walls = readonly [Wall, Wall, Wall, Wall];

/** Steps of a section: cells and dual cells (half ones at the ends). */
export interface Steps {
  nu: number;
  nv: number;
  du: Float64Array;
  dv: Float64Array;
  dualU: Float64Array;
  dualV: Float64Array;
}

/** Cells of a section and lengths around its nodes, metres. */
export function stepsOf({ u, v }: Pick<Section, 'u' | 'v'>): Steps {
  const cells = (x: Float64Array): Float64Array => Float64Array.from({ length: x.length - 1 }, (_, i) => x[i + 1] - x[i]);
  const duals = (x: Float64Array): Float64Array => x.map((_, i) => ((i + 1 < x.length ? x[i + 1] : x[i]) - (i > 0 ? x[i - 1] : x[i])) / 2);
  return { nu: u.length - 1, nv: v.length - 1, du: cells(u), dv: cells(v), dualU: duals(u), dualV: duals(v) };
}

/** A section filled with one medium between walls. */
export function emptySection(
  u: Float64Array,
  v: Float64Array,
  permittivity = 1,
  walls: Walls = ['electric', 'electric', 'electric', 'electric'],
): Section {
  const size = u.length * v.length;
  const s: Section = {
    u,
    v,
    eu: new Float64Array(size).fill(permittivity),
    ev: new Float64Array(size).fill(permittivity),
    ew: new Float64Array(size).fill(permittivity),
  };
  closeWalls(s, walls);
  return s;
}

/** Clears the edges that lie in electric walls and those outside the grid. */
export function closeWalls({ u, v, eu, ev, ew }: Section, walls: Walls): void {
  const w = u.length;
  for (let j = 0; j < v.length; j++)
    for (let i = 0; i < w; i++) {
      const n = j * w + i;
      const atU = (i === 0 && walls[0] === 'electric') || (i === w - 1 && walls[1] === 'electric');
      const atV = (j === 0 && walls[2] === 'electric') || (j === v.length - 1 && walls[3] === 'electric');
      if (i === w - 1 || atV) eu[n] = 0;
      if (j === v.length - 1 || atU) ev[n] = 0;
      if (atU || atV) ew[n] = 0;
    }
}
