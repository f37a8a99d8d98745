import type { Grid } from '../../grid/index.ts';
import { conductorsOf } from '../modes/index.ts';
import { type Discrete, isMetal } from './discrete.ts';
import { guideSection } from './guideSection.ts';
import { type GuidePlane, indexOf } from './portPlane.ts';

type Side = 0 | 1 | 2 | 3;
const sides: readonly Side[] = [0, 1, 2, 3];

/** A port's plane with one side moved to another line; sides are uMin, uMax, vMin, vMax. */
function withSide(g: GuidePlane, side: Side, at: number): GuidePlane {
  const out = { ...g, lo: [...g.lo] as [number, number], hi: [...g.hi] as [number, number] };
  (side & 1 ? out.hi : out.lo)[side >> 1] = at;
  return out;
}
const sideOf = (g: GuidePlane, side: Side): number => (side & 1 ? g.hi : g.lo)[side >> 1];

/** The line at which the computed region ends on a port's side. */
function regionEnd(grid: Grid, g: GuidePlane, side: Side): number {
  const a = side < 2 ? g.u : g.v;
  return side & 1 ? grid.lines[a].length - 1 - grid.outerCells[2 * a + 1] : grid.outerCells[2 * a];
}
/** On which sides a port reaches the end of the region. */
export const atRegionEnd = (grid: Grid, g: GuidePlane): boolean[] => sides.map((s) => sideOf(g, s) === regionEnd(grid, g, s));

/** Whether all of a side's rim is metal. */
function closed(d: Discrete, g: GuidePlane, side: Side): boolean {
  const cell = g.into > 0 ? g.plane : g.plane - 1;
  const along = side < 2 ? 1 : 0;
  for (let n = g.lo[along]; n <= g.hi[along]; n++) {
    const at = sideOf(g, side);
    if (!isMetal(d, g.normal, side < 2 ? indexOf(g, cell, at, n) : indexOf(g, cell, n, at))) return false;
  }
  return true;
}

/**
 * The rectangle on which a port's modes are solved where the model goes on behind it: that of the port, and beyond its open sides as far as the computed region
 * reaches, so that the field of an open line may fade where it does. Where another conductor stands beside it, it ends half way there.
 */
export function widened(d: Discrete, port: GuidePlane): GuidePlane {
  const { grid } = d;
  const limit = (side: Side): number => regionEnd(grid, port, side);
  const count = (g: GuidePlane): number => conductorsOf(guideSection(d, g)).count;
  const open = sides.filter((s) => !port.free[s] && sideOf(port, s) !== limit(s) && !closed(d, port, s));
  if (!open.length) return port;
  const conductors = count(port);
  const whole = open.reduce((g, s) => withSide(g, s, limit(s)), port);
  if (count(whole) === conductors) return whole;
  // Side by side, to where the next conductor begins; the first lines that it does not touch are sought by halving.
  return open.reduce((g, s) => {
    let [good, bad] = [sideOf(port, s), limit(s)];
    if (count(withSide(g, s, bad)) === conductors) return withSide(g, s, bad);
    while (Math.abs(bad - good) > 1) {
      const middle = (good + bad) >> 1;
      if (count(withSide(g, s, middle)) === conductors) good = middle;
      else bad = middle;
    }
    return withSide(g, s, (sideOf(port, s) + good) >> 1);
  }, port);
}
