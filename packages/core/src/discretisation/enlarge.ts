import type { Grid } from '../grid/index.ts';
import type { Axis } from '../numerics/axis.ts';

/** Faces of the grid that curved metal cuts, and those that lend to them. */
export interface CutFaces {
  count: number;
  /** 3, 4, 5: Hx, Hy, Hz. */
  field: Uint8Array;
  /** Grid indices, three a face. */
  index: Int32Array;
  /** Free part of the face's area. */
  area: Float64Array;
  /** 1 + class of the metal that bounds it, and the length of metal in it, metres. */
  metal: Uint16Array;
  wall: Float64Array;
  /**
   * What the change of H in a face is made of, with the changes that whole, unlinked faces would have: `own` times its own,
   * and links to others, those of face n from link start[n] to start[n + 1].
   */
  own: Float64Array;
  start: Int32Array;
  other: Int32Array;
  factor: Float64Array;
}

/** Cut faces as they are found. */
export type Cut = Record<'field' | 'index' | 'area' | 'metal' | 'wall', number[]>;

/** Indices with one of them changed. */
export const shifted = (at: readonly number[], axis: number, by: number): number[] => at.map((x, a) => (a === axis ? x + by : x));
/** Name of a face by its normal and place. */
export const faceName = (n: number, at: readonly number[]): string => `${n} ${at[0]} ${at[1]} ${at[2]}`;
/** Number of each face in a list, by its name. */
export const numbersOf = ({ field, index }: { field: ArrayLike<number>; index: ArrayLike<number> }): ReadonlyMap<string, number> =>
  new Map(Array.from(field, (f, n) => [faceName(f - 3, [index[3 * n], index[3 * n + 1], index[3 * n + 2]]), n]));

/** What is asked of the grid that faces stand on: its lines, the free part of an edge, and whether a node is on it. */
export interface FaceGrid {
  grid: Grid;
  /** Tension of the field that the areas hold of, by face; where it is given for two faces of a loan that field stays exact instead of a uniform one. */
  tension?: ArrayLike<number>;
  free(c: Axis, i: number, j: number, k: number): number;
  inside(at: readonly number[]): boolean;
  /** Whether a face is another's, which does not lend. */
  apart?(n: Axis, at: readonly number[]): boolean;
}

/**
 * Lets faces whose area is less than wanted (as a part of the whole) borrow area and voltage from the largest neighbour in their plane, which keeps a uniform field
 * exact and the coupling symmetric (the enlarged cells of Xiao and Liu, IEEE Microwave Wireless Compon. Lett. 14, 551, 2004). Lists of `cut` are added to.
 */
export function enlargeFaces(cut: Cut, wanted: ArrayLike<number>, { grid, free, inside, tension, apart }: FaceGrid): CutFaces {
  const steps = grid.lines.map((x) => x.map((_, i) => (i + 1 < x.length ? x[i + 1] - x[i] : 0)));
  const number = new Map(numbersOf(cut));
  const area = [...cut.area];
  const whole = (f: number): number => {
    const n = cut.field[f] - 3;
    const [u, v] = [(n + 1) % 3, (n + 2) % 3];
    return steps[u][cut.index[3 * f + u]] * steps[v][cut.index[3 * f + v]];
  };
  const lent = new Map<number, number>();
  const loans: { to: number; from: number; ratio: number; area: number }[] = [];
  const tense = (f: number): number => tension?.[f] || NaN;
  const borrows = (f: number): boolean => f < wanted.length && wanted[f] > cut.area[f];
  for (let f = 0; f < wanted.length; f++) {
    if (!borrows(f)) continue;
    const n = (cut.field[f] - 3) as Axis;
    const at = cut.index.slice(3 * f, 3 * f + 3);
    const missing = (wanted[f] - cut.area[f]) * whole(f);
    let best: { place: number[]; known: number | undefined; spare: number; size: number; steep: number } | null = null;
    for (const across of [(n + 1) % 3, (n + 2) % 3] as Axis[])
      for (const way of [-1, 1]) {
        const along = (3 - n - across) as Axis;
        const place = shifted(at, across, way);
        if (place[across] < 0 || !inside(place) || !inside(shifted(place, across, 1)) || apart?.(n, place)) continue;
        // Only across a side that is at least partly free.
        const side = way < 0 ? at : place;
        if (free(along, side[0], side[1], side[2]) === 0) continue;
        const known = number.get(faceName(n, place));
        if (known !== undefined && borrows(known)) continue;
        const size = (known === undefined ? 1 : area[known]) * steps[across][place[across]] * steps[along][place[along]];
        const steep = known === undefined ? 1 : tense(f) / tense(known) || 1;
        // What is lent counts by the tensions' ratio, on both sides.
        const spare = (size * (1 - (known === undefined ? 0 : (lent.get(known) ?? 0)))) / (steep * steep);
        if (spare > 2 * missing && (!best || spare > best.spare)) best = { place, known, spare, size, steep };
      }
    if (!best) {
      // Nobody to lend: the face counts as larger than it is.
      area[f] = wanted[f];
      continue;
    }
    let from = best.known;
    if (from === undefined) {
      from = cut.field.push(3 + n) - 1;
      cut.index.push(...best.place);
      cut.metal.push(0);
      cut.wall.push(0);
      area.push(1);
      number.set(faceName(n, best.place), from);
    }
    const ratio = (missing * best.steep) / best.size;
    lent.set(from, (lent.get(from) ?? 0) + ratio * best.steep);
    loans.push({ to: f, from, ratio, area: wanted[f] * whole(f) });
  }
  const count = cut.field.length;
  const own = Float64Array.from({ length: count }, (_, f) => (1 - (lent.get(f) ?? 0)) / area[f]);
  const links: [number, number][][] = Array.from({ length: count }, () => []);
  for (const { to, from, ratio, area: enlarged } of loans) {
    own[to] = whole(to) / enlarged;
    own[from] += (ratio * ratio * whole(from)) / enlarged;
    links[to].push([from, (ratio * whole(from)) / enlarged]);
    links[from].push([to, (ratio * whole(to)) / enlarged]);
  }
  const start = new Int32Array(count + 1);
  links.forEach((l, f) => (start[f + 1] = start[f] + l.length));
  const flat = links.flat();
  return {
    count,
    field: Uint8Array.from(cut.field),
    index: Int32Array.from(cut.index),
    area: Float64Array.from(area),
    metal: Uint16Array.from(cut.metal),
    wall: Float64Array.from(cut.wall),
    own,
    start,
    other: Int32Array.from(flat, (l) => l[0]),
    factor: Float64Array.from(flat, (l) => l[1]),
  };
}
