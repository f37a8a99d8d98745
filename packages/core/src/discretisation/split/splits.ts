import type { Point2, Point3 } from '../../document/index.ts';
import { either, without } from '../../geometry/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { type CutCells, leastArea, mostTilt } from '../cutCells.ts';
import { faceName, shifted } from '../enlarge.ts';
import { type FacePart, partsOfFace, placeOf, sameWith } from './face.ts';
import type { FreeOfEdge } from './freeOfEdges.ts';
import { Laid, onSheet } from './laid.ts';
import { ThinWalls } from './thinWalls.ts';
import { groups, knee, type Meeting, middleOf } from './meeting.ts';
import type { CutFace, EdgePart, Side, SplitEdge, SplitFace, SplitPart, Wall } from './types.ts';

/** Stretches of an outline that are nearer than this are one. */
const touching = 1e-9;

/**
 * Sheets of metal across no axis: an edge that one crosses has a part on either side, each with its own E, and a face that one parts has an H for each part; edges
 * and faces beside know on which side they stand (after contour paths on both sides of a thin sheet: T. G. Jurgens, A. Taflove, K. Umashankar, T. G. Moore, IEEE
 * Trans. Antennas Propag. 40, 357, 1992). Each side is what one side of solid metal is (cutCells.ts), so a sheet is of second order. A face in which a sheet ends is whole.
 */
export class Splits extends Laid {
  readonly faces: SplitFace[] = [];
  /** Faces that a sheet meets which are of one part, but not whole. */
  readonly cut: CutFace[] = [];
  /** By component, j and k, for the rows of the grid. Those without parts are metal. */
  readonly rows = new Map<string, SplitEdge[]>();
  /** Where the samples apart stand, by number: field 0..5 and place. */
  readonly places: { field: number; at: Point3 }[] = [];
  private readonly edges = new Map<number, SplitEdge>();
  /** Edges that are metal because of sheets across no axis: those in one, and those in lossy sheets that bound a split face, which has no voltage there. */
  private readonly sealed = new Set<SplitEdge>();
  private readonly byFace = new Map<string, SplitFace>();
  private solids: CutCells | null = null;
  private walls: ThinWalls | null = null;
  private freeOf: FreeOfEdge = () => [[0, 1]];

  /** Splits faces, once it is known what else lies on the edges, and what solids part faces by thin walls. */
  split(freeOf: FreeOfEdge, solids: CutCells | null = null): this {
    this.freeOf = freeOf;
    this.solids = solids;
    this.walls = solids && new ThinWalls(this.scene, this.grid, solids);
    for (const n of [0, 1, 2] as const) this.eachFace(n, (at) => this.splitFace(n, at));
    for (const { normal, at } of solids?.partedFaces.values() ?? [])
      if (!this.meets(normal, at) && !this.behind(null, at, normal)) this.splitFace(normal, at);
    // Edges that a sheet crosses are split also where it ends in all faces beside; those in a sheet are metal.
    for (const key of this.crossings.keys()) this.edgeOf(Math.floor(key / this.count) as Axis, this.placeOf(key % this.count));
    for (const key of this.lying.keys()) {
      const edge = this.edgeOf(Math.floor(key / this.count) as Axis, this.placeOf(key % this.count));
      if (!edge.parts.length) this.sealed.add(edge);
    }
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

  /** The face that sheets part at a place, if they do. */
  faceAt = (n: Axis, at: readonly number[]): SplitFace | undefined => this.byFace.get(faceName(n, at));
  /** The part of a face of which a part of an edge is a side. */
  partBeside = (n: Axis, at: readonly number[], edge: SplitEdge, part: number): SplitPart | undefined =>
    this.faceAt(n, at)?.parts.find((p) => p.sides.some((s) => s.edge === edge && s.part === part));
  /** The edge at a place, where it is one of those that are split or stand beside a split face. */
  edgeAt = (c: Axis, at: readonly number[]): SplitEdge | undefined => (this.inside(at) ? this.edges.get(this.edgeKey(c, at)) : undefined);
  private sample = (field: number, at: Point3): number => this.places.push({ field, at }) - 1;

  /** An edge with its free parts. */
  private edgeOf(component: Axis, at: Point3): SplitEdge {
    const key = this.edgeKey(component, at);
    let edge = this.edges.get(key);
    if (edge) return edge;
    const lying = (this.lying.get(key) ?? []).reduce<number[]>((all, { from, to }) => either(all, [from, to]), []);
    const spans = without(this.freeOf(component, at).flat(), lying);
    const free = Array.from({ length: spans.length / 2 }, (_, i) => [spans[2 * i], spans[2 * i + 1]] as const);
    const cuts = [...new Set((this.crossings.get(key) ?? []).map((x) => x.t))].sort((a, b) => a - b);
    const parts: EdgePart[] = [];
    for (const [from, to] of free) {
      const ends = [from, ...cuts.filter((t) => t > from && t < to), to];
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
      if (this.solids?.holds(corner)) found.push({ from: s, to: s, solid: true, plates: [] });
    });
    sides.forEach(({ edge: { component, at: start, parts }, back }, s) => {
      const on = (t: number): number => s + (back ? 1 - t : t);
      const [a, b] = [this.where(start), this.where(shifted(start, component, 1))];
      for (const { plate, t } of this.crossings.get(this.edgeKey(component, start)) ?? [])
        found.push({ from: on(t), to: on(t), solid: false, plates: [{ plate, p: a.map((x, i) => x + t * (b[i] - x)) as Point3 }] });
      for (const { plate, from, to } of this.lying.get(this.edgeKey(component, start)) ?? []) {
        const [low, high] = back ? [on(to), on(from)] : [on(from), on(to)];
        found.push({ from: low, to: high, solid: false, plates: [{ plate, p: a.map((x, i) => x + ((from + to) / 2) * (b[i] - x)) as Point3 }] });
      }
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

  /** Whether free stretches of a face's outline belong to one part. */
  private sameIn(n: Axis, at: Point3, all: readonly Meeting[]): (i: number, j: number) => boolean {
    if (!this.solids?.partedFaces.has(faceName(n, at)) || all.some((m) => m.plates.length)) return sameWith(groups(this, n, at, all));
    if (all.length === 2 && this.walls!.leads(n, at, middleOf(all[0]), middleOf(all[1]))) return (i, j) => i === j;
    const sets = this.walls!.joined(
      n,
      at,
      all.map(({ to }, i) => placeOf((to + all[(i + 1) % all.length].from + (i + 1 === all.length ? 4 : 0)) / 2)),
    );
    return (i, j) => sets[i] === sets[j];
  }

  /** Points of the unit square of a face by way of which metal leads from one place of its outline to another, seen from what lies to the left. */
  private way(n: Axis, at: Point3, one: Meeting, other: Meeting): readonly Point2[] {
    const between = knee(this, n, at, one, other);
    if (between) return [between];
    const solid = one.solid && other.solid && this.solids?.partedFaces.has(faceName(n, at));
    return solid ? this.walls!.wayAlong(n, at, placeOf(one.from), placeOf(other.to)) : [];
  }

  /** Solid metal with losses that bounds a part of a face: lengths, metres, lengthened where it leans, and marks. */
  private wallsOf(n: Axis, at: Point3, walls: FacePart['walls'], all: readonly Meeting[]): Wall[] {
    const { lines } = this.grid;
    const place = ([x, y]: Point2): Point3 =>
      at.map((i, a) =>
        this.filling.clamp(a as Axis, lines[a][i] + (a === n ? 0 : (a === (n + 1) % 3 ? x : y) * (lines[a][i + 1] - lines[a][i]))),
      ) as Point3;
    const lossy = walls.flatMap(({ from, to, length }): Wall[] => {
      if (!(length > 0) || !all[from].solid || !all[to].solid) return [];
      const [p, q] = [middleOf(all[from]), middleOf(all[to])];
      const mark = Math.max(this.markAt(place(p)), this.markAt(place(q)));
      return mark > 1 ? [{ length: length * (this.walls?.leanAt(n, at, p, q) ?? 1), mark }] : [];
    });
    // A sample bears one branch.
    return lossy.length > 1 ? [{ length: lossy.reduce((sum, w) => sum + w.length, 0), mark: lossy[0].mark }] : lossy;
  }

  private splitFace(n: Axis, at: Point3): void {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const { lines } = this.grid;
    const sides = this.sidesOf(n, at);
    const all = this.meetings(n, at, sides);
    const same = this.sameIn(n, at, all);
    const lengths = [u, v].map((a) => lines[a][at[a] + 1] - lines[a][at[a]]) as [number, number];
    const parts = partsOfFace(all, same, lengths, (i, j) => this.way(n, at, all[i], all[j]));
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
    const partOf = ({ free, area: free1, walls }: FacePart): Omit<SplitPart, 'sample'> => {
      const [own, sidesOfIt] = [Math.max(onSheet, free1), sidesAlong(free)];
      return {
        area: own,
        counts: own,
        wanted: Math.max(own, leastArea * longest(sidesOfIt)),
        sides: sidesOfIt,
        walls: this.wallsOf(n, at, walls, all),
      };
    };
    if (parts.length < 2) {
      if (parts.length && parts[0].area < 1 - onSheet) this.cut.push({ normal: n, at, part: partOf(parts[0]) });
      return;
    }
    const face: SplitFace = {
      normal: n,
      at,
      parts: parts.map((p) => ({ sample: this.sample(3 + n, at), ...partOf(p) })),
      joints: [],
    };
    // Metal between two parts bounds either, in opposite ways.
    const joints: SplitFace['joints'] = [];
    parts.forEach(({ walls }, one) =>
      walls.forEach((w) =>
        parts.forEach(({ walls: others }, other) => {
          if (other <= one || !others.some((o) => o.from === w.to && o.to === w.from)) return;
          const shared = all[w.from].plates.find((x) => all[w.to].plates.some((y) => y.plate === x.plate)) ?? all[w.from].plates[0];
          if (!shared) return;
          const { mark, normal } = this.plates[shared.plate];
          const lean = Math.min(mostTilt, 1 / Math.sqrt(Math.max(1e-12, 1 - normal[n] ** 2)));
          if (mark < 2) return;
          const same = joints.find((j) => j.one === one && j.other === other);
          if (same) same.length += w.length * lean;
          else joints.push({ one, other, length: w.length * lean, mark, sample: -1 });
        }),
      ),
    );
    // Each sample bears one branch with memory: where more would, the longest.
    const taken = new Set<number>();
    for (const j of joints.sort((a, b) => b.length - a.length)) {
      if (taken.has(j.one) || taken.has(j.other)) continue;
      for (const p of [j.one, j.other]) {
        taken.add(p);
        face.parts[p].walls = [];
      }
      face.joints.push(j);
    }
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
