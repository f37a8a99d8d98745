import type { Grid } from '../grid/index.ts';
import type { Axis } from '../numerics/axis.ts';

/** Faces of the grid that curved metal cuts, and those that lend to them. */
export interface CutFaces {
  count: number;
  /** 3, 4, 5: Hx, Hy, Hz; 6 of samples apart, whose number is the first index (split/splits.ts). */
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

/** A face that may lend: its field and index, and its whole area, m^2. */
export interface Lender {
  field: number;
  index: readonly number[];
  whole: number;
}

/** What is asked of the faces that borrow, by their numbers. */
export interface Lending {
  /** Area of the whole face, m^2. */
  whole(f: number): number;
  /** Faces in the same plane across sides that are at least partly free. */
  neighbours(f: number): readonly Lender[];
  /** Tension of the field that the areas hold of, by face; where it is given for two faces of a loan that field stays exact instead of a uniform one. */
  tension?: ArrayLike<number>;
}

/** What is asked of the grid that faces stand on: its lines, the free part of an edge, and whether a node is on it. */
export interface FaceGrid extends Pick<Lending, 'tension'> {
  grid: Grid;
  free(c: Axis, i: number, j: number, k: number): number;
  inside(at: readonly number[]): boolean;
  /** Whether a face is another's, which does not lend. */
  apart?(n: Axis, at: readonly number[]): boolean;
}

/** The neighbours of a face of the grid in its plane across sides that are not all metal. */
function onGrid(cut: Cut, { grid, free, inside, apart, tension }: FaceGrid): Lending {
  const step = (a: number, i: number): number => (i + 1 < grid.lines[a].length ? grid.lines[a][i + 1] - grid.lines[a][i] : 0);
  const areaOf = (n: number, at: readonly number[]): number => step((n + 1) % 3, at[(n + 1) % 3]) * step((n + 2) % 3, at[(n + 2) % 3]);
  const place = (f: number): number[] => cut.index.slice(3 * f, 3 * f + 3);
  return {
    tension,
    whole: (f) => areaOf(cut.field[f] - 3, place(f)),
    neighbours(f) {
      const n = (cut.field[f] - 3) as Axis;
      const at = place(f);
      return ([(n + 1) % 3, (n + 2) % 3] as Axis[]).flatMap((across) =>
        [-1, 1].flatMap((way): Lender[] => {
          const along = (3 - n - across) as Axis;
          const index = shifted(at, across, way);
          if (index[across] < 0 || !inside(index) || !inside(shifted(index, across, 1)) || apart?.(n, index)) return [];
          const side = way < 0 ? at : index;
          return free(along, side[0], side[1], side[2]) === 0 ? [] : [{ field: 3 + n, index, whole: areaOf(n, index) }];
        }),
      );
    },
  };
}

/** `lend` among faces of the grid. */
export const enlargeFaces = (cut: Cut, wanted: ArrayLike<number>, grid: FaceGrid): CutFaces => lend(cut, wanted, onGrid(cut, grid));

/**
 * Lets faces whose area is less than wanted (as a part of the whole) borrow area and voltage from the largest neighbour in their plane, which keeps a uniform field
 * exact and the coupling symmetric (the enlarged cells of Xiao and Liu, IEEE Microwave Wireless Compon. Lett. 14, 551, 2004). Lists of `cut` are added to.
 */
export function lend(cut: Cut, wanted: ArrayLike<number>, { whole, neighbours, tension }: Lending): CutFaces {
  const number = new Map(numbersOf(cut));
  const area = [...cut.area];
  const wholes = Array.from(cut.field, (_, f) => whole(f));
  const lent = new Map<number, number>();
  const loans: { to: number; from: number; ratio: number; area: number }[] = [];
  const tense = (f: number): number => tension?.[f] || NaN;
  const borrows = (f: number): boolean => f < wanted.length && wanted[f] > cut.area[f];
  for (let f = 0; f < wanted.length; f++) {
    if (!borrows(f)) continue;
    const missing = (wanted[f] - cut.area[f]) * wholes[f];
    let best: { lender: Lender; known: number | undefined; spare: number; size: number; steep: number } | null = null;
    for (const lender of neighbours(f)) {
      const known = number.get(faceName(lender.field - 3, lender.index));
      if (known !== undefined && borrows(known)) continue;
      const size = (known === undefined ? 1 : area[known]) * lender.whole;
      const steep = known === undefined ? 1 : tense(f) / tense(known) || 1;
      // What is lent counts by the tensions' ratio, on both sides.
      const spare = (size * (1 - (known === undefined ? 0 : (lent.get(known) ?? 0)))) / (steep * steep);
      if (spare > 2 * missing && (!best || spare > best.spare)) best = { lender, known, spare, size, steep };
    }
    if (!best) {
      // Nobody to lend: the face counts as larger than it is.
      area[f] = wanted[f];
      continue;
    }
    let from = best.known;
    if (from === undefined) {
      from = cut.field.push(best.lender.field) - 1;
      cut.index.push(...best.lender.index);
      cut.metal.push(0);
      cut.wall.push(0);
      area.push(1);
      wholes.push(best.lender.whole);
      number.set(faceName(best.lender.field - 3, best.lender.index), from);
    }
    const ratio = (missing * best.steep) / best.size;
    lent.set(from, (lent.get(from) ?? 0) + ratio * best.steep);
    loans.push({ to: f, from, ratio, area: wanted[f] * wholes[f] });
  }
  const count = cut.field.length;
  const own = Float64Array.from({ length: count }, (_, f) => (1 - (lent.get(f) ?? 0)) / area[f]);
  const links: [number, number][][] = Array.from({ length: count }, () => []);
  for (const { to, from, ratio, area: enlarged } of loans) {
    own[to] = wholes[to] / enlarged;
    own[from] += (ratio * ratio * wholes[from]) / enlarged;
    links[to].push([from, (ratio * wholes[from]) / enlarged]);
    links[from].push([to, (ratio * wholes[to]) / enlarged]);
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
