import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { type Cut, type CutFaces, faceName, lend, type Lender, shifted } from '../enlarge.ts';
import { apart, type SplitFace, type SplitPart, type Splits } from './splits.ts';

/** A part of a face, or a whole one that metal leaves a part of. */
type Entry = Omit<SplitPart, 'sample'> & Pick<SplitFace, 'normal' | 'at'>;

/** Parts of faces that sheets split, as faces that metal cuts: those too small for the time step borrow from a neighbour on their own side. `taken` are faces of which others decide. */
export function facesOfSplits(splits: Splits, grid: Grid, taken: (n: Axis, at: readonly number[]) => boolean): CutFaces {
  const cut: Cut = { field: [], index: [], area: [], metal: [], wall: [] };
  const entries: Entry[] = [];
  const add = (field: number, index: readonly number[], entry: Entry): void => {
    cut.field.push(field);
    cut.index.push(...index);
    cut.area.push(entry.area);
    cut.metal.push(0);
    cut.wall.push(0);
    entries.push(entry);
  };
  for (const { normal, at, parts } of splits.faces) for (const p of parts) add(apart, [p.sample, 0, 0], { normal, at, ...p });
  for (const one of splits.cut) add(3 + one.normal, one.at, one);
  const whole = (n: Axis, at: readonly number[]): number =>
    [(n + 1) % 3, (n + 2) % 3].reduce((size, a) => size * (grid.lines[a][at[a] + 1] - grid.lines[a][at[a]]), 1);
  const inside = (n: Axis, at: readonly number[]): boolean => at.every((x, a) => x >= 0 && x + (a === n ? 0 : 1) < grid.lines[a].length);
  return lend(
    cut,
    entries.map((e) => e.wanted),
    {
      whole: (f) => whole(entries[f].normal, entries[f].at),
      neighbours(f) {
        const { normal, at, sides } = entries[f];
        return sides.flatMap(({ edge, part, along }): Lender[] => {
          const across = ((normal + 1 + along) % 3) as Axis;
          const place = shifted(at, across, edge.at[across] === at[across] ? -1 : 1);
          if (!inside(normal, place) || splits.behindFace(normal, place)) return [];
          const other = splits.partBeside(normal, place, edge, part);
          if (other) return [{ field: apart, index: [other.sample, 0, 0], whole: whole(normal, place) }];
          if (splits.faceAt(normal, place) || (taken(normal, place) && !splits.cut.some((c) => faceName(c.normal, c.at) === faceName(normal, place))))
            return [];
          return [{ field: 3 + normal, index: place, whole: whole(normal, place) }];
        });
      },
    },
  );
}
