import type { ConductorChoice, MaterialEntry } from '../entries/index.ts';
import { inPlane, type Point2, type Point3, type SheetRecipe } from '../shapes/index.ts';
import { type Affine, apply, invert } from '../numerics/affine.ts';
import { type Exact, exactCoordinates, loopCrossings, spansAlong } from './exact.ts';
import { alignedAxis, axisFrame, type Item, originOf, type WireAxis } from './item.ts';
import type { Surface } from './surface.ts';
import { sameNumber } from '../numerics/tolerance.ts';
import type { Axis } from '../numerics/axis.ts';

export { inPlane };

/** A sheet that stands across no axis: outlines in the xy plane of a frame. Metres. */
export interface TiltedSheet {
  form: 'tilted sheet';
  frame: Affine;
  loops: Point2[][];
}

/** A body of the model in SI, from one ledger line. */
export interface Body extends Surface {
  name: string;
  /** Line that made it; unlike the name where one line makes several bodies. */
  line: string;
  /** Position of its line: where bodies overlap the higher one wins. */
  order: number;
  /** The same for the same geometry, so that drawings need not be made again. */
  id: number;
  material: MaterialEntry;
  /** How it conducts, if it is metal. */
  conductor: ConductorChoice;
  shape: Exact | SheetRecipe | TiltedSheet;
  min: Point3;
  max: Point3;
  /** Coordinates of its flat faces across each axis. */
  planes: [number[], number[], number[]];
  /** Points of a sheet's outline that expressions can name. */
  corners?: Point3[];
  /** Its axis, where it is a round wire. */
  wire?: WireAxis;
  /** Some of its surface lies across no axis. */
  curved: boolean;
}

/** Whether a body has no thickness. */
export const isSheet = (b: Pick<Body, 'shape'>): boolean => b.shape.form === 'sheet' || b.shape.form === 'tilted sheet';

/** A point of a sheet's plane in space. */
export function liftPoint(normal: Axis, offset: number, [u, w]: Point2): Point3 {
  const point: Point3 = [0, 0, 0];
  point[normal] = offset;
  point[inPlane[normal][0]] = u;
  point[inPlane[normal][1]] = w;
  return point;
}

/** Stretches of the row through (y, z) along x that lie inside a solid: [in, out, ...]. */
export const rowSpans = (shape: Body['shape'], y: number, z: number): number[] =>
  shape.form === 'sheet' || shape.form === 'tilted sheet' ? [] : spansAlong(shape, [0, y, z], [1, 0, 0]);

/** Whether a point of the plane is inside a sheet, the edge counted in within `tolerance`. */
export function insideSheet(loops: readonly Point2[][], [u, w]: Point2, tolerance: number): boolean {
  for (const dw of [-tolerance, tolerance]) {
    const crossings = loopCrossings(loops, w + dw);
    for (let i = 0; i + 1 < crossings.length; i += 2) if (u >= crossings[i] - tolerance && u <= crossings[i + 1] + tolerance) return true;
  }
  return false;
}

/** Whether a point lies on a sheet across no axis, its outline counted in. */
function onTilted({ frame, loops }: TiltedSheet, p: Point3, tolerance: number): boolean {
  const [u, v, w] = apply(invert(frame), p);
  return Math.abs(w) <= tolerance && insideSheet(loops, [u, v], tolerance);
}

/** Whether a point is in or on a body within `tolerance` metres. */
export function touches(shape: Body['shape'], p: Point3, tolerance: number): boolean {
  if (shape.form === 'sheet') {
    const [u, w] = inPlane[shape.normal];
    return Math.abs(p[shape.normal] - shape.offset) <= tolerance && insideSheet(shape.loops, [p[u], p[w]], tolerance);
  }
  if (shape.form === 'tilted sheet') return onTilted(shape, p, tolerance);
  for (const dy of [-tolerance, tolerance])
    for (const dz of [-tolerance, tolerance]) {
      const spans = rowSpans(shape, p[1] + dy, p[2] + dz);
      for (let i = 0; i < spans.length; i += 2) if (p[0] >= spans[i] - tolerance && p[0] <= spans[i + 1] + tolerance) return true;
    }
  return false;
}

/** Corners of the box around points. */
function boundsOf(points: ArrayLike<number>): { min: Point3; max: Point3 } {
  const min: Point3 = [Infinity, Infinity, Infinity];
  const max: Point3 = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i++) {
    const a = i % 3;
    if (points[i] < min[a]) min[a] = points[i];
    if (points[i] > max[a]) max[a] = points[i];
  }
  return { min, max };
}

/** Brings coordinates of a drawing, which are rounded to single precision, back to the exact ones of the shape. */
export function snapper(exact: Exact | null, extent: number): (v: number, axis: number) => number {
  const known: [Set<number>, Set<number>, Set<number>] = [new Set(), new Set(), new Set()];
  if (exact) exactCoordinates(exact, known);
  const sorted = known.map((k) => Float64Array.from(k).sort());
  return (v, axis) => {
    const list = sorted[axis];
    let lo = 0;
    let hi = list.length - 1;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (list[mid] < v) lo = mid + 1;
      else hi = mid;
    }
    for (const i of [lo, lo - 1]) if (i >= 0 && i < list.length && Math.abs(list[i] - v) <= 4e-7 * (extent + Math.abs(v))) return list[i];
    // Seven digits give back a decimal number that single precision has rounded.
    return Number(v.toPrecision(7));
  };
}

/** A sheet's outlines about the axes of the world, or null if it is tilted. */
export function alignedSheet({ frame, loops }: NonNullable<Item['sheet']>): SheetRecipe | null {
  const normal = alignedAxis(frame);
  if (normal === null) return null;
  const offset = originOf(frame)[normal];
  const target = axisFrame(normal, offset);
  if (target.every((v, i) => v === frame[i])) return { form: 'sheet', normal, offset, loops: straightened(loops) };
  const inverse = invert(target);
  const placed = loops.map((l) => l.map((p) => apply(inverse, apply(frame, [p[0], p[1], 0])).slice(0, 2) as Point2));
  return { form: 'sheet', normal, offset, loops: straightened(placed) };
}

/** Outlines whose coordinates that count as equal are equal: an edge that leans by what arithmetic rounds alone runs along its axis. */
function straightened(loops: Point2[][]): Point2[][] {
  const shared = ([0, 1] as const).map((axis) => {
    const all = loops.flatMap((loop) => loop.map((p) => p[axis])).sort((a, b) => a - b);
    const slack = sameNumber * Math.max(all[all.length - 1] - all[0], Math.abs(all[0]), Math.abs(all[all.length - 1]));
    const to = new Map<number, number>();
    let first = -Infinity;
    for (const v of all) {
      if (v - first > slack) first = v;
      to.set(v, first);
    }
    return to;
  });
  return loops.map((loop) => loop.map((p): Point2 => [shared[0].get(p[0])!, shared[1].get(p[1])!]));
}

/** Coordinates of the triangles across each axis, and whether there are others. */
function flatCoordinates({ positions: p, triangles: t }: Surface, extent: number): { planes: [number[], number[], number[]]; curved: boolean } {
  const found: [Set<number>, Set<number>, Set<number>] = [new Set(), new Set(), new Set()];
  let curved = false;
  const same = 2e-7 * extent;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i], 3 * t[i + 1], 3 * t[i + 2]];
    let across = -1;
    for (let k = 0; k < 3; k++) if (Math.abs(p[a + k] - p[b + k]) <= same && Math.abs(p[a + k] - p[c + k]) <= same) across = k;
    if (across < 0) curved = true;
    else found[across].add(p[a + across]);
  }
  return { planes: found.map((f) => [...f]) as [number[], number[], number[]], curved };
}

export type Measures = Pick<Body, 'shape' | 'min' | 'max' | 'planes' | 'curved'>;

/** Measures of items, made when first asked for. */
const known = new WeakMap<Item, Measures>();

/** Where a body is and what flat faces it has, from its item and surface; made once. */
export function measuresOf(item: Item, surface: Surface): Measures {
  let measures = known.get(item);
  if (!measures) known.set(item, (measures = measure(item, surface)));
  return measures;
}

function measure(item: Item, surface: Surface): Measures {
  if (item.sheet) {
    const sheet = alignedSheet(item.sheet);
    if (!sheet) return { shape: { form: 'tilted sheet', ...item.sheet }, ...boundsOf(surface.positions), planes: [[], [], []], curved: true };
    const { normal, offset, loops } = sheet;
    const planes: Body['planes'] = [[], [], []];
    planes[normal] = [offset];
    return { shape: sheet, ...boundsOf(loops.flat().flatMap((p) => liftPoint(normal, offset, p))), planes, curved: false };
  }
  const { exact, box } = item.solid!;
  if (exact && box) {
    const planes = box.min.map((low, a) => [low, box.max[a]]) as Body['planes'];
    return { shape: exact, min: box.min, max: box.max, planes, curved: false };
  }
  const rough = boundsOf(surface.positions);
  const extent = Math.max(...rough.max.map((m, a) => m - rough.min[a]));
  const snap = snapper(exact, extent);
  const { planes, curved } = flatCoordinates(surface, extent);
  return {
    shape: exact ?? { form: 'mesh', positions: surface.positions, triangles: surface.triangles },
    min: rough.min.map(snap) as Point3,
    max: rough.max.map(snap) as Point3,
    planes: planes.map((list, axis) => [...new Set(list.map((v) => snap(v, axis)))]) as Body['planes'],
    curved,
  };
}
