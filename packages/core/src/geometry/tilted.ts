import type { Point2, Point3 } from '../shapes/index.ts';
import { apply, applyLinear, invert } from '../numerics/affine.ts';
import type { Axis } from '../numerics/axis.ts';
import type { TiltedSheet } from './body.ts';
import { both, flatSpans } from './exact.ts';

/** Straight stretches in which a sheet across no axis crosses a rectangle across an axis, which stands at `min` there. Metres. */
export function crossedIn({ frame, loops }: TiltedSheet, normal: Axis, min: Readonly<Point3>, max: Readonly<Point3>): [Point3, Point3][] {
  const across = [frame[2], frame[6], frame[10]];
  const [u, v] = [(normal + 1) % 3, (normal + 2) % 3];
  // The line in which both planes meet: a point of it, and its direction.
  const lean = across[u] ** 2 + across[v] ** 2;
  if (!(lean > 0)) return [];
  const inverse = invert(frame);
  const [p, d]: [Point3, Point3] = [[...min], [0, 0, 0]];
  const off = apply(inverse, p)[2];
  for (const a of [u, v]) p[a] -= (off * across[a]) / lean;
  [d[u], d[v]] = [-across[v], across[u]];
  const [p2, d2] = [apply(inverse, p), applyLinear(inverse, d)].map((x) => x.slice(0, 2) as Point2);
  const within = [u, v].map((a): number[] => {
    if (Math.abs(d[a]) < 1e-12) return p[a] > min[a] && p[a] < max[a] ? [-Infinity, Infinity] : [];
    const ends = [(min[a] - p[a]) / d[a], (max[a] - p[a]) / d[a]];
    return [Math.min(...ends), Math.max(...ends)];
  });
  const spans = both(both(flatSpans(loops, p2, d2), within[0]), within[1]);
  const point = (t: number): Point3 => p.map((x, a) => x + t * d[a]) as Point3;
  return Array.from({ length: spans.length / 2 }, (_, i) => [point(spans[2 * i]), point(spans[2 * i + 1])]);
}
