import { type Point2, type Point3, signedArea } from '../shapes/index.ts';
import { apply, rotation } from '../numerics/affine.ts';
import { cross, dot, minus, normalised } from '../numerics/vector.ts';
import { GeometryFault } from './fault.ts';
import { cutLoops, type Loops, unionLoops } from './flat.ts';
import type { CurvePart } from './item.ts';
import type { Kernel } from './kernel.ts';
import { nothing, sameNumber } from '../numerics/tolerance.ts';

const distance = (a: Point3, b: Point3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const along = (p: Point3, d: Point3, t: number): Point3 => [p[0] + t * d[0], p[1] + t * d[1], p[2] + t * d[2]];

/** Unit directions of the pieces of a curve. */
export const directions = ({ points, closed }: CurvePart): Point3[] =>
  points.slice(0, closed ? undefined : -1).map((p, i) => normalised(minus(points[(i + 1) % points.length], p)));

/** Length of a curve, metres. */
export const curveLength = ({ points, closed }: CurvePart): number =>
  points.reduce((s, p, i) => (i + 1 < points.length || closed ? s + distance(p, points[(i + 1) % points.length]) : s), 0);

/** Point at a distance along a curve, and the direction there. */
export function pointAlong(curve: CurvePart, s: number): { point: Point3; direction: Point3 } {
  const ds = directions(curve);
  let left = s;
  for (let i = 0; i < ds.length; i++) {
    const l = distance(curve.points[i], curve.points[(i + 1) % curve.points.length]);
    if (left <= l || i === ds.length - 1) return { point: along(curve.points[i], ds[i], Math.min(left, l)), direction: ds[i] };
    left -= l;
  }
  return { point: curve.points[0], direction: ds[0] };
}

/** Turns v as the least turn from direction a to b does. */
function carried(v: Point3, a: Point3, b: Point3): Point3 {
  const axis = cross(a, b);
  const s = Math.hypot(...axis);
  if (s < nothing) return v;
  return apply(rotation(axis, Math.atan2(s, dot(a, b))), v);
}

/**
 * Rings of a profile carried along a curve without twist; at a bend the ring lies in the plane that halves the angle. The
 * profile's first axis points across (level where it can), the second up. Throws where a bend is sharper than 150 degrees.
 */
export function sweptRings(curve: CurvePart, given: readonly Point2[]): Point3[][] {
  const profile = signedArea(given) > 0 ? given : [...given].reverse();
  const { points, closed } = curve;
  const ds = directions(curve);
  const level = cross([0, 0, 1], ds[0]);
  let u: Point3 = Math.hypot(...level) < sameNumber ? [1, 0, 0] : normalised(level);
  const start = u;
  const us = ds.map((d, i) => (i ? (u = carried(u, ds[i - 1], d)) : u));
  let twist = 0;
  if (closed) {
    // What twist a closed curve gathers is spread evenly over it.
    const back = carried(us[us.length - 1], ds[ds.length - 1], ds[0]);
    twist = -Math.atan2(dot(cross(start, back), ds[0]), dot(start, back));
  }
  return points.map((p, k) => {
    const before = closed ? (k + ds.length - 1) % ds.length : Math.max(0, k - 1);
    const after = Math.min(k, ds.length - 1);
    const [d0, d1] = [ds[before], ds[after]];
    if (dot(d0, d1) < Math.cos((150 * Math.PI) / 180))
      throw new GeometryFault(`The curve turns back on itself at its point ${k + 1}.`, 'Make the bend wider than 30 degrees.', 'path');
    const i = k === 0 && closed ? 0 : before;
    const d = ds[i];
    const t = (twist * k) / points.length;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    const w = cross(d, us[i]);
    const half = normalised([d0[0] + d1[0], d0[1] + d1[1], d0[2] + d1[2]]);
    return profile.map(([a, b]) => {
      const [x, y] = [a * c - b * s, a * s + b * c];
      const q = p.map((o, n) => o + x * us[i][n] + y * w[n]) as Point3;
      return along(q, d, -dot(minus(q, p), half) / dot(d, half));
    });
  });
}

interface StripOptions {
  closed: boolean;
  corners: 'mitred' | 'sharp' | 'round' | 'swept';
  /** Share of the corner's diagonal that a mitre cuts off. */
  mitre: number;
  /** Radius of swept bends along the middle of the strip. */
  radius: number;
}

/** A polyline with its corners replaced by arcs of a radius. Throws where a piece is too short for its bends. */
function filleted(points: readonly Point2[], closed: boolean, radius: number): Point2[] {
  const n = points.length;
  const cuts = points.map((p, i) => {
    if (!closed && (i === 0 || i === n - 1)) return 0;
    const [a, b] = [points[(i + n - 1) % n], points[(i + 1) % n]];
    return radius * Math.tan(Math.abs(bend(a, p, b)) / 2);
  });
  return points.flatMap((p, i): Point2[] => {
    const cut = cuts[i];
    if (cut === 0) return [p];
    const [a, b] = [points[(i + n - 1) % n], points[(i + 1) % n]];
    const length = Math.hypot(b[0] - p[0], b[1] - p[1]);
    if (cut + cuts[(i + 1) % n] > length * (1 + sameNumber) || cut > Math.hypot(p[0] - a[0], p[1] - a[1]) * (1 + sameNumber))
      throw new GeometryFault(
        `The piece at point ${i + 1} is too short for bends of this radius.`,
        'Give a smaller bend radius or move the points apart.',
        'radius',
      );
    const turn = bend(a, p, b);
    const steps = Math.max(2, Math.ceil(Math.abs(turn) / 0.1));
    const la = Math.hypot(p[0] - a[0], p[1] - a[1]);
    const d: Point2 = [(p[0] - a[0]) / la, (p[1] - a[1]) / la];
    const from: Point2 = [p[0] - d[0] * cut, p[1] - d[1] * cut];
    const side = Math.sign(turn);
    const centre: Point2 = [from[0] - side * d[1] * radius, from[1] + side * d[0] * radius];
    return Array.from({ length: steps + 1 }, (_, k): Point2 => {
      const t = (turn * k) / steps;
      const [c, s] = [Math.cos(t), Math.sin(t)];
      const [x, y] = [from[0] - centre[0], from[1] - centre[1]];
      return [centre[0] + c * x - s * y, centre[1] + s * x + c * y];
    });
  });
}

/** Angle by which a path turns at p, left positive. */
function bend(a: Point2, p: Point2, b: Point2): number {
  const [x0, y0, x1, y1] = [p[0] - a[0], p[1] - a[1], b[0] - p[0], b[1] - p[1]];
  return Math.atan2(x0 * y1 - y0 * x1, x0 * x1 + y0 * y1);
}

/**
 * Outline of a strip of a width along a polyline of the plane.
 * @throws GeometryFault where the path turns back on itself.
 */
export function stripLoops(kernel: Kernel, given: readonly Point2[], width: number, o: StripOptions): Loops {
  const points = o.corners === 'swept' ? filleted(given, o.closed, o.radius) : given;
  const n = points.length;
  const half = width / 2;
  const pieces: Loops[] = [];
  const mitres: Loops[] = [];
  const normal = (a: Point2, b: Point2): Point2 => {
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
    return [(-(b[1] - a[1]) / l) * half, ((b[0] - a[0]) / l) * half];
  };
  const count = o.closed ? n : n - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [points[i], points[(i + 1) % n]];
    const m = normal(a, b);
    pieces.push([[[a[0] - m[0], a[1] - m[1]], [b[0] - m[0], b[1] - m[1]], [b[0] + m[0], b[1] + m[1]], [a[0] + m[0], a[1] + m[1]]]]); // prettier-ignore
  }
  for (let i = o.closed ? 0 : 1; i < (o.closed ? n : n - 1); i++) {
    const [a, p, b] = [points[(i + n - 1) % n], points[i], points[(i + 1) % n]];
    const turn = bend(a, p, b);
    if (Math.abs(turn) < sameNumber) continue;
    if (o.corners === 'round') {
      pieces.push([
        Array.from({ length: 48 }, (_, k): Point2 => [p[0] + half * Math.cos((Math.PI * k) / 24), p[1] + half * Math.sin((Math.PI * k) / 24)]),
      ]);
      continue;
    }
    if (Math.abs(turn) > (150 * Math.PI) / 180)
      throw new GeometryFault(`The path turns back on itself at its point ${i + 1}.`, 'Make the bend wider, or take round corners.', 'corners');
    // The wedge between the two pieces on the outer side, up to the tip.
    const out = turn > 0 ? -1 : 1;
    const [m0, m1] = [normal(a, p), normal(p, b)];
    const [e0, e1] = [m0, m1].map((m): Point2 => [m[1] / half, -m[0] / half]);
    const reach = half * Math.tan(Math.abs(turn) / 2);
    const q0: Point2 = [p[0] + out * m0[0], p[1] + out * m0[1]];
    const tip: Point2 = [q0[0] + e0[0] * reach, q0[1] + e0[1] * reach];
    pieces.push([[p, q0, tip, [p[0] + out * m1[0], p[1] + out * m1[1]]]]);
    if (o.corners !== 'mitred' || o.mitre === 0 || Math.abs(turn) < 0.2) continue;
    // The mitre stands across the diagonal from the tip to the inner corner.
    const back = (o.mitre * width) / Math.cos(turn / 2) / Math.sin(Math.abs(turn) / 2);
    mitres.push([[[tip[0] - e0[0] * back, tip[1] - e0[1] * back], tip, [tip[0] + e1[0] * back, tip[1] + e1[1] * back]]]);
  }
  const whole = unionLoops(kernel, pieces);
  return mitres.length ? cutLoops(kernel, whole, mitres) : whole;
}
