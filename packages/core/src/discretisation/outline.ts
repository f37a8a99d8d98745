import type { Point2 } from '../document/index.ts';
import { insideLoops } from '../geometry/index.ts';

/** A straight piece of an outline. */
export interface Piece {
  a: Point2;
  b: Point2;
  /** It runs across no axis. */
  slanted: boolean;
}

interface Box {
  min: Point2;
  max: Point2;
}
function boxOf(points: readonly Point2[]): Box {
  const [min, max]: [Point2, Point2] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (const p of points)
    for (const i of [0, 1]) {
      min[i] = Math.min(min[i], p[i]);
      max[i] = Math.max(max[i], p[i]);
    }
  return { min, max };
}

const lerp = ([ax, ay]: Point2, [bx, by]: Point2, t: number): Point2 => [ax + t * (bx - ax), ay + t * (by - ay)];

/** Where two straight pieces cross or touch, as parts of the first. */
function crossings(a: Point2, b: Point2, c: Point2, d: Point2): number[] {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const length2 = ux * ux + uy * uy;
  const across = ux * vy - uy * vx;
  const [wx, wy] = [c[0] - a[0], c[1] - a[1]];
  if (Math.abs(across) > 1e-12 * Math.sqrt(length2) * Math.hypot(vx, vy)) {
    const [t, s] = [(wx * vy - wy * vx) / across, (wx * uy - wy * ux) / across];
    return s >= 0 && s <= 1 ? [t] : [];
  }
  // One line may hold both: the ends of the second part the first.
  return [c, d].map((p) => ((p[0] - a[0]) * ux + (p[1] - a[1]) * uy) / length2);
}

/**
 * Outline of all that several shapes of one plane cover together, each given by its closed loops (inside by the even-odd rule): the pieces with metal on one side
 * alone; those that two shapes share come twice. Metres.
 */
export function commonOutline(shapes: readonly (readonly Point2[][])[]): Piece[] {
  const boxes = shapes.map((loops) => boxOf(loops.flat()));
  const size = boxes.reduce((most, { min, max }) => Math.max(most, ...[...min, ...max].map(Math.abs)), 0);
  const beside = 1e-7 * size;
  const covered = (p: Point2): boolean => shapes.some((loops, n) => !apart(boxes[n], { min: p, max: p }) && insideLoops(loops, p));
  const edges = shapes.map((loops) => loops.flatMap((loop) => loop.map((a, i): [Point2, Point2] => [a, loop[(i + 1) % loop.length]])));
  const apart = (a: Box, b: Box): boolean => [0, 1].some((i) => a.max[i] < b.min[i] - beside || a.min[i] > b.max[i] + beside);
  return edges.flatMap((own, n) =>
    own.flatMap((edge): Piece[] => {
      const [a, b] = edge;
      const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
      const length = Math.hypot(ux, uy);
      if (!(length > beside)) return [];
      const slanted = ux !== 0 && uy !== 0;
      const box = boxOf(edge);
      const cuts = edges.flatMap((other, m) =>
        m === n || apart(box, boxes[m]) ? [] : other.filter((e) => !apart(box, boxOf(e))).flatMap(([c, d]) => crossings(a, b, c, d)),
      );
      const parts = [0, ...cuts.filter((t) => t > 0 && t < 1).sort((s, t) => s - t), 1];
      return parts.slice(1).flatMap((to, i): Piece[] => {
        const from = parts[i];
        if ((to - from) * length <= beside) return [];
        const [x, y] = lerp(a, b, (from + to) / 2);
        const [left, right] = [1, -1].map((s) => covered([x - (s * beside * uy) / length, y + (s * beside * ux) / length]));
        return left === right ? [] : [{ a: lerp(a, b, from), b: lerp(a, b, to), slanted }];
      });
    }),
  );
}

/** Distances from an outline at the points of a grid of halved cells: nodes at even places, middles between them at odd ones. */
export interface DistanceMap {
  /** Points on each axis. */
  size: [number, number];
  /** Metres, positive off the metal; NaN where no outline is near. */
  distance: Float64Array;
  /** Its slope along each axis. */
  slope: [Float64Array, Float64Array];
  /** Whether the nearest piece runs across no axis. */
  slanted: Uint8Array;
}

/** Lines of a grid and the middles between them. */
export const halved = (lines: Float64Array): Float64Array =>
  Float64Array.from({ length: 2 * lines.length - 1 }, (_, i) => (i % 2 ? (lines[(i - 1) / 2] + lines[(i + 1) / 2]) / 2 : lines[i / 2]));

/** First index of sorted coordinates that is at least x. */
function firstFrom(x: Float64Array, value: number): number {
  let [lo, hi] = [0, x.length];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (x[mid] < value) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}

/**
 * Distances from an outline at points of a grid, as far as `reach` (metres, by point of each axis: the larger of the two counts). `covered` tells which points are
 * inside.
 */
export function distanceMap(
  pieces: readonly Piece[],
  points: readonly [Float64Array, Float64Array],
  reach: readonly [Float64Array, Float64Array],
  covered: (u: number, w: number) => boolean,
): DistanceMap {
  const [x, y] = points;
  const count = x.length * y.length;
  const distance = new Float64Array(count).fill(NaN);
  const slope: [Float64Array, Float64Array] = [new Float64Array(count), new Float64Array(count)];
  const slanted = new Uint8Array(count);
  const widest = [0, 1].map((a) => reach[a].reduce((m, r) => Math.max(m, r), 0));
  for (const { a, b, slanted: lean } of pieces) {
    const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(ux, uy);
    const far = Math.max(...widest);
    const near = (axis: 0 | 1): [number, number] => [
      firstFrom(points[axis], Math.min(a[axis], b[axis]) - far),
      firstFrom(points[axis], Math.max(a[axis], b[axis]) + far),
    ];
    const [[i0, i1], [j0, j1]] = [near(0), near(1)];
    for (let j = j0; j < j1; j++)
      for (let i = i0; i < i1; i++) {
        const t = Math.min(1, Math.max(0, ((x[i] - a[0]) * ux + (y[j] - a[1]) * uy) / (length * length)));
        const [dx, dy] = [x[i] - a[0] - t * ux, y[j] - a[1] - t * uy];
        const d = Math.hypot(dx, dy);
        if (d > Math.max(reach[0][i], reach[1][j])) continue;
        const n = j * x.length + i;
        if (distance[n] <= d) continue;
        distance[n] = d;
        slanted[n] = lean ? 1 : 0;
        // On the outline itself the slope is that of its normal.
        const own = d > 1e-9 * length;
        slope[0][n] = own ? dx / d : uy / length;
        slope[1][n] = own ? dy / d : -ux / length;
      }
  }
  for (let j = 0, n = 0; j < y.length; j++)
    for (let i = 0; i < x.length; i++, n++)
      if (distance[n] > 0 && covered(x[i], y[j])) {
        distance[n] *= -1;
        slope[0][n] *= -1;
        slope[1][n] *= -1;
      }
  return { size: [x.length, y.length], distance, slope, slanted };
}
