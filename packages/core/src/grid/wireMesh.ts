import type { Point3 } from '../document/index.ts';
import { dot, minus } from '../numerics/vector.ts';
import { type WirePlace, type WireScene } from '../scene/index.ts';
import { sameMesh, sameNumber } from '../numerics/tolerance.ts';

/** Straight pieces of wires, the nodes that join them, and the basis functions that carry the current across nodes. */
export interface WireMesh {
  /** Of each segment: start x, y, z, unit direction x, y, z, length, radius; metres. */
  segments: Float64Array;
  count: number;
  /** Wire that each segment belongs to; those of one wire follow each other. */
  wireOf: Int32Array;
  /** First segment of each wire, and one more. */
  firstOf: Int32Array;
  /** Metres along its wire at which each segment starts. */
  along: Float64Array;
  /** Node at the start and at the end of each segment. */
  nodes: Int32Array;
  nodeCount: number;
  /** Nodes that lie on a perfect ground. */
  grounded: boolean[];
  /**
   * Halves of the basis functions: a basis is one at an end of each of its segments and falls linearly to zero at the other. `sign` is +1 where its current runs
   * along the segment. Halves of basis b are those from halfFirst[b] to halfFirst[b + 1].
   */
  halfFirst: Int32Array;
  halves: { segment: number; end: 0 | 1; sign: 1 | -1 }[];
  bases: number;
}

/** Largest turn along one segment of a curved wire, radians. */
const largestTurn = Math.PI / 12;
/** A turn between two pieces that is a corner, not a curve. */
const cornerTurn = Math.PI / 6;

export interface MeshOptions {
  /** Largest length of a segment, metres. */
  longest: number;
  /** How many times shorter segments become at free ends and gaps; absent: 1. */
  grading?: number;
}

const between = (a: Point3, b: Point3): number => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);

/** Distance from a point to a straight piece, and the share of its length at which it is nearest. */
export function toPiece(p: Point3, a: Point3, b: Point3): { distance: number; share: number } {
  const d = minus(b, a);
  const l = dot(d, d);
  const share = l > 0 ? Math.min(1, Math.max(0, dot(minus(p, a), d) / l)) : 0;
  return { distance: between(p, [a[0] + share * d[0], a[1] + share * d[1], a[2] + share * d[2]]), share };
}

/** Corners of a wire with the length up to each; a closed one comes back to its start. */
export function polylineOf({ points, closed }: Pick<WireScene['wires'][0], 'points' | 'closed'>): { points: Point3[]; at: number[] } {
  const all = closed ? [...points, points[0]] : points;
  const at = [0];
  for (let i = 1; i < all.length; i++) at.push(at[i - 1] + between(all[i - 1], all[i]));
  return { points: all, at };
}

/** The point of a course at a length. */
export function pointOn({ points, at }: { points: Point3[]; at: number[] }, s: number): Point3 {
  let i = at.findIndex((x) => x >= s);
  if (i < 0) i = at.length - 1;
  if (i === 0) return points[0];
  const t = at[i] > at[i - 1] ? (s - at[i - 1]) / (at[i] - at[i - 1]) : 0;
  return points[i - 1].map((x, a) => x + t * (points[i][a] - x)) as Point3;
}

/** Length below which two points of wires are one: a part of the thinnest radius. */
export const joinWithin = (scene: WireScene): number => 0.1 * Math.min(...scene.wires.map((w) => w.radius));

/** Angle between two pieces that follow each other. */
function turnAt(a: Point3, b: Point3, c: Point3): number {
  const [u, v] = [minus(b, a), minus(c, b)];
  const cosine = dot(u, v) / (Math.hypot(...u) * Math.hypot(...v));
  return Math.acos(Math.min(1, Math.max(-1, cosine)));
}

/** A place of a wire at which a node must stand; `fine` where segments shorten towards it. */
interface Break {
  at: number;
  fine: boolean;
}

/** Breaks of each wire: ends, corners, what is fed or loaded, and where other wires touch it. */
function breaksOf(scene: WireScene, within: number): Break[][] {
  const courses = scene.wires.map(polylineOf);
  const floor = scene.ground?.kind === 'perfect' ? scene.ground.at : null;
  const breaks = scene.wires.map((w, n): Break[] => {
    const { points, at } = courses[n];
    const total = at[at.length - 1];
    const list = [0, total].map((s) => ({
      at: s,
      fine: !w.closed && !(floor !== null && Math.abs(points[s ? points.length - 1 : 0][2] - floor) <= within),
    }));
    for (let i = 1; i + 1 < points.length; i++)
      if (turnAt(points[i - 1], points[i], points[i + 1]) > cornerTurn) list.push({ at: at[i], fine: false });
    return list;
  });
  // Ends and corners of other wires that lie on this one; an end that touches something is not free.
  scene.wires.forEach((w, n) => {
    const own = breaks[n].map((b) => ({ b, p: pointOn(courses[n], b.at) }));
    scene.wires.forEach((_, m) => {
      const { points, at } = courses[m];
      for (const { b, p } of own) {
        if (m === n && (w.closed || !b.fine)) continue;
        for (let i = 1; i < points.length; i++) {
          const { distance, share } = toPiece(p, points[i - 1], points[i]);
          const s = at[i - 1] + share * (at[i] - at[i - 1]);
          if (distance > within || (m === n && Math.abs(s - b.at) <= within)) continue;
          b.fine = false;
          breaks[m].push({ at: s, fine: false });
        }
      }
    });
  });
  const gap = ({ wire, at }: WirePlace): number => breaks[wire].push({ at, fine: true });
  [...scene.ports, ...scene.loads].forEach((p) => gap(p.place));
  scene.lines.forEach(({ places }) => places.forEach(gap));
  scene.probes.forEach(({ place: { wire, at } }) => breaks[wire].push({ at, fine: false }));
  return breaks.map((list, n) => {
    const least = Math.min(within, sameMesh * courses[n].at[courses[n].at.length - 1]);
    const out: Break[] = [];
    for (const b of [...list].sort((x, y) => x.at - y.at)) {
      const last = out[out.length - 1];
      if (!last || b.at - last.at > least) out.push({ ...b });
      else if (b.fine && !last.fine) {
        // At an end that something holds, a gap still makes the segments short.
        last.fine = true;
      }
    }
    return out;
  });
}

/** Lengths that fill a stretch: at most `longest`, from `least` doubling towards its fine ends. */
export function pieceLengths(length: number, longest: number, [first, last]: [number, number], fewest: number): number[] {
  const even = Math.max(fewest, Math.ceil(length / longest - sameNumber));
  const most = length / even;
  const [head, tail]: number[][] = [[], []];
  let [x, y] = [Math.min(first, most), Math.min(last, most)];
  let left = length;
  for (;;) {
    const size = Math.min(x, y);
    if (size > left * (1 + sameNumber)) break;
    left -= size;
    if (x <= y) {
      head.push(x);
      x = Math.min(most, 2 * x);
    } else {
      tail.push(y);
      y = Math.min(most, 2 * y);
    }
  }
  if (left > most / 2) head.push(left);
  const all = [...head, ...tail.reverse()];
  const scale = length / all.reduce((s, l) => s + l, 0);
  return all.length >= fewest ? all.map((l) => l * scale) : Array.from({ length: fewest }, () => length / fewest);
}

/** Cuts the wires of a scene into segments. */
export function meshWires(scene: WireScene, { longest, grading = 1 }: MeshOptions): WireMesh {
  const within = joinWithin(scene);
  const breaks = breaksOf(scene, within);
  const rows: number[][] = [];
  const wireOf: number[] = [];
  const along: number[] = [];
  const ends: [Point3, Point3][] = [];
  const firstOf = [0];
  scene.wires.forEach((wire, n) => {
    const path = polylineOf(wire);
    const most = Math.max(longest, 2 * wire.radius);
    const least = Math.max(2 * wire.radius, most / grading);
    for (let b = 1; b < breaks[n].length; b++) {
      const [from, to] = [breaks[n][b - 1], breaks[n][b]];
      const slack = sameNumber * (to.at - from.at);
      let turned = 0;
      for (let i = 1; i + 1 < path.points.length; i++)
        if (path.at[i] > from.at + slack && path.at[i] < to.at - slack) turned += turnAt(path.points[i - 1], path.points[i], path.points[i + 1]);
      // A wire of one segment between free ends could carry nothing.
      const alone = breaks[n].length === 2 && !wire.closed ? 2 : wire.closed ? 3 : 1;
      const fewest = Math.max(alone, Math.ceil(turned / largestTurn - sameNumber));
      const sizes = pieceLengths(to.at - from.at, most, [from.fine ? least : most, to.fine ? least : most], fewest);
      let s = from.at;
      sizes.forEach((size, i) => {
        const p = pointOn(path, s);
        const next = i + 1 === sizes.length ? to.at : s + size;
        const q = pointOn(path, next);
        const l = between(p, q);
        rows.push([...p, (q[0] - p[0]) / l, (q[1] - p[1]) / l, (q[2] - p[2]) / l, l, wire.radius]);
        wireOf.push(n);
        along.push(s);
        ends.push([p, q]);
        s = next;
      });
    }
    firstOf.push(rows.length);
  });
  const { nodes, points } = joined(ends, within);
  const perfect = scene.ground?.kind === 'perfect' ? scene.ground.at : null;
  const grounded = points.map((p) => perfect !== null && Math.abs(p[2] - perfect) <= within);
  return {
    segments: Float64Array.from(rows.flat()),
    count: rows.length,
    wireOf: Int32Array.from(wireOf),
    firstOf: Int32Array.from(firstOf),
    along: Float64Array.from(along),
    nodes,
    nodeCount: points.length,
    grounded,
    ...basesOf(nodes, grounded),
  };
}

/** Gives points within a distance one number. Hashed by cells of that size, each point looks into the neighbours of its own. */
function joined(ends: [Point3, Point3][], within: number): { nodes: Int32Array; points: Point3[] } {
  const points: Point3[] = [];
  const cells = new Map<string, number[]>();
  const numberOf = (p: Point3): number => {
    const c = p.map((x) => Math.round(x / within));
    for (let x = -1; x <= 1; x++)
      for (let y = -1; y <= 1; y++)
        for (let z = -1; z <= 1; z++)
          for (const i of cells.get(`${c[0] + x},${c[1] + y},${c[2] + z}`) ?? []) if (between(points[i], p) <= within) return i;
    points.push(p);
    const key = c.join(',');
    cells.set(key, [...(cells.get(key) ?? []), points.length - 1]);
    return points.length - 1;
  };
  const nodes = Int32Array.from(ends.flatMap(([p, q]) => [numberOf(p), numberOf(q)]));
  return { nodes, points };
}

/** Basis functions: from the first end at a node to each other one; on a perfect ground each end has its own, which its image completes. */
function basesOf(nodes: Int32Array, grounded: boolean[]): Pick<WireMesh, 'halfFirst' | 'halves' | 'bases'> {
  const at: [segment: number, end: 0 | 1][][] = grounded.map(() => []);
  for (let i = 0; i < nodes.length; i++) at[nodes[i]].push([i >> 1, (i & 1) as 0 | 1]);
  const halves: WireMesh['halves'] = [];
  const halfFirst = [0];
  // In the order of the segments, so that bases of one segment stand together.
  const done = new Set<number>();
  for (const node of nodes) {
    if (done.has(node)) continue;
    done.add(node);
    const list = at[node];
    if (grounded[node])
      for (const [segment, end] of list) {
        halves.push({ segment, end, sign: end ? -1 : 1 });
        halfFirst.push(halves.length);
      }
    else
      for (let i = 1; i < list.length; i++) {
        const [s, e] = list[0];
        const [t, f] = list[i];
        halves.push({ segment: s, end: e, sign: e ? 1 : -1 }, { segment: t, end: f, sign: f ? -1 : 1 });
        halfFirst.push(halves.length);
      }
  }
  return { halfFirst: Int32Array.from(halfFirst), halves, bases: halfFirst.length - 1 };
}

/** The current through a point as a sum over bases: pairs of basis and sign, along the wire. Empty at a free end. */
export function currentAt(mesh: WireMesh, { wire, at }: WirePlace): [basis: number, sign: number][] {
  let segment = -1;
  let end: 0 | 1 = 0;
  let nearest = Infinity;
  for (let s = mesh.firstOf[wire]; s < mesh.firstOf[wire + 1]; s++)
    for (const e of [0, 1] as const) {
      const off = Math.abs(mesh.along[s] + (e ? mesh.segments[8 * s + 6] : 0) - at);
      // Chords are shorter than their curve, so starts, whose length is that along the wire, are preferred but for the last end.
      if (off < nearest - sameNumber * mesh.segments[8 * s + 6] && (e === 0 || s === mesh.firstOf[wire + 1] - 1))
        [segment, end, nearest] = [s, e, off];
    }
  const out: [number, number][] = [];
  for (let b = 0; b < mesh.bases; b++)
    for (let h = mesh.halfFirst[b]; h < mesh.halfFirst[b + 1]; h++) {
      const half = mesh.halves[h];
      if (half.segment === segment && half.end === end) out.push([b, half.sign]);
    }
  return out;
}
