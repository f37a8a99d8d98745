import { inPlane, type Point2, type Point3 } from '../shapes/index.ts';
import { type Affine, apply, applyLinear, compose } from '../numerics/affine.ts';
import { type Fold, unfolded } from './fold.ts';
import { type MeshShape, meshSpans } from './meshRows.ts';
import type { Axis } from '../numerics/axis.ts';

/**
 * A solid as a tree of exact shapes, so that a solver can ask where a line is inside without the facets of a drawing. What
 * has no closed form stands as a closed mesh in world coordinates.
 */
export type Exact =
  | { form: 'box'; min: Point3; max: Point3 }
  | { form: 'cylinder'; axis: Axis; base: Point3; height: number; radius: number }
  | { form: 'cone'; axis: Axis; base: Point3; height: number; radii: [number, number] }
  | { form: 'ball'; centre: Point3; radii: Point3 }
  | { form: 'prism'; normal: Axis; offset: number; height: number; loops: Point2[][] }
  /** `inverse` maps world points to those of the inner shape. */
  | { form: 'moved'; matrix: Affine; inverse: Affine; of: Exact }
  | { form: 'join' | 'common'; parts: Exact[] }
  | { form: 'cut'; from: Exact; tools: Exact[] }
  /** Asked only along the axes. */
  | { form: 'folded'; fold: Fold; of: Exact }
  | MeshShape;

/** Whether a tree holds a mesh, which cannot be moved without moving its points. */
export const holdsMesh = (e: Exact): boolean =>
  e.form === 'mesh' ||
  ((e.form === 'moved' || e.form === 'folded') && holdsMesh(e.of)) ||
  ((e.form === 'join' || e.form === 'common') && e.parts.some(holdsMesh)) ||
  (e.form === 'cut' && (holdsMesh(e.from) || e.tools.some(holdsMesh)));

/** Sorted ends of the stretches of a line that lie inside: [in, out, in, out, ...]. */
export type Spans = number[];
const none: Spans = [];

const between = (a: number, b: number): Spans => (b > a ? [a, b] : none);

/** Stretch of p + t d within low..high on one axis. */
function slab(p: number, d: number, low: number, high: number): [number, number] {
  if (d === 0) return p > low && p < high ? [-Infinity, Infinity] : [0, 0];
  const a = (low - p) / d;
  const b = (high - p) / d;
  return a < b ? [a, b] : [b, a];
}

/** Where a t^2 + 2 b t + c < 0, as one or two stretches. */
function below(a: number, b: number, c: number): Spans {
  if (a === 0) {
    if (b === 0) return c < 0 ? [-Infinity, Infinity] : none;
    const t = -c / (2 * b);
    return b > 0 ? [-Infinity, t] : [t, Infinity];
  }
  const d = b * b - a * c;
  if (a > 0) {
    if (d <= 0) return none;
    const q = Math.sqrt(d);
    return [(-b - q) / a, (-b + q) / a];
  }
  if (d <= 0) return [-Infinity, Infinity];
  const q = Math.sqrt(d);
  return [-Infinity, (-b + q) / a, (-b - q) / a, Infinity];
}

/** Stretches in both lists. */
export function both(x: Spans, y: Spans): Spans {
  const out: Spans = [];
  for (let i = 0, j = 0; i < x.length && j < y.length;) {
    const a = Math.max(x[i], y[j]);
    const b = Math.min(x[i + 1], y[j + 1]);
    if (b > a) out.push(a, b);
    if (x[i + 1] < y[j + 1]) i += 2;
    else j += 2;
  }
  return out;
}

/** Stretches in either list. */
export function either(x: Spans, y: Spans): Spans {
  if (!x.length) return y;
  if (!y.length) return x;
  const all: [number, number][] = [];
  for (const s of [x, y]) for (let i = 0; i < s.length; i += 2) all.push([s[i], s[i + 1]]);
  all.sort((p, q) => p[0] - q[0]);
  const out: Spans = [...all[0]];
  for (const [a, b] of all.slice(1)) {
    if (a <= out[out.length - 1]) out[out.length - 1] = Math.max(out[out.length - 1], b);
    else out.push(a, b);
  }
  return out;
}

/** Stretches of the first list that are not in the second. */
export function without(x: Spans, y: Spans): Spans {
  if (!x.length || !y.length) return x;
  return both(x, [-Infinity, ...y, Infinity]);
}

/** Stretches of the line p + t d inside a solid. A mesh is asked only along an axis, with d of length one. */
export function spansAlong(e: Exact, p: Point3, d: Point3): Spans {
  switch (e.form) {
    case 'box': {
      let [a, b] = [-Infinity, Infinity];
      for (let i = 0; i < 3; i++) {
        const s = slab(p[i], d[i], e.min[i], e.max[i]);
        if (s[0] > a) a = s[0];
        if (s[1] < b) b = s[1];
        if (b <= a) return none;
      }
      return [a, b];
    }
    case 'cylinder':
    case 'cone': {
      const [u, w] = inPlane[e.axis];
      const [r0, r1] = e.form === 'cone' ? e.radii : [e.radius, e.radius];
      const k = (r1 - r0) / e.height;
      const h = p[e.axis] - e.base[e.axis];
      const [x, y, r] = [p[u] - e.base[u], p[w] - e.base[w], r0 + k * h];
      const dr = k * d[e.axis];
      const inside = below(d[u] * d[u] + d[w] * d[w] - dr * dr, x * d[u] + y * d[w] - r * dr, x * x + y * y - r * r);
      if (!inside.length) return none;
      const s = slab(h, d[e.axis], 0, e.height);
      return both(inside, between(s[0], s[1]));
    }
    case 'ball': {
      let [a, b, c] = [0, 0, -1];
      for (let i = 0; i < 3; i++) {
        const q = (p[i] - e.centre[i]) / e.radii[i];
        const v = d[i] / e.radii[i];
        a += v * v;
        b += q * v;
        c += q * q;
      }
      return below(a, b, c);
    }
    case 'prism': {
      const s = slab(p[e.normal], d[e.normal], e.offset, e.offset + e.height);
      if (s[1] <= s[0]) return none;
      const [u, w] = inPlane[e.normal];
      return both(flatSpans(e.loops, [p[u], p[w]], [d[u], d[w]]), [s[0], s[1]]);
    }
    case 'moved':
      return spansAlong(e.of, apply(e.inverse, p), applyLinear(e.inverse, d));
    case 'join': {
      let out = none;
      for (const part of e.parts) out = either(out, spansAlong(part, p, d));
      return out;
    }
    case 'common': {
      let out = spansAlong(e.parts[0], p, d);
      for (let i = 1; i < e.parts.length && out.length; i++) out = both(out, spansAlong(e.parts[i], p, d));
      return out;
    }
    case 'cut': {
      let out = spansAlong(e.from, p, d);
      for (let i = 0; i < e.tools.length && out.length; i++) out = without(out, spansAlong(e.tools[i], p, d));
      return out;
    }
    case 'folded':
      return foldedSpans(e, p, d);
    case 'mesh': {
      const axis = d.indexOf(1) as Axis;
      return meshSpans(e, axis, p[(axis + 1) % 3], p[(axis + 2) % 3], p[axis]);
    }
  }
}

/** Of a folded solid: across the fold those of the unfolded place, along it what is before the cut, the stretch drawn out, and the image. */
function foldedSpans({ fold, of }: Extract<Exact, { form: 'folded' }>, p: Point3, d: Point3): Spans {
  const { axis, at, inward, length } = fold;
  const here = [...p] as Point3;
  if (d[axis] === 0) {
    here[axis] = unfolded(fold, p[axis]);
    return spansAlong(of, here, d);
  }
  here[axis] = 0;
  const ahead: Point3 = [0, 0, 0];
  ahead[axis] = 1;
  const found = spansAlong(of, here, ahead);
  const outer = both(found, inward > 0 ? [-Infinity, at] : [at, Infinity]);
  const end = 2 * at + inward * length;
  const image: Spans = [];
  for (let i = outer.length - 2; i >= 0; i -= 2) image.push(end - outer[i + 1], end - outer[i]);
  const open = found.some((x, i) => i % 2 === 0 && x < at && found[i + 1] > at);
  const far = at + inward * length;
  const all = either(either(outer, image), open ? [Math.min(at, far), Math.max(at, far)] : none);
  const along = all.map((x) => (x - p[axis]) / d[axis]);
  return d[axis] > 0 ? along : along.reverse();
}

/** Stretches of a line of the plane inside outlines, even-odd. */
export function flatSpans(loops: readonly Point2[][], p: Point2, d: Point2): Spans {
  const length = Math.hypot(d[0], d[1]);
  if (length === 0) return insideLoops(loops, p) ? [-Infinity, Infinity] : none;
  const found: number[] = [];
  for (const loop of loops) {
    let a = loop[loop.length - 1];
    // Side of the line on which a corner lies; exactly on it counts as left, for both edges that meet there.
    let sa = d[0] * (a[1] - p[1]) - d[1] * (a[0] - p[0]);
    for (const b of loop) {
      const sb = d[0] * (b[1] - p[1]) - d[1] * (b[0] - p[0]);
      if (sa >= 0 !== sb >= 0) {
        const f = sa / (sa - sb);
        found.push(((a[0] + f * (b[0] - a[0]) - p[0]) * d[0] + (a[1] + f * (b[1] - a[1]) - p[1]) * d[1]) / (length * length));
      }
      a = b;
      sa = sb;
    }
  }
  return found.sort((x, y) => x - y);
}

/** Where the line w = const crosses outlines: sorted u coordinates, even-odd inside between pairs. */
export const loopCrossings = (loops: readonly Point2[][], w: number): number[] => flatSpans(loops, [0, w], [1, 0]);

/** Whether a point is inside outlines by the even-odd rule. */
export function insideLoops(loops: readonly Point2[][], [u, w]: Point2): boolean {
  let inside = false;
  for (const c of loopCrossings(loops, w)) if (c < u) inside = !inside;
  return inside;
}

/** Coordinates on each axis at which the tree has flat faces or ends, exact where the mesh of a drawing is rounded. */
export function exactCoordinates(e: Exact, out: [Set<number>, Set<number>, Set<number>], m?: Affine): void {
  const corners = (min: Point3, max: Point3): void => {
    for (let i = 0; i < 8; i++) {
      const c: Point3 = [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]];
      const q = m ? apply(m, c) : c;
      for (let a = 0; a < 3; a++) out[a].add(q[a]);
    }
  };
  switch (e.form) {
    case 'box':
      return corners(e.min, e.max);
    case 'cylinder':
    case 'cone': {
      const r = e.form === 'cone' ? Math.max(...e.radii) : e.radius;
      const min = e.base.map((b, a) => (a === e.axis ? b : b - r)) as Point3;
      const max = e.base.map((b, a) => (a === e.axis ? b + e.height : b + r)) as Point3;
      return corners(min, max);
    }
    case 'ball':
      return corners(e.centre.map((c, a) => c - e.radii[a]) as Point3, e.centre.map((c, a) => c + e.radii[a]) as Point3);
    case 'prism': {
      const [u, w] = inPlane[e.normal];
      for (const loop of e.loops)
        for (const p of loop)
          for (const h of [e.offset, e.offset + e.height]) {
            const c: Point3 = [0, 0, 0];
            c[u] = p[0];
            c[w] = p[1];
            c[e.normal] = h;
            corners(c, c);
          }
      return;
    }
    case 'moved': {
      const inner = e.matrix;
      return exactCoordinates(e.of, out, m ? compose(m, inner) : inner);
    }
    case 'join':
    case 'common':
      return e.parts.forEach((p) => exactCoordinates(p, out, m));
    case 'cut':
      exactCoordinates(e.from, out, m);
      return e.tools.forEach((p) => exactCoordinates(p, out, m));
    case 'folded':
    case 'mesh':
      return;
  }
}

/** Corners of the box around a tree without meshes, as wide as its parts can make it. */
export function exactBounds(e: Exact): { min: Point3; max: Point3 } {
  const known: [Set<number>, Set<number>, Set<number>] = [new Set(), new Set(), new Set()];
  exactCoordinates(e, known);
  return { min: known.map((k) => Math.min(...k)) as Point3, max: known.map((k) => Math.max(...k)) as Point3 };
}
