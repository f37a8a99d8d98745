import type { Point2, Point3 } from '../../document/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { Sets } from '../../numerics/sets.ts';
import { type MetalStretch, placeOf } from './face.ts';
import type { Laid } from './laid.ts';

/** A place where a sheet meets the outline of a face. */
export interface Meeting extends MetalStretch {
  plates: { plate: number; p: Point3 }[];
  solid: boolean;
}

/** A sheet that ends this close to another ends on it, as a part of the face. */
const near = 1e-3;
/** How far off its line a node may lie that counts as on a sheet, as a part of the face. */
const offLine = 0.1;
/** Middle of what meets the outline of a face, in its unit square. */
export const middleOf = ({ from, to }: Meeting): Point2 => placeOf((from + to) / 2);

/** Which meetings hang together inside a face: a number for each. */
export function groups(laid: Laid, n: Axis, at: Point3, all: readonly Meeting[]): number[] {
  const sets = new Sets(all.length);
  // What meets the outline twice hangs together where its metal goes on in between.
  laid.plates.forEach((plate, p) => {
    const mine = all.flatMap((m, i) => m.plates.filter((x) => x.plate === p).map((x) => ({ i, p: x.p })));
    mine.forEach((a, k) => {
      for (const b of mine.slice(k + 1)) {
        const d = b.p.map((x, c) => x - a.p[c]) as Point3;
        if (Math.hypot(...d) === 0 || plate.reach(a.p, d) > 1 - 1e-6) sets.join(a.i, b.i);
      }
    });
  });
  if (all.length > 1 && laid.plates.length) joinTraces(laid, n, at, all, sets);
  return all.map((_, i) => sets.of(i));
}

/** Joins what meets inside a face: the lines in which sheets cross it, and solid metal in which such a line ends. */
function joinTraces(laid: Laid, n: Axis, at: Point3, all: readonly Meeting[], sets: Sets): void {
  const [low, high] = [laid.where(at), laid.where(at.map((x, k) => x + (k === n ? 0 : 1)))];
  const [u, v] = [(n + 1) % 3, (n + 2) % 3];
  const size = Math.hypot(high[u] - low[u], high[v] - low[v]);
  const slack = near * size;
  const flat = (p: Point3): Point2 => [p[u], p[v]];
  const traces = laid.plates.flatMap((plate, p) => {
    const { min, max } = plate.body;
    if ([0, 1, 2].some((k) => min[k] > high[k] + slack || max[k] < low[k] - slack)) return [];
    return plate.inRectangle(n, low, high).map(([a, b]) => ({ p, a, b, set: sets.add() }));
  });
  // A node that counts as on a sheet may lie a little off the line in which the sheet crosses a face.
  all.forEach((m, k) => {
    for (const { plate, p } of m.plates) {
      const own = traces.filter((t) => t.p === plate).map((t) => ({ t, by: farFrom(flat(p), [flat(t.a), flat(t.b)]) }));
      const nearest = own.reduce((best, x) => (x.by < best.by ? x : best), own[0]);
      if (nearest?.by < offLine * size) sets.join(k, nearest.t.set);
    }
  });
  traces.forEach((one, i) => {
    for (const other of traces.slice(i + 1))
      if (segmentsMeet([flat(one.a), flat(one.b)], [flat(other.a), flat(other.b)], slack)) sets.join(one.set, other.set);
    const solids = all.flatMap((m, k) => (m.solid ? [k] : []));
    if (!solids.length) return;
    const beyond = [
      [one.a, one.b],
      [one.b, one.a],
    ].map(([end, from]) => end.map((x, k) => x + 1e-4 * (x - from[k])) as Point3);
    if (beyond.some((p) => laid.markAt(p) > 0)) for (const k of solids) sets.join(k, one.set);
  });
}

/** Where in the unit square of a face two sheets cross or meet that pass from one place of its outline to another. */
export function knee(laid: Laid, n: Axis, at: Point3, one: Meeting, other: Meeting): Point2 | null {
  if (one.plates.some((x) => other.plates.some((y) => x.plate === y.plate))) return null;
  const [u, v] = [(n + 1) % 3, (n + 2) % 3];
  const low = laid.where(at);
  const high = laid.where(at.map((x, k) => x + (k === n ? 0 : 1)));
  for (const a of one.plates)
    for (const b of other.plates) {
      const [p, q] = [laid.plates[a.plate].normal, laid.plates[b.plate].normal];
      const across = p[u] * q[v] - p[v] * q[u];
      if (Math.abs(across) < 1e-9) continue;
      const [dp, dq] = [p[u] * a.p[u] + p[v] * a.p[v], q[u] * b.p[u] + q[v] * b.p[v]];
      const x = [(dp * q[v] - dq * p[v]) / across, (dq * p[u] - dp * q[u]) / across];
      const inUnit = x.map((c, k) => (c - low[[u, v][k]]) / (high[[u, v][k]] - low[[u, v][k]])) as Point2;
      if (inUnit.every((c) => c > 0 && c < 1)) return inUnit;
    }
  return null;
}

type Segment = readonly [Point2, Point2];
/** Distance of a point of a plane from a straight stretch. */
function farFrom(p: Point2, [a, b]: Segment): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = dx * dx + dy * dy;
  const t = length > 0 ? Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / length)) : 0;
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

/** Whether two straight stretches of a plane come within a distance of each other. */
function segmentsMeet(one: Segment, other: Segment, slack: number): boolean {
  if (one.some((p) => farFrom(p, other) <= slack) || other.some((p) => farFrom(p, one) <= slack)) return true;
  const side = ([a, b]: Segment, p: Point2): number => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
  return side(one, other[0]) * side(one, other[1]) < 0 && side(other, one[0]) * side(other, one[1]) < 0;
}
