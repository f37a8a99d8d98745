import type { Point2, Point3 } from '../../document/index.ts';
import { type Body, type Filled, type FilledOverBand, Filling } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { leastArea } from '../cutCells.ts';
import { faceName, shifted } from '../enlarge.ts';
import type { Media } from '../media.ts';
import { nodesAround } from '../nodeRegion.ts';
import type { EdgeRow } from '../rows.ts';
import { type FacePart, type MetalStretch, partsOfFace } from './face.ts';
import { Plate } from './plate.ts';

/** Field number of samples that stand in no array of the grid. */
export const apart = 6;

const tilted = (b: Body): boolean => b.shape.form === 'tilted sheet' && b.material.kind === 'conductor';
/** Whether sheets of metal of a scene stand across no axis, so that they split cells. */
export const splitsCells = (scene: Filled): boolean => scene.bodies.some(tilted);

/** A free part of an edge of the grid, by parts of its length; `sample` is its number among those apart, null where the array of the grid holds it. */
export interface EdgePart {
  from: number;
  to: number;
  sample: number | null;
}
/** An edge that sheets cross, or that bounds a face which they part. */
export interface SplitEdge {
  component: Axis;
  at: Point3;
  parts: EdgePart[];
}
/** A part of an edge as one of the sides of a part of a face: the derivative that it belongs to (0: along the first axis after the normal) and its sign in the curl. */
export interface Side {
  edge: SplitEdge;
  part: number;
  along: 0 | 1;
  sign: 1 | -1;
}
export interface SplitPart {
  sample: number;
  /** Free area as a part of the face's, and the area that it needs for the time step. */
  area: number;
  wanted: number;
  sides: Side[];
}
/** A face that sheets part. */
export interface SplitFace {
  normal: Axis;
  at: Point3;
  parts: SplitPart[];
  /**
   * Metal between two parts: its length, metres, lengthened where it leans; 1 + class, the number of the sample that holds the jump of H, by how much a voltage along it
   * drives that jump (1/m^2), and the share that the first part has in it.
   */
  joints: { one: number; other: number; length: number; mark: number; sample: number; drive: number; share: number }[];
}

/** What lies on an edge besides sheets that stand across no axis: metal, or free from one part of its length to another. */
export type FreeOfEdge = (c: Axis, at: Point3) => [from: number, to: number] | null;

/** A place where a sheet meets the outline of a face. */
interface Meeting extends MetalStretch {
  plates: { plate: number; p: Point3 }[];
  solid: boolean;
}

/** Nodes this close to a sheet lie on it, as a part of the longest edge across it. */
const onSheet = 0.002;
/** Stretches of an outline that are nearer than this are one. */
const touching = 1e-9;
/** A sheet that ends this close to another ends on it, as a part of the face. */
const near = 1e-3;
/** How far off its line a node may lie that counts as on a sheet, as a part of the face. */
const offLine = 0.1;
/** Walls that lean further than this stand along a face and have next to no field through it. */
const mostTilt = 5;

/**
 * Sheets of metal across no axis: an edge that one crosses has a part on either side, each with its own E, and a face that one parts has an H for each part; edges
 * and faces beside know on which side they stand (after contour paths on both sides of a thin sheet: T. G. Jurgens, A. Taflove, K. Umashankar, T. G. Moore, IEEE
 * Trans. Antennas Propag. 40, 357, 1992). Each side is what one side of solid metal is (cutCells.ts), so a sheet is of second order. A face in which a sheet ends is whole.
 */
export class Splits {
  readonly faces: SplitFace[] = [];
  /** Faces that a sheet meets which are of one part, but not whole. */
  readonly cut: (Omit<SplitPart, 'sample'> & Pick<SplitFace, 'normal' | 'at'>)[] = [];
  /** By component, j and k, for the rows of the grid. Those without parts are metal. */
  readonly rows = new Map<string, SplitEdge[]>();
  /** Where the samples apart stand, by number: field 0..5 and place. */
  readonly places: { field: number; at: Point3 }[] = [];
  readonly plates: Plate[];
  private readonly lo: number[];
  private readonly size: number[];
  private readonly strides: number[];
  /** Plates that hold a node, and where plates cross an edge, as parts of its length; edges that lie in one. Keys: place, that of edges with the component. */
  private readonly nodes = new Map<number, number[]>();
  private readonly crossings = new Map<number, { plate: number; t: number }[]>();
  private readonly lying = new Map<number, number>();
  private readonly edges = new Map<number, SplitEdge>();
  /** Edges that are metal because of sheets across no axis: those in one, and those in lossy sheets that bound a split face, which has no voltage there. */
  private readonly sealed = new Set<SplitEdge>();
  private readonly byFace = new Map<string, SplitFace>();
  private readonly filling: Filling;
  private freeOf: FreeOfEdge = () => [0, 1];

  constructor(
    private readonly scene: FilledOverBand & { boundaries?: readonly string[] },
    private readonly grid: Grid,
    media: Media,
  ) {
    const bodies = scene.bodies.filter(tilted);
    this.plates = scene.bodies.flatMap((b, n) => (tilted(b) ? [new Plate(b, media.conductor[media.ofBody[n]])] : []));
    ({ lo: this.lo, size: this.size } = nodesAround(bodies, scene, grid));
    this.strides = [1, this.size[0], this.size[0] * this.size[1]];
    this.filling = new Filling(scene.bodies.filter((b) => b.material.kind === 'conductor'), undefined, scene); // prettier-ignore
    this.plates.forEach((_, p) => this.lay(p));
  }

  /** Splits faces, once it is known what else lies on the edges. */
  split(freeOf: FreeOfEdge): this {
    this.freeOf = freeOf;
    for (const n of [0, 1, 2] as const) this.eachFace(n, (at) => this.splitFace(n, at));
    // Edges that a sheet crosses are split also where it ends in all faces beside; those in a sheet are metal.
    for (const key of this.crossings.keys()) this.edgeOf(Math.floor(key / this.count) as Axis, this.placeOf(key % this.count));
    for (const key of this.lying.keys()) this.sealed.add(this.edgeOf(Math.floor(key / this.count) as Axis, this.placeOf(key % this.count)));
    for (const edge of this.edges.values()) {
      const { component, at, parts } = edge;
      if ((!parts.length && !this.sealed.has(edge)) || this.behind(component, at)) continue;
      const row = `${component} ${at[1]} ${at[2]}`;
      const known = this.rows.get(row);
      if (known) known.push(edge);
      else this.rows.set(row, [edge]);
    }
    // Jumps come last, one after another.
    for (const face of this.faces) for (const j of face.joints) j.sample = this.sample(3 + face.normal, face.at);
    return this;
  }

  /** Whether a sheet meets the outline of a face, so that it may part it. */
  meets(n: Axis, at: readonly number[]): boolean {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const [beyondU, beyondV] = [shifted(at, u, 1), shifted(at, v, 1)];
    return (
      [at, beyondU, beyondV, shifted(beyondU, v, 1)].some((p) => this.inside(p) && this.nodes.has(this.key(p))) ||
      ([[u, at], [v, at], [u, beyondV], [v, beyondU]] as const).some(([c, p]) => this.inside(p) && this.crossings.has(this.edgeKey(c, p))) // prettier-ignore
    );
  }

  /** The face that sheets part at a place, if they do. */
  faceAt = (n: Axis, at: readonly number[]): SplitFace | undefined => this.byFace.get(faceName(n, at));
  /** The part of a face of which a part of an edge is a side. */
  partBeside = (n: Axis, at: readonly number[], edge: SplitEdge, part: number): SplitPart | undefined =>
    this.faceAt(n, at)?.parts.find((p) => p.sides.some((s) => s.edge === edge && s.part === part));
  /** The edge at a place, where it is one of those that are split or stand beside a split face. */
  edgeAt = (c: Axis, at: readonly number[]): SplitEdge | undefined => (this.inside(at) ? this.edges.get(this.edgeKey(c, at)) : undefined);
  /** Whether a sheet holds or touches a node. */
  touchesNode = (at: readonly number[]): boolean => this.inside(at) && this.nodes.has(this.key(at));
  /** Whether a sheet covers an edge. */
  lies = (c: Axis, at: readonly number[]): number => (this.inside(at) ? (this.lying.get(this.edgeKey(c, at)) ?? 0) : 0);

  private get count(): number {
    return this.size[0] * this.size[1] * this.size[2];
  }
  private key = (at: readonly number[]): number => at.reduce((sum, x, a) => sum + (x - this.lo[a]) * this.strides[a], 0);
  private edgeKey = (c: Axis, at: readonly number[]): number => c * this.count + this.key(at);
  private placeOf = (key: number): Point3 => [0, 1, 2].map((a) => this.lo[a] + (Math.floor(key / this.strides[a]) % this.size[a])) as Point3;
  private inside = (at: readonly number[]): boolean => at.every((x, a) => x >= this.lo[a] && x < this.lo[a] + this.size[a]);

  behindFace = (n: Axis, at: readonly number[]): boolean => this.behind(null, at, n);

  /** Whether an edge or face lies behind a wall that has a cell behind it, which holds an image. */
  private behind(between: Axis | null, at: readonly number[], flat: Axis | null = null): boolean {
    const { boundaries = [] } = this.scene;
    return at.some((x, a) => {
      const [low, high] = [0, 1].map((s) => (!boundaries[2 * a + s] || boundaries[2 * a + s] === 'open' ? 0 : this.grid.outerCells[2 * a + s]));
      const last = this.grid.lines[a].length - 1 - high;
      const half = between === a || (flat !== null && flat !== a);
      return x < low || x > last || (half && x === last);
    });
  }

  /** Where a node stands; beyond the region bodies go on as they end there. */
  private where(at: readonly number[]): Point3 {
    return at.map((x, a) => this.filling.clamp(a as Axis, this.grid.lines[a][x])) as Point3;
  }

  /** Takes down where a plate meets the grid. */
  private lay(p: number): void {
    const plate = this.plates[p];
    const distance = new Float64Array(this.count);
    const { lines } = this.grid;
    for (let key = 0; key < distance.length; key++) {
      const at = this.placeOf(key);
      const d = plate.distance(this.where(at));
      const longest = Math.max(
        ...at.map(
          (x, a) =>
            Math.abs(plate.normal[a]) *
            Math.max(x > 0 ? lines[a][x] - lines[a][x - 1] : 0, x + 1 < lines[a].length ? lines[a][x + 1] - lines[a][x] : 0),
        ),
      );
      // Beside the sheet, in its plane, a node lies on one side or the other.
      if (Math.abs(d) <= onSheet * longest && plate.holds(this.where(at), onSheet * longest)) add(this.nodes, key, p);
      else distance[key] = d || Number.MIN_VALUE;
    }
    for (const c of [0, 1, 2] as const)
      for (let key = 0; key < distance.length; key++) {
        const at = this.placeOf(key);
        if (at[c] + 1 >= this.lo[c] + this.size[c]) continue;
        const [d0, d1] = [distance[key], distance[key + this.strides[c]]];
        const [a, b] = [this.where(at), this.where(shifted(at, c, 1))];
        const on = (t: number): boolean => plate.holds(a.map((x, i) => x + t * (b[i] - x)) as Point3);
        if (d0 * d1 < 0) {
          const t = d0 / (d0 - d1);
          if (on(t)) add(this.crossings, this.edgeKey(c, at), { plate: p, t });
        } else if (d0 === 0 && d1 === 0 && on(0.5))
          this.lying.set(this.edgeKey(c, at), Math.max(plate.mark, this.lying.get(this.edgeKey(c, at)) ?? 0));
      }
  }

  private eachFace(n: Axis, visit: (at: Point3) => void): void {
    const seen = new Set<string>();
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const look = (at: Point3): void => {
      const name = faceName(n, at);
      if (seen.has(name)) return;
      seen.add(name);
      const far = shifted(shifted(at, u, 1), v, 1);
      if (this.inside(at) && this.inside(far) && !this.behind(null, at, n)) visit(at);
    };
    for (const key of this.crossings.keys()) {
      const c = Math.floor(key / this.count) as Axis;
      if (c === n) continue;
      const at = this.placeOf(key % this.count);
      const other = (3 - n - c) as Axis;
      look(at);
      look(shifted(at, other, -1) as Point3);
    }
    for (const key of this.nodes.keys()) {
      const at = this.placeOf(key);
      for (const du of [0, -1]) for (const dv of [0, -1]) look(shifted(shifted(at, u, du), v, dv) as Point3);
    }
  }

  private sample = (field: number, at: Point3): number => this.places.push({ field, at }) - 1;

  /** An edge with its free parts. */
  private edgeOf(component: Axis, at: Point3): SplitEdge {
    const key = this.edgeKey(component, at);
    let edge = this.edges.get(key);
    if (edge) return edge;
    const free = this.lying.has(key) ? null : this.freeOf(component, at);
    const cuts = [...new Set((this.crossings.get(key) ?? []).map((x) => x.t))].sort((a, b) => a - b);
    const parts: EdgePart[] = [];
    if (free) {
      const ends = [free[0], ...cuts.filter((t) => t > free[0] && t < free[1]), free[1]];
      for (let i = 1; i < ends.length; i++) if (ends[i] - ends[i - 1] > touching) parts.push({ from: ends[i - 1], to: ends[i], sample: null });
    }
    edge = { component, at, parts };
    if (parts.length > 1) for (const part of parts) part.sample = this.sample(component, at);
    this.edges.set(key, edge);
    return edge;
  }

  /** Sides of a face in turn: the edge, and whether it runs against the turn. */
  private sidesOf(n: Axis, at: Point3): { edge: SplitEdge; back: boolean }[] {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    return [
      { edge: this.edgeOf(u, at), back: false },
      { edge: this.edgeOf(v, shifted(at, u, 1) as Point3), back: false },
      { edge: this.edgeOf(u, shifted(at, v, 1) as Point3), back: true },
      { edge: this.edgeOf(v, at), back: true },
    ];
  }

  /** Metal on the outline of a face, in turn. */
  private meetings(n: Axis, at: Point3, sides: { edge: SplitEdge; back: boolean }[]): Meeting[] {
    const found: Meeting[] = [];
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const corners = [at, shifted(at, u, 1), shifted(shifted(at, u, 1), v, 1), shifted(at, v, 1)];
    corners.forEach((corner, s) => {
      const held = this.nodes.get(this.key(corner));
      if (held) found.push({ from: s, to: s, solid: false, plates: held.map((plate) => ({ plate, p: this.where(corner) })) });
    });
    sides.forEach(({ edge: { component, at: start, parts }, back }, s) => {
      const on = (t: number): number => s + (back ? 1 - t : t);
      const [a, b] = [this.where(start), this.where(shifted(start, component, 1))];
      for (const { plate, t } of this.crossings.get(this.edgeKey(component, start)) ?? [])
        found.push({ from: on(t), to: on(t), solid: false, plates: [{ plate, p: a.map((x, i) => x + t * (b[i] - x)) as Point3 }] });
      const ends = [0, ...parts.flatMap((p) => [p.from, p.to]), 1];
      for (let i = 0; i < ends.length; i += 2) {
        if (ends[i + 1] - ends[i] <= touching) continue;
        const [from, to] = [on(ends[i]), on(ends[i + 1])];
        found.push({ from: Math.min(from, to), to: Math.max(from, to), solid: true, plates: [] });
      }
    });
    found.sort((x, y) => x.from - y.from || x.to - y.to);
    const merged: Meeting[] = [];
    const join = (into: Meeting, one: Meeting, by: number): void => {
      into.to = Math.max(into.to, one.to + by);
      into.solid ||= one.solid;
      into.plates.push(...one.plates);
    };
    for (const one of found) {
      const last = merged.at(-1);
      if (last && one.from <= last.to + touching) join(last, one, 0);
      else merged.push({ ...one, plates: [...one.plates] });
    }
    // The last may reach the first over the corner where the outline begins.
    if (merged.length > 1 && merged[0].from + 4 <= merged.at(-1)!.to + touching) join(merged.at(-1)!, merged.shift()!, 4);
    return merged;
  }

  /** Which meetings hang together inside a face: a number for each. */
  private groups(n: Axis, at: Point3, all: readonly Meeting[]): number[] {
    const sets = new Sets(all.length);
    // What meets the outline twice hangs together where its metal goes on in between.
    this.plates.forEach((plate, p) => {
      const mine = all.flatMap((m, i) => m.plates.filter((x) => x.plate === p).map((x) => ({ i, p: x.p })));
      mine.forEach((a, k) => {
        for (const b of mine.slice(k + 1)) {
          const d = b.p.map((x, c) => x - a.p[c]) as Point3;
          if (Math.hypot(...d) === 0 || plate.reach(a.p, d) > 1 - 1e-6) sets.join(a.i, b.i);
        }
      });
    });
    if (all.length > 1) this.joinTraces(n, at, all, sets);
    return all.map((_, i) => sets.of(i));
  }

  /** Joins what meets inside a face: the lines in which sheets cross it, and solid metal in which such a line ends. */
  private joinTraces(n: Axis, at: Point3, all: readonly Meeting[], sets: Sets): void {
    const [low, high] = [this.where(at), this.where(at.map((x, k) => x + (k === n ? 0 : 1)))];
    const [u, v] = [(n + 1) % 3, (n + 2) % 3];
    const size = Math.hypot(high[u] - low[u], high[v] - low[v]);
    const slack = near * size;
    const flat = (p: Point3): Point2 => [p[u], p[v]];
    const traces = this.plates.flatMap((plate, p) => {
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
      if (beyond.some((p) => this.filled(p))) for (const k of solids) sets.join(k, one.set);
    });
  }

  /** Where in the unit square of a face two sheets cross or meet that pass from one place of its outline to another. */
  private knee(n: Axis, at: Point3, one: Meeting, other: Meeting): [number, number] | null {
    if (one.plates.some((x) => other.plates.some((y) => x.plate === y.plate))) return null;
    const [u, v] = [(n + 1) % 3, (n + 2) % 3];
    const low = this.where(at);
    const high = this.where(at.map((x, k) => x + (k === n ? 0 : 1)));
    for (const a of one.plates)
      for (const b of other.plates) {
        const [p, q] = [this.plates[a.plate].normal, this.plates[b.plate].normal];
        const across = p[u] * q[v] - p[v] * q[u];
        if (Math.abs(across) < 1e-9) continue;
        const [dp, dq] = [p[u] * a.p[u] + p[v] * a.p[v], q[u] * b.p[u] + q[v] * b.p[v]];
        const x = [(dp * q[v] - dq * p[v]) / across, (dq * p[u] - dp * q[u]) / across];
        const inUnit = x.map((c, k) => (c - low[[u, v][k]]) / (high[[u, v][k]] - low[[u, v][k]])) as [number, number];
        if (inUnit.every((c) => c > 0 && c < 1)) return inUnit;
      }
    return null;
  }

  private filled([x, y, z]: Point3): boolean {
    const out = new Uint16Array(1);
    this.filling.row(y, z, Float64Array.of(this.filling.clamp(0, x)), out);
    return out[0] > 0;
  }

  private splitFace(n: Axis, at: Point3): void {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const { lines } = this.grid;
    const sides = this.sidesOf(n, at);
    const all = this.meetings(n, at, sides);
    const group = this.groups(n, at, all);
    const lengths = [u, v].map((a) => lines[a][at[a] + 1] - lines[a][at[a]]) as [number, number];
    const area = lengths[0] * lengths[1];
    const parts = partsOfFace(all, group, lengths, (i, j) => this.knee(n, at, all[i], all[j]));
    const sidesAlong = (free: FacePart['free']): Side[] => {
      const own: Side[] = [];
      sides.forEach(({ edge, back }, s) =>
        edge.parts.forEach((part, i) => {
          const middle = s + (back ? 1 - (part.from + part.to) / 2 : (part.from + part.to) / 2);
          if (free.some(({ from, to }) => [middle, middle + 4].some((m) => m > from && m < to)))
            own.push({ edge, part: i, along: s % 2 === 1 ? 0 : 1, sign: s < 2 ? -1 : 1 });
        }),
      );
      return own;
    };
    const partOf = ({ free, area: free1 }: FacePart): Omit<SplitPart, 'sample'> => {
      const [own, sidesOfIt] = [Math.max(onSheet, free1), sidesAlong(free)];
      return { area: own, wanted: Math.max(own, leastArea * longest(sidesOfIt)), sides: sidesOfIt };
    };
    if (parts.length < 2) {
      if (parts.length && parts[0].area < 1 - onSheet) this.cut.push({ normal: n, at, ...partOf(parts[0]) });
      return;
    }
    const face: SplitFace = {
      normal: n,
      at,
      parts: parts.map((p) => ({ sample: this.sample(3 + n, at), ...partOf(p) })),
      joints: [],
    };
    // Metal between two parts bounds either, in opposite ways.
    parts.forEach(({ walls }, one) =>
      walls.forEach((w) =>
        parts.forEach(({ walls: others }, other) => {
          if (other <= one || !others.some((o) => o.from === w.to && o.to === w.from)) return;
          const shared = all[w.from].plates.find((x) => all[w.to].plates.some((y) => y.plate === x.plate)) ?? all[w.from].plates[0];
          if (!shared) return;
          const { mark, normal } = this.plates[shared.plate];
          const lean = Math.min(mostTilt, 1 / Math.sqrt(Math.max(1e-12, 1 - normal[n] ** 2)));
          if (mark < 2) return;
          const [of1, of2] = [one, other].map((p) => 1 / (face.parts[p].area * area));
          face.joints.push({ one, other, length: w.length * lean, mark, sample: -1, drive: of1 + of2, share: of1 / (of1 + of2) });
        }),
      ),
    );
    for (const { edge } of sides) if (!edge.parts.length) this.sealed.add(edge);
    this.faces.push(face);
    this.byFace.set(faceName(n, at), face);
  }
}

/** Longest of the sides of a part, as a part of its edge. */
function longest(sides: readonly Side[]): number {
  const lengths = new Map<SplitEdge, number>();
  for (const { edge, part } of sides) lengths.set(edge, (lengths.get(edge) ?? 0) + edge.parts[part].to - edge.parts[part].from);
  return Math.max(0, ...lengths.values());
}

/** Sets of numbers that are joined. */
class Sets {
  private readonly parent: number[];
  constructor(count: number) {
    this.parent = Array.from({ length: count }, (_, i) => i);
  }
  add = (): number => this.parent.push(this.parent.length) - 1;
  of(i: number): number {
    while (this.parent[i] !== i) i = this.parent[i];
    return i;
  }
  join = (i: number, j: number): void => void (this.parent[this.of(i)] = this.of(j));
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

function add<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}

/** What solids and aligned sheets leave of edges, as rows of the grid tell it; `lowEnd` tells at which end the metal of a cut edge lies. */
export function freeInRows(rowOf: (c: Axis, j: number, k: number) => EdgeRow, grid: Grid, metalAt: (at: readonly number[]) => boolean): FreeOfEdge {
  const known = new Map<string, { metal: Uint8Array; free: Float64Array | null }>();
  const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
  return (c, at) => {
    const [i, j, k] = at;
    if ((c !== 0 && (i === 0 || i === nx)) || (c !== 1 && (j === 0 || j === ny)) || (c !== 2 && (k === 0 || k === nz))) return null;
    const name = `${c} ${j} ${k}`;
    let row = known.get(name);
    if (!row) {
      const { mixed, metal, sheet, free } = rowOf(c, j, k);
      row = {
        metal: mixed ? Uint8Array.from(metal, (m, n) => (m || sheet[n] > 1 ? 1 : 0)) : new Uint8Array(nx + 1),
        free: mixed && free ? free.slice() : null,
      };
      known.set(name, row);
    }
    if (row.metal[i]) return null;
    const part = Math.min(1, row.free?.[i] ?? 1);
    if (part === 1) return [0, 1];
    return metalAt(at) ? [1 - part, 1] : [0, part];
  };
}
