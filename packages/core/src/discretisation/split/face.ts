import type { Point2 } from '../../document/index.ts';

/** A stretch of a face's outline that is metal: from and to along it, 0..4, the sides in turn and counter-clockwise; it may reach over the end, as 3.8 to 4.1. */
export interface MetalStretch {
  from: number;
  to: number;
}

/** A free part of a face. */
export interface FacePart {
  /** Stretches of the outline that bound it, in turn, as of `MetalStretch`. */
  free: { from: number; to: number }[];
  /** Its area as a part of the face's. */
  area: number;
  /** Metal that bounds it within the face: from the end of one stretch of metal to the start of another, by their numbers, and its length in the units of the sides. */
  walls: { from: number; to: number; length: number }[];
}

/** Place of the outline's parameter in the unit square. */
export function placeOf(t: number): Point2 {
  const side = Math.floor(t) % 4;
  const f = t - Math.floor(t);
  return side === 0 ? [f, 0] : side === 1 ? [1, f] : side === 2 ? [1 - f, 1] : [0, 1 - f];
}

/** Free parts shorter than this are none. */
const nothing = 1e-9;

/**
 * Whether two stretches of free outline belong to one part, where it is known which stretches of metal hang together inside the face: where none that do lie on both
 * sides between them. Free stretch i lies behind metal i.
 */
export const sameWith =
  (group: readonly number[]) =>
  (i: number, j: number): boolean => {
    const n = group.length;
    // Metal from i + 1 to j lies on one side, that from j + 1 to i on the other.
    const one = new Set<number>();
    for (let m = (i + 1) % n; ; m = (m + 1) % n) {
      one.add(group[m]);
      if (m === j) break;
    }
    for (let m = (j + 1) % n; ; m = (m + 1) % n) {
      if (one.has(group[m])) return false;
      if (m === i) return true;
    }
  };

/**
 * Parts of a rectangular face that metal leaves. `metal` are stretches of its outline in turn without overlap, `same` tells whether the free stretches behind two of
 * them belong to one part; `sides` are the lengths of the lower side and of that to its right. Inside the face metal runs straight, by way of the points (in the
 * unit square) that `way` gives for two stretches of metal.
 */
export function partsOfFace(
  metal: readonly MetalStretch[],
  same: (i: number, j: number) => boolean,
  sides: readonly [number, number],
  way: (i: number, j: number) => readonly Point2[] = () => [],
): FacePart[] {
  const n = metal.length;
  if (n === 0) return [{ free: [{ from: 0, to: 4 }], area: 1, walls: [] }];
  // Free stretch i lies behind metal i.
  const free = metal.map((m, i) => ({ from: m.to, to: metal[(i + 1) % n].from + (i + 1 === n ? 4 : 0) }));
  const open = free.map((_, i) => i).filter((i) => free[i].to - free[i].from > nothing);
  const parts: number[][] = [];
  for (const i of open) {
    const home = parts.find((p) => same(p[0], i));
    if (home) home.push(i);
    else parts.push([i]);
  }
  return parts.map((own): FacePart => {
    const points: Point2[] = [];
    const walls: FacePart['walls'] = [];
    own.forEach((i, at) => {
      const { from, to } = free[i];
      points.push(placeOf(from));
      for (let c = Math.floor(from) + 1; c < to - nothing; c++) points.push(placeOf(c));
      points.push(placeOf(to));
      const next = own[(at + 1) % own.length];
      const first = (i + 1) % n;
      const by = way(first, next);
      points.push(...by);
      const all = [placeOf(to), ...by, placeOf(free[next].from)];
      const length = all.slice(1).reduce((sum, p, k) => sum + Math.hypot((p[0] - all[k][0]) * sides[0], (p[1] - all[k][1]) * sides[1]), 0);
      walls.push({ from: first, to: next, length });
    });
    const area = points.reduce((sum, [x, y], i) => {
      const [x1, y1] = points[(i + 1) % points.length];
      return sum + (x * y1 - x1 * y) / 2;
    }, 0);
    return { free: own.map((i) => free[i]), area, walls };
  });
}
