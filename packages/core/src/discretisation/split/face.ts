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
function placeOf(t: number): [number, number] {
  const side = Math.floor(t) % 4;
  const f = t - Math.floor(t);
  return side === 0 ? [f, 0] : side === 1 ? [1, f] : side === 2 ? [1 - f, 1] : [0, 1 - f];
}

/** Free parts shorter than this are none. */
const nothing = 1e-9;

/**
 * Parts of a rectangular face that metal leaves. `metal` are stretches of its outline in turn without overlap, `group` tells which of them hang together inside the
 * face; `sides` are the lengths of the lower side and of that to its right. Two stretches of free outline belong to one part where no metal that hangs together
 * lies on both sides between them; inside the face metal runs straight, by way of
 * `knee` (in the unit square) where that gives a point for two stretches of metal.
 */
export function partsOfFace(
  metal: readonly MetalStretch[],
  group: readonly number[],
  sides: readonly [number, number],
  knee: (i: number, j: number) => readonly [number, number] | null = () => null,
): FacePart[] {
  const n = metal.length;
  if (n === 0) return [{ free: [{ from: 0, to: 4 }], area: 1, walls: [] }];
  // Free stretch i lies behind metal i.
  const free = metal.map((m, i) => ({ from: m.to, to: metal[(i + 1) % n].from + (i + 1 === n ? 4 : 0) }));
  const open = free.map((_, i) => i).filter((i) => free[i].to - free[i].from > nothing);
  const parted = (i: number, j: number): boolean => {
    // Metal from i + 1 to j lies on one side, that from j + 1 to i on the other.
    const one = new Set<number>();
    for (let m = (i + 1) % n; ; m = (m + 1) % n) {
      one.add(group[m]);
      if (m === j) break;
    }
    for (let m = (j + 1) % n; ; m = (m + 1) % n) {
      if (one.has(group[m])) return true;
      if (m === i) return false;
    }
  };
  const parts: number[][] = [];
  for (const i of open) {
    const home = parts.find((p) => !parted(p[0], i));
    if (home) home.push(i);
    else parts.push([i]);
  }
  return parts.map((own): FacePart => {
    const points: [number, number][] = [];
    const walls: FacePart['walls'] = [];
    own.forEach((i, at) => {
      const { from, to } = free[i];
      points.push(placeOf(from));
      for (let c = Math.floor(from) + 1; c < to - nothing; c++) points.push(placeOf(c));
      points.push(placeOf(to));
      const next = own[(at + 1) % own.length];
      const first = (i + 1) % n;
      const by = first === next ? null : knee(first, next);
      const way = [placeOf(to), ...(by ? [by] : []), placeOf(free[next].from)];
      if (by) points.push([by[0], by[1]]);
      const length = way.slice(1).reduce((sum, p, k) => sum + Math.hypot((p[0] - way[k][0]) * sides[0], (p[1] - way[k][1]) * sides[1]), 0);
      walls.push({ from: first, to: next, length });
    });
    const area = points.reduce((sum, [x, y], i) => {
      const [x1, y1] = points[(i + 1) % points.length];
      return sum + (x * y1 - x1 * y) / 2;
    }, 0);
    return { free: own.map((i) => free[i]), area, walls };
  });
}
