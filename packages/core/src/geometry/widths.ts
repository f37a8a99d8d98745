import type { Point2, Point3 } from '../shapes/index.ts';
import { type Body, inPlane, isSheet, liftPoint } from './body.ts';
import { either, type Exact, flatSpans, insideLoops, spansAlong } from './exact.ts';
import { apply, applyLinear, invert } from '../numerics/affine.ts';

/** How wide metal, or the space between metal, is at a place of an edge or a surface. */
export interface Width {
  kind: 'metal' | 'gap';
  body: Body;
  /** Where it is measured from, and the unit vector along which it lies. Metres. */
  at: Point3;
  along: Point3;
  width: number;
  /** The stretch of edge that it stands for, from its middle to either end. Metres. */
  edge: Point3;
  /** Of solid metal how far it reaches across that, at least: much further than it is wide where it is a wall. Metres. */
  spread?: number;
}

/** An edge of a sheet, or a part of a surface, from which widths are measured. */
export interface Sample {
  body: Body;
  at: Point3;
  /** Unit vector across the edge or surface, and one along it. */
  across: Point3;
  beside: Point3;
  /** Half the length of edge for which it stands. */
  half: number;
}

/** Cosine from which on a direction counts as that of an axis: one degree and a half. */
export const aligned = 0.9997;
/** Edges and triangles of one body that are looked at, spread over all of them. */
const mostOfBody = 300;
/** Places on each edge of a sheet, each in the middle of a third of it. */
const places = [1 / 6, 1 / 2, 5 / 6];
/** How far the drawing of a curved surface may lie from it, as a part of the body's size: what 24 straight pieces a round leave out. */
const drawnWithin = 0.01;
/** Metal that narrows faster than this, metres a metre of edge, is a tip: it has no width. */
const mostTaper = 0.3;
/** Of a width, how far beside a place it is measured again. */
const nextTo = 0.05;

/** Whether a body is metal that has widths along axes. */
export const conducts = (b: Body): boolean => b.material.kind === 'conductor' && b.shape.form !== 'tilted sheet';
const slanted = (v: Point3): boolean => v.every((c) => Math.abs(c) <= aligned);
/** A point moved along a direction. */
export const moved = (p: Point3, d: Point3, t: number): Point3 => [p[0] + t * d[0], p[1] + t * d[1], p[2] + t * d[2]];
/** Some of very many, at even distances among them. */
const spread = <T>(all: T[]): T[] => (all.length <= mostOfBody ? all : all.filter((_, i) => (i * mostOfBody) % all.length < mostOfBody));

/** A sheet's outlines, and the way from its plane to space, of directions and of points. */
function planeOf({ shape }: Body): { loops: readonly Point2[][]; turned(v: Point2): Point3; lifted(p: Point2): Point3 } | null {
  if (shape.form === 'tilted sheet') {
    const { frame, loops } = shape;
    return { loops, turned: ([u, w]) => applyLinear(frame, [u, w, 0]), lifted: ([u, w]) => apply(frame, [u, w, 0]) };
  }
  if (shape.form !== 'sheet') return null;
  const { normal, offset, loops } = shape;
  return { loops, turned: (v) => liftPoint(normal, 0, v), lifted: (p) => liftPoint(normal, offset, p) };
}

/** Places on the edges of a sheet: those across no axis, or all the others. */
export function edgesOfSheet(body: Body, acrossNone: boolean): Sample[] {
  const plane = planeOf(body);
  if (!plane) return [];
  const { loops, turned, lifted } = plane;
  const edges = loops.flatMap((loop) => loop.map((a, i) => [a, loop[(i + 1) % loop.length]] as const));
  const lengthOf = ([a, b]: readonly [Point2, Point2]): number => Math.hypot(b[0] - a[0], b[1] - a[1]);
  // Of very many edges places stand at even distances along all of them, each for its share.
  const apart = edges.length > mostOfBody ? edges.reduce((s, e) => s + lengthOf(e), 0) / (places.length * mostOfBody) : 0;
  let next = apart / 2;
  return edges.flatMap((edge) => {
    const [a, b] = edge;
    const [du, dw] = [b[0] - a[0], b[1] - a[1]];
    const length = lengthOf(edge);
    const here: number[] = apart ? [] : [...places];
    for (; apart && next < length; next += apart) here.push(next / length);
    next -= apart ? length : 0;
    const across = turned([dw / length, -du / length]);
    // Where the sheet stands across no axis its edges count as such too.
    if (!(length > 0) || (slanted(across) || body.shape.form === 'tilted sheet') !== acrossNone) return [];
    const beside = turned([du / length, dw / length]);
    const half = apart ? apart / 2 : length / 6;
    return here.map((t) => ({ body, at: lifted([a[0] + t * du, a[1] + t * dw]), across, beside, half }));
  });
}

/** Some of the triangles that a body is drawn by: a corner, the two edges from it, and the unit vector across. Those without an area are left out. */
export function trianglesOf({ positions: p, triangles }: Body): { corner: Point3; edges: [Point3, Point3]; across: Point3 }[] {
  return spread(Array.from({ length: triangles.length / 3 }, (_, t) => t)).flatMap((t) => {
    const [a, b, c] = [0, 1, 2].map((k) => [0, 1, 2].map((i) => p[3 * triangles[3 * t + k] + i]) as Point3);
    const [e, f] = [b, c].map((q) => q.map((x, i) => x - a[i]) as Point3);
    const n = [e[1] * f[2] - e[2] * f[1], e[2] * f[0] - e[0] * f[2], e[0] * f[1] - e[1] * f[0]];
    const size = Math.hypot(...n);
    return size > 0 ? [{ corner: a, edges: [e, f] as [Point3, Point3], across: n.map((x) => x / size) as Point3 }] : [];
  });
}

/** Places on the slanted parts of a solid's surface. */
function facesOfSolid(body: Body): Sample[] {
  if (!body.curved || isSheet(body)) return [];
  return trianglesOf(body).flatMap(({ corner, edges: [e, f], across }): Sample[] => {
    const long = Math.hypot(...e);
    return slanted(across)
      ? [{ body, at: corner.map((x, i) => x + (e[i] + f[i]) / 3) as Point3, across, beside: e.map((x) => x / long) as Point3, half: 0 }]
      : [];
  });
}

/** Whether a line surely passes by a body. */
function misses({ min, max }: Body, p: Point3, d: Point3): boolean {
  let [from, to] = [-Infinity, Infinity];
  for (let a = 0; a < 3; a++) {
    const slack = 1e-6 * (max[a] - min[a]) + 1e-12;
    if (Math.abs(d[a]) < 1e-12) {
      if (p[a] < min[a] - slack || p[a] > max[a] + slack) return true;
      continue;
    }
    const ends = [(min[a] - slack - p[a]) / d[a], (max[a] + slack - p[a]) / d[a]];
    [from, to] = [Math.max(from, Math.min(...ends)), Math.min(to, Math.max(...ends))];
  }
  return from > to;
}

/** Stretches of the line through p along d that lie in metal, in metres from p. */
function metalAlong(metal: readonly Body[], p: Point3, d: Point3): number[] {
  let spans: number[] = [];
  for (const b of metal) {
    if (misses(b, p, d)) continue;
    if (b.shape.form === 'tilted sheet') {
      const inverse = invert(b.shape.frame);
      const [[u, v, w], [du, dv, dw]] = [apply(inverse, p), applyLinear(inverse, d)];
      if (Math.abs(dw) > 1e-9) {
        if (insideLoops(b.shape.loops, [u - (w / dw) * du, v - (w / dw) * dv])) spans = either(spans, [-w / dw, -w / dw]);
      } else if (Math.abs(w) <= 1e-9 * Math.max(1, ...p.map(Math.abs))) spans = either(spans, flatSpans(b.shape.loops, [u, v], [du, dv]));
    } else if (b.shape.form === 'sheet') {
      const { normal, offset, loops } = b.shape;
      const [u, w] = inPlane[normal];
      const slack = 1e-9 * Math.max(1, Math.abs(offset));
      if (Math.abs(d[normal]) > 1e-12) {
        // A sheet that is crossed is metal of no thickness.
        const t = (offset - p[normal]) / d[normal];
        if (insideLoops(loops, [p[u] + t * d[u], p[w] + t * d[w]])) spans = either(spans, [t, t]);
      } else if (Math.abs(p[normal] - offset) <= slack) spans = either(spans, flatSpans(loops, [p[u], p[w]], [d[u], d[w]]));
    } else spans = either(spans, spansAlong(b.shape as Exact, p, d));
  }
  return spans;
}

/** Stretches, those that touch within a slack as one. */
const joined = (spans: readonly number[], slack: number): number[] =>
  spans.filter((x, i) => i === 0 || i === spans.length - 1 || Math.abs((i % 2 ? spans[i + 1] : spans[i - 1]) - x) > slack);

/** Width of the metal that has its end within reach of a place, and of the gap that begins there; negative against the direction that is looked along, Infinity where there is none; null where no metal ends. */
export function measured(metal: readonly Body[], at: Point3, across: Point3, slack: number, reach: number): Record<Width['kind'], number> | null {
  const spans = joined(metalAlong(metal, at, across), slack);
  let end = -1;
  for (let i = 0; i < spans.length; i++) if (Math.abs(spans[i]) <= reach && (end < 0 || Math.abs(spans[i]) < Math.abs(spans[end]))) end = i;
  if (end < 0) return null;
  const [other, beyond] = end % 2 ? [end - 1, end + 1] : [end + 1, end - 1];
  return { metal: spans[other] - spans[end], gap: beyond < 0 || beyond >= spans.length ? Infinity : spans[beyond] - spans[end] };
}

/**
 * Local widths of metal, and of the gaps between it, along the normals of edges of sheets and of surfaces of solids that stand across no axis: what a grid
 * along the axes does not follow by itself. Tips are left out. Bodies in metres.
 */
export function slantedWidths(bodies: readonly Body[]): readonly Width[] {
  let found = known.get(bodies);
  if (!found) known.set(bodies, (found = widthsOf(bodies)));
  return found;
}
/** Of one list of bodies they are sought once: grids are made more than once of it. */
const known = new WeakMap<readonly Body[], readonly Width[]>();

/** Whether a width changes quickly along an edge, as that of a tip does. */
export function tapers(widthAt: (p: Point3) => number | undefined, at: Point3, beside: Point3, width: number): boolean {
  const step = nextTo * width;
  const [before, after] = [-step, step].map((t) => Math.abs(widthAt(moved(at, beside, t)) ?? width));
  return Math.abs(after - before) > 2 * step * mostTaper;
}

const crossed = (p: Point3, q: Point3): Point3 => [p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]];

/** The least length of a body through a point of it along some directions. */
const spreadOf = (body: Body, p: Point3, directions: readonly Point3[]): number =>
  Math.min(
    ...directions.map((d) => {
      const spans = metalAlong([body], p, d);
      const own = spans.findIndex((from, i) => i % 2 === 0 && from <= 0 && spans[i + 1] >= 0);
      return own < 0 ? Infinity : spans[own + 1] - spans[own];
    }),
  );

function widthsOf(bodies: readonly Body[]): Width[] {
  const metal = bodies.filter((b) => b.material.kind === 'conductor');
  return metal.flatMap((body) => {
    const size = Math.max(...[0, 1, 2].map((a) => body.max[a] - body.min[a]));
    const slack = 1e-5 * size;
    // What is drawn of a curved surface lies a little within it.
    const reach = isSheet(body) ? slack : drawnWithin * size;
    return [...edgesOfSheet(body, true), ...facesOfSolid(body)].flatMap(({ at, across, beside, half }): Width[] => {
      const here = measured(metal, at, across, slack, reach);
      if (!here) return [];
      return (['metal', 'gap'] as const).flatMap((kind): Width[] => {
        const width = Math.abs(here[kind]);
        if (!(width > slack) || !Number.isFinite(width)) return [];
        if (tapers((p) => measured(metal, p, across, slack, reach)?.[kind], at, beside, width)) return [];
        const along = across.map((c) => Math.sign(here[kind]) * c) as Point3;
        const spread = kind === 'metal' && !isSheet(body) ? spreadOf(body, moved(at, along, width / 2), [beside, crossed(along, beside)]) : undefined;
        return [{ kind, body, at, along, width, edge: beside.map((c) => half * c) as Point3, spread }];
      });
    });
  });
}
