import type { Impossible, Point2 } from './recipe.ts';
import { nothing, sameNumber } from '../numerics/tolerance.ts';

/** Signed area of a closed outline (shoelace formula), square metres. */
export function signedArea(points: readonly Point2[]): number {
  let twice = 0;
  points.forEach(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length];
    twice += x * ny - nx * y;
  });
  return twice / 2;
}

const side = (a: Point2, b: Point2, p: Point2): number => Math.sign((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]));

/** Indices of two edges of a closed outline that cross, or null for a simple one. */
export function crossingEdges(points: readonly Point2[]): [number, number] | null {
  const n = points.length;
  for (let i = 0; i < n; i++) {
    const a = points[i];
    const b = points[(i + 1) % n];
    const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
    const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const c = points[j];
      const d = points[(j + 1) % n];
      if ((c[0] < x0 && d[0] < x0) || (c[0] > x1 && d[0] > x1) || (c[1] < y0 && d[1] < y0) || (c[1] > y1 && d[1] > y1)) continue;
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return [i, j];
    }
  }
  return null;
}

/** What is wrong with a closed outline of the points of `path`, or null. */
export function outlineFault(outline: readonly Point2[], path: string): Impossible | null {
  const crossed = crossingEdges(outline);
  if (crossed) {
    const [a, b] = crossed.map((i) => i + 1);
    return {
      fault: `The outline crosses itself: the edge after point ${a} meets the edge after point ${b}.`,
      fix: 'Put the points in order around the outline.',
      chip: `${path}.${crossed[0]}.0`,
    };
  }
  const extent = Math.max(...outline.map((p) => Math.max(Math.abs(p[0] - outline[0][0]), Math.abs(p[1] - outline[0][1]))));
  if (Math.abs(signedArea(outline)) <= nothing * extent * extent)
    return { fault: 'The outline encloses no area.', fix: 'Move a point so that the points do not lie on one line.', chip: `${path}.0.0` };
  return null;
}

/** Sides of the polygon that stands for a full circle in outlines. A multiple of four, so that extents are exact. */
export const circleSides = 96;

/** Points of an arc of radius r about (cx, cy), both ends included; a full circle leaves out its end. */
export function arcPoints([cx, cy]: Point2, r: number, from: number, to: number): Point2[] {
  const full = Math.abs(Math.abs(to - from) - 2 * Math.PI) < sameNumber;
  const n = Math.max(2, Math.ceil((circleSides * Math.abs(to - from)) / (2 * Math.PI) - sameNumber));
  return Array.from({ length: full ? n : n + 1 }, (_, i): Point2 => {
    const t = from + ((to - from) * i) / n;
    return [cx + r * cosine(t), cy + r * cosine(t - Math.PI / 2)];
  });
}

/** Cosine, exact at the quarter turns. */
function cosine(t: number): number {
  const quarters = t / (Math.PI / 2);
  const near = Math.round(quarters);
  return Math.abs(quarters - near) < nothing ? [1, 0, -1, 0][((near % 4) + 4) % 4] : Math.cos(t);
}
