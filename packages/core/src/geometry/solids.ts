import type { Manifold } from 'manifold-3d';
import { inPlane, type Point2, type Point3, signedArea, type SolidRecipe } from '../shapes/index.ts';
import { type Box, boxFaces, boxMesh } from './boxMesh.ts';
import type { Exact } from './exact.ts';
import { GeometryFault } from './fault.ts';
import { type Loops, tidyLoops } from './flat.ts';
import type { DrawnMesh, SolidPart } from './item.ts';
import type { Kernel } from './kernel.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Names of the faces of each mesh that was made, by the kernel's number of that mesh, and the line that made it. */
export class Origins extends Map<number, { line: string; faces: string[] }> {
  /** Numbers of the meshes made since it was last emptied, so that they can be forgotten with the item they were made for. */
  made: number[] = [];

  override set(id: number, origin: { line: string; faces: string[] }): this {
    this.made.push(id);
    return super.set(id, origin);
  }
}

/** Gathers corners and triangles with the face that each belongs to. */
export class SolidMesh {
  private readonly positions: number[] = [];
  private readonly triangles: number[] = [];
  private readonly faceOf: number[] = [];
  readonly faces: string[] = [];

  corner(p: Point3): number {
    this.positions.push(p[0], p[1], p[2]);
    return this.positions.length / 3 - 1;
  }

  face(name: string): number {
    const at = this.faces.indexOf(name);
    return at >= 0 ? at : this.faces.push(name) - 1;
  }

  triangle(a: number, b: number, c: number, face: number): void {
    if (a === b || b === c || c === a) return;
    this.triangles.push(a, b, c);
    this.faceOf.push(face);
  }

  /** Corners of a ring; one corner if all its points are the same. */
  ring(points: readonly Point3[]): number[] {
    const first = points[0];
    if (points.every((p) => p[0] === first[0] && p[1] === first[1] && p[2] === first[2])) {
      const one = this.corner(first);
      return points.map(() => one);
    }
    return points.map((p) => this.corner(p));
  }

  /** Skin between two rings, corner by corner. */
  skin(a: readonly number[], b: readonly number[], face: (side: number) => number): void {
    for (let i = 0; i < a.length; i++) {
      const j = (i + 1) % a.length;
      this.triangle(a[i], a[j], b[j], face(i));
      this.triangle(a[i], b[j], b[i], face(i));
    }
  }

  /** Closes a flat ring. */
  cap(kernel: Kernel, ring: readonly number[], name: string, reverse: boolean): void {
    if (ring.every((v) => v === ring[0])) return;
    const points = ring.map((v): Point3 => [this.positions[3 * v], this.positions[3 * v + 1], this.positions[3 * v + 2]]);
    const face = this.face(name);
    const flat = flattened(points);
    const triangles = isConvex(flat) ? fan(flat.length) : kernel.triangulate([flat]);
    for (const [a, b, c] of triangles)
      if (reverse) this.triangle(ring[a], ring[c], ring[b], face);
      else this.triangle(ring[a], ring[b], ring[c], face);
  }

  /** The mesh under a number of its own; its outside is made to face outwards. */
  drawn(kernel: Kernel, origins: Origins, line: string): DrawnMesh {
    const { positions: p, triangles: t } = this;
    let six = 0;
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [3 * t[i], 3 * t[i + 1], 3 * t[i + 2]];
      six +=
        p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) -
        p[a + 1] * (p[b] * p[c + 2] - p[b + 2] * p[c]) +
        p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c]);
    }
    if (six < 0) for (let i = 0; i < t.length; i += 3) [t[i + 1], t[i + 2]] = [t[i + 2], t[i + 1]];
    const id = kernel.Manifold.reserveIDs(1);
    origins.set(id, { line, faces: this.faces });
    return {
      numProp: 3,
      vertProperties: Float32Array.from(p),
      triVerts: Uint32Array.from(t),
      faceID: Uint32Array.from(this.faceOf),
      runOriginalID: Uint32Array.of(id),
      runIndex: Uint32Array.of(0, t.length),
    };
  }

  /**
   * The solid.
   * @throws GeometryFault where the skin is not closed.
   */
  solid(kernel: Kernel, origins: Origins, line: string): Manifold {
    const mesh = this.drawn(kernel, origins, line);
    try {
      return new kernel.Manifold(new kernel.Mesh(mesh));
    } catch {
      throw new GeometryFault('The surface does not close to a body.', 'Look for parts of no thickness or points that coincide.');
    }
  }
}

/** A solid whose skin is sure to close: the kernel's body is made when it is first combined with another. */
class SureSolid implements SolidPart {
  private built: Manifold | null = null;
  private mesh: DrawnMesh | null = null;
  constructor(
    private readonly kernel: Kernel,
    private readonly make: () => DrawnMesh,
    readonly exact: Exact | null,
    readonly box?: Box,
  ) {}
  get drawn(): DrawnMesh {
    return (this.mesh ??= this.make());
  }
  get manifold(): Manifold {
    return (this.built ??= new this.kernel.Manifold(new this.kernel.Mesh(this.drawn)));
  }
  release(): void {
    this.built?.delete();
    this.built = null;
  }
}

/** Gives back the kernel's memory that a solid holds. */
export const release = (solid: SolidPart): void => (solid instanceof SureSolid ? solid.release() : solid.manifold.delete());

/** Whether an outline turns left at every corner. */
export const isConvex = (p: readonly Point2[]): boolean =>
  p.every(([x, y], i) => {
    const [a, b] = [p[(i + 1) % p.length], p[(i + 2) % p.length]];
    return (a[0] - x) * (b[1] - a[1]) - (a[1] - y) * (b[0] - a[0]) > 0;
  });

/** Triangles of a convex outline of n corners. */
export const fan = (n: number): [number, number, number][] => Array.from({ length: n - 2 }, (_, i) => [0, i + 1, i + 2]);

/** Sides of the polygons that stand for circles when solids are drawn; solvers use the exact shapes where there are any. */
const drawnSides = 64;

/** Points of a nearly flat ring in its own plane, counter-clockwise as the ring runs (Newell's normal). */
function flattened(points: readonly Point3[]): Point2[] {
  const n: Point3 = [0, 0, 0];
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length];
    for (let a = 0; a < 3; a++) n[a] += (p[(a + 1) % 3] - q[(a + 1) % 3]) * (p[(a + 2) % 3] + q[(a + 2) % 3]);
  });
  const axis = [0, 1, 2].reduce((best, a) => (Math.abs(n[a]) > Math.abs(n[best]) ? a : best), 0) as Axis;
  const [u, w] = inPlane[axis];
  // The triangulator wants outlines that turn left; a ring that turns right is mirrored, which keeps its own order.
  const s = n[axis] < 0 ? -1 : 1;
  return points.map((p): Point2 => [p[u] * s, p[w]]);
}

const ringName = (i: number): string => `side${i + 1}`;

interface RingOptions {
  closed?: boolean;
  side?: (i: number) => string;
  ends?: [string, string];
}

/** The skin of rings of as many points each, in order along it. */
function ringMesh(kernel: Kernel, rings: readonly Point3[][], { closed = false, side = ringName, ends = ['bottom', 'top'] }: RingOptions): SolidMesh {
  const mesh = new SolidMesh();
  const corners = rings.map((r) => mesh.ring(r));
  const faces = rings[0].map((_, i) => mesh.face(side(i)));
  for (let k = 0; k + (closed ? 0 : 1) < corners.length; k++) mesh.skin(corners[k], corners[(k + 1) % corners.length], (i) => faces[i]);
  if (!closed) {
    mesh.cap(kernel, corners[0], ends[0], true);
    mesh.cap(kernel, corners[corners.length - 1], ends[1], false);
  }
  return mesh;
}

/** A solid from rings of as many points each, in order along it. */
export const ringSolid = (kernel: Kernel, origins: Origins, line: string, rings: readonly Point3[][], options: RingOptions = {}): Manifold =>
  ringMesh(kernel, rings, options).solid(kernel, origins, line);

/** A solid over outlines in the plane across `normal`. */
export function prismSolid(kernel: Kernel, origins: Origins, line: string, normal: Axis, offset: number, height: number, given: Loops): Manifold {
  const loops = given.length === 1 ? [signedArea(given[0]) > 0 ? given[0] : [...given[0]].reverse()] : tidyLoops(kernel, given);
  const mesh = new SolidMesh();
  const [u, w] = inPlane[normal];
  const lift = (p: Point2, h: number): number => {
    const q: Point3 = [0, 0, 0];
    q[u] = p[0];
    q[w] = p[1];
    q[normal] = h;
    return mesh.corner(q);
  };
  const total = loops.reduce((n, l) => n + l.length, 0);
  const name = (i: number): string => (total > 64 ? 'side' : ringName(i));
  const low: number[] = [];
  const high: number[] = [];
  let count = 0;
  for (const loop of loops) {
    const a = loop.map((p) => lift(p, offset));
    const b = loop.map((p) => lift(p, offset + height));
    const from = count;
    mesh.skin(a, b, (i) => mesh.face(name(from + i)));
    low.push(...a);
    high.push(...b);
    count += loop.length;
  }
  const [bottom, top] = [mesh.face('bottom'), mesh.face('top')];
  for (const [a, b, c] of kernel.triangulate(loops)) {
    mesh.triangle(low[a], low[c], low[b], bottom);
    mesh.triangle(high[a], high[b], high[c], top);
  }
  return mesh.solid(kernel, origins, line);
}

/** Unit circle; a multiple of four points, exact at the quarters. */
const circle = (n = drawnSides): Point2[] =>
  Array.from({ length: n }, (_, i): Point2 => {
    const q = (4 * i) / n;
    return Number.isInteger(q) ? ([[1, 0], [0, 1], [-1, 0], [0, -1]][q] as Point2) : [Math.cos((q * Math.PI) / 2), Math.sin((q * Math.PI) / 2)]; // prettier-ignore
  });

const around = (axis: Axis, centre: Point3, along: number, points: readonly Point2[]): Point3[] =>
  points.map((p) => {
    const q: Point3 = [...centre];
    q[axis] += along;
    q[inPlane[axis][0]] += p[0];
    q[inPlane[axis][1]] += p[1];
    return q;
  });

/** Rings of a profile of (radius, height) turned about an axis: one ring of the profile's points at each angle. */
function turnedRings(axis: Axis, at: Point3, profile: readonly Point2[], angle: number): { rings: Point3[][]; closed: boolean } {
  const closed = angle > 2 * Math.PI - sameNumber;
  const n = Math.max(4, Math.ceil((drawnSides * angle) / (2 * Math.PI) - sameNumber));
  const [u, w] = inPlane[axis];
  const whole = circle(n);
  const rings = Array.from({ length: closed ? n : n + 1 }, (_, k) => {
    const t = (angle * k) / n;
    const [c, s] = closed ? whole[k] : [Math.cos(t), Math.sin(t)];
    return profile.map(([r, h]): Point3 => {
      const p: Point3 = [...at];
      p[u] += r * c;
      p[w] += r * s;
      p[axis] += h;
      return p;
    });
  });
  return { rings, closed };
}

/** A profile turned about an axis. Points on the axis are shared between the rings. */
function turnedSolid(
  kernel: Kernel,
  origins: Origins,
  line: string,
  axis: Axis,
  at: Point3,
  given: readonly Point2[],
  angle: number,
  side: (i: number) => string,
): Manifold {
  const profile = signedArea(given) > 0 ? given : [...given].reverse();
  const { rings, closed } = turnedRings(axis, at, profile, angle);
  const mesh = new SolidMesh();
  const onAxis = new Map<number, number>();
  const corners = rings.map((ring) =>
    ring.map((p, i) => {
      if (profile[i][0] !== 0) return mesh.corner(p);
      if (!onAxis.has(i)) onAxis.set(i, mesh.corner(p));
      return onAxis.get(i)!;
    }),
  );
  const faces = profile.map((_, i) => mesh.face(side(i)));
  for (let k = 0; k + (closed ? 0 : 1) < corners.length; k++) {
    const [a, b] = [corners[k], corners[(k + 1) % corners.length]];
    for (let i = 0; i < a.length; i++) {
      const j = (i + 1) % a.length;
      // An edge on the axis sweeps no face.
      if (profile[i][0] === 0 && profile[j][0] === 0) continue;
      mesh.triangle(a[i], a[j], b[j], faces[i]);
      mesh.triangle(a[i], b[j], b[i], faces[i]);
    }
  }
  if (!closed) {
    mesh.cap(kernel, corners[0], 'start', true);
    mesh.cap(kernel, corners[corners.length - 1], 'end', false);
  }
  return mesh.solid(kernel, origins, line);
}

/** Solid and exact shape of a recipe that needs no other line. `exact` is null where a mesh is all there is. */
export function buildSolid(kernel: Kernel, origins: Origins, line: string, r: SolidRecipe): SolidPart {
  const sure = (mesh: SolidMesh, exact: Exact): SolidPart => {
    const drawn = mesh.drawn(kernel, origins, line);
    return new SureSolid(kernel, () => drawn, exact);
  };
  switch (r.form) {
    case 'box': {
      const id = kernel.Manifold.reserveIDs(1);
      origins.set(id, { line, faces: boxFaces });
      return new SureSolid(kernel, () => boxMesh(r, id), r, r);
    }
    case 'cylinder': {
      const whole = { form: 'cylinder', axis: r.axis, base: r.base, height: r.height, radius: r.radius } as const;
      if (r.bore === 0) return sure(roundMesh(kernel, r.axis, r.base, r.height, [r.radius, r.radius]), whole);
      const profile: Point2[] = [[r.bore, 0], [r.radius, 0], [r.radius, r.height], [r.bore, r.height]]; // prettier-ignore
      const manifold = turnedSolid(kernel, origins, line, r.axis, r.base, profile, 2 * Math.PI, (i) => ['bottom', 'side', 'top', 'bore'][i]);
      return { manifold, exact: { form: 'cut', from: whole, tools: [{ ...whole, radius: r.bore }] } };
    }
    case 'cone':
      return sure(roundMesh(kernel, r.axis, r.base, r.height, r.radii), { ...r });
    case 'ball': {
      const half = drawnSides / 2;
      const rings = Array.from({ length: half + 1 }, (_, k) => {
        const [c, s] = k === 0 ? [-1, 0] : k === half ? [1, 0] : [-Math.cos((Math.PI * k) / half), Math.sin((Math.PI * k) / half)];
        return circle().map(([x, y]): Point3 => [r.centre[0] + r.radii[0] * s * x, r.centre[1] + r.radii[1] * s * y, r.centre[2] + r.radii[2] * c]);
      });
      return sure(ringMesh(kernel, rings, { side: () => 'surface' }), { ...r });
    }
    case 'torus': {
      const profile = circle(48).map(([x, y]): Point2 => [r.major + r.minor * x, r.minor * y]);
      return { manifold: turnedSolid(kernel, origins, line, r.axis, r.centre, profile, 2 * Math.PI, () => 'surface'), exact: null };
    }
    case 'prism':
      return { manifold: prismSolid(kernel, origins, line, r.normal, r.offset, r.height, r.loops), exact: { ...r } };
    case 'rings':
      return { manifold: ringSolid(kernel, origins, line, r.rings), exact: null };
    case 'revolve':
      return { manifold: turnedSolid(kernel, origins, line, r.axis, r.at, r.profile, r.angle, ringName), exact: null };
  }
}

/** The skin of a cylinder or cone. */
function roundMesh(kernel: Kernel, axis: Axis, base: Point3, height: number, [r0, r1]: readonly [number, number]): SolidMesh {
  const ring = (r: number, h: number): Point3[] => around(axis, base, h, circle().map(([x, y]): Point2 => [r * x, r * y])); // prettier-ignore
  return ringMesh(kernel, [ring(r0, 0), ring(r1, height)], { side: () => 'side' });
}
