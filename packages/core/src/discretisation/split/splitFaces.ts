import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { type Cut, type CutFaces, faceName, lend, type Lender, shifted } from '../enlarge.ts';
import type { Splits } from './splits.ts';
import { apart, type CutFace } from './types.ts';

/**
 * Parts of faces that sheets split, as faces that metal cuts: those too small for the time step borrow from a neighbour on their own side. `taken` are faces of which
 * others decide. Where nobody lends, a part counts as larger than it is, which it is told.
 */
export function facesOfSplits(splits: Splits, grid: Grid, taken: (n: Axis, at: readonly number[]) => boolean): CutFaces {
  const cut: Cut = { field: [], index: [], area: [], metal: [], wall: [] };
  const entries: CutFace[] = [];
  const own = new Set(splits.cut.map((c) => faceName(c.normal, c.at)));
  const add = (field: number, index: readonly number[], entry: CutFace): void => {
    cut.field.push(field);
    cut.index.push(...index);
    cut.area.push(entry.part.area);
    cut.metal.push(0);
    cut.wall.push(0);
    entries.push(entry);
  };
  for (const { normal, at, parts } of splits.faces) for (const part of parts) add(apart, [part.sample, 0, 0], { normal, at, part });
  for (const one of splits.cut) add(3 + one.normal, one.at, one);
  const whole = (n: Axis, at: readonly number[]): number =>
    [(n + 1) % 3, (n + 2) % 3].reduce((size, a) => size * (grid.lines[a][at[a] + 1] - grid.lines[a][at[a]]), 1);
  const inside = (n: Axis, at: readonly number[]): boolean => at.every((x, a) => x >= 0 && x + (a === n ? 0 : 1) < grid.lines[a].length);
  /** The faces beside a part in its plane, across the free parts of its sides. */
  const neighbours = (f: number): Lender[] => {
    const { normal, at, part } = entries[f];
    return part.sides.flatMap(({ edge, part: n, along }): Lender[] => {
      const across = ((normal + 1 + along) % 3) as Axis;
      const place = shifted(at, across, edge.at[across] === at[across] ? -1 : 1);
      if (!inside(normal, place) || splits.behindFace(normal, place)) return [];
      const other = splits.partBeside(normal, place, edge, n);
      if (other) return [{ field: apart, index: [other.sample, 0, 0], whole: whole(normal, place) }];
      const others = splits.faceAt(normal, place) || (taken(normal, place) && !own.has(faceName(normal, place)));
      return others ? [] : [{ field: 3 + normal, index: place, whole: whole(normal, place) }];
    });
  };
  const faces = lend(
    cut,
    entries.map((e) => e.part.wanted),
    { whole: (f) => whole(entries[f].normal, entries[f].at), neighbours },
  );
  entries.forEach(({ part }, f) => (part.counts = faces.area[f]));
  return faces;
}
