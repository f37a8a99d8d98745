import { type Grid, nearestLine } from '../../grid/index.ts';
import type { GridScene, SceneGuide } from '../../scene/index.ts';
import type { Axis } from '../../numerics/axis.ts';

/** A guided port on the grid: its plane, its rectangle of nodes, and the two axes across, in cyclic order after the normal. */
export interface GuidePlane {
  normal: Axis;
  u: Axis;
  v: Axis;
  into: 1 | -1;
  /** Node index of the plane. */
  plane: number;
  lo: [number, number];
  hi: [number, number];
  /** Whether the rim at uMin, uMax, vMin, vMax is a magnetic wall of the region, on which the port's edges are free; elsewhere it counts as metal. */
  free: [boolean, boolean, boolean, boolean];
}

/** The plane of a guided port on a grid: its nodes, and which of its sides are magnetic walls. */
export function guidePlane(guide: SceneGuide, { lines, outerCells }: Grid, boundaries: GridScene['boundaries']): GuidePlane {
  const { normal, into } = guide;
  const [u, v] = [(normal + 1) % 3, (normal + 2) % 3] as [Axis, Axis];
  const near = (a: Axis, x: number): number => nearestLine(lines[a], x);
  const lo: [number, number] = [near(u, guide.min[u]), near(v, guide.min[v])];
  const hi: [number, number] = [near(u, guide.max[u]), near(v, guide.max[v])];
  const magnetic = (a: Axis, side: 0 | 1, i: number): boolean =>
    boundaries[2 * a + side] === 'magnetic' && i === (side ? lines[a].length - 1 - outerCells[2 * a + 1] : outerCells[2 * a]);
  const free: GuidePlane['free'] = [magnetic(u, 0, lo[0]), magnetic(u, 1, hi[0]), magnetic(v, 0, lo[1]), magnetic(v, 1, hi[1])];
  return { normal, u, v, into, plane: near(normal, guide.min[normal]), lo, hi, free };
}

/** Whether a node of the port's rectangle is off its metal rim, along u and along v; counted from the rectangle's corner. */
export const offRim = (g: GuidePlane, i: number, j: number): [boolean, boolean] => [
  (i > 0 || g.free[0]) && (i < g.hi[0] - g.lo[0] || g.free[1]),
  (j > 0 || g.free[2]) && (j < g.hi[1] - g.lo[1] || g.free[3]),
];

export type Index = [number, number, number];

/** Indices of a place (i, j) of a port’s plane at node n along its normal. */
export const indexOf = (g: GuidePlane, n: number, i: number, j: number): Index => {
  const at: Index = [0, 0, 0];
  at[g.normal] = n;
  at[g.u] = i;
  at[g.v] = j;
  return at;
};

/**
 * Tangential edges of the port's plane inside its rectangle: the port sets them. Edges of the plane behind, and between: metal; of the plane itself those of the
 * rim, of which the guide knows nothing.
 */
export function guideEdges(g: GuidePlane, grid: Grid): Record<'held' | 'backed' | 'rim', { c: Axis; at: Index }[]> {
  const held: { c: Axis; at: Index }[] = [];
  const backed: { c: Axis; at: Index }[] = [];
  const rim: { c: Axis; at: Index }[] = [];
  const behind = g.plane - g.into;
  const room = behind >= 0 && behind < grid.lines[g.normal].length;
  for (let j = g.lo[1]; j <= g.hi[1]; j++)
    for (let i = g.lo[0]; i <= g.hi[0]; i++) {
      const [offU, offV] = offRim(g, i - g.lo[0], j - g.lo[1]);
      if (i < g.hi[0]) (offV ? held : rim).push({ c: g.u, at: indexOf(g, g.plane, i, j) });
      if (j < g.hi[1]) (offU ? held : rim).push({ c: g.v, at: indexOf(g, g.plane, i, j) });
      if (!room) continue;
      if (i < g.hi[0]) backed.push({ c: g.u, at: indexOf(g, behind, i, j) });
      if (j < g.hi[1]) backed.push({ c: g.v, at: indexOf(g, behind, i, j) });
      backed.push({ c: g.normal, at: indexOf(g, Math.min(behind, g.plane), i, j) });
    }
  backed.push(...behindWalls(g, g.plane), ...(room ? behindWalls(g, behind) : []));
  return { held, backed, rim };
}

/**
 * Edges of a plane across its magnetic sides, in the cells behind them. Nothing looks at them, but where their images are held, or metal, they would take up what
 * current flows there, step by step, and count in the energy.
 */
function behindWalls(g: GuidePlane, plane: number): { c: Axis; at: Index }[] {
  const out: { c: Axis; at: Index }[] = [];
  for (const side of [0, 1] as const) {
    if (g.free[side]) for (let j = g.lo[1]; j <= g.hi[1]; j++) out.push({ c: g.u, at: indexOf(g, plane, side ? g.hi[0] : g.lo[0] - 1, j) });
    if (g.free[2 + side]) for (let i = g.lo[0]; i <= g.hi[0]; i++) out.push({ c: g.v, at: indexOf(g, plane, i, side ? g.hi[1] : g.lo[1] - 1) });
  }
  return out;
}
