import { type Body, either, type Exact, Filling, isSheet, spansAlong, without } from '../geometry/index.ts';
import type { Grid } from '../grid/index.ts';
import type { Point3 } from '../document/index.ts';
import type { Filled } from '../geometry/index.ts';
import type { Media } from './media.ts';
import { type Cut, type CutFaces, enlargeFaces, faceName, numbersOf, shifted } from './enlarge.ts';
import { nodesAround } from './nodeRegion.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Whether some metal of the scene is curved or slanted, so that it cuts cells. */
export const cutsCells = (scene: Filled): boolean => cutters(scene).length > 0;

const metal = (b: Body): boolean => b.material.kind === 'conductor' && !isSheet(b);
/** Curved solids of metal, and curved dielectrics that hollow out metal of an earlier line. */
export function cutters({ bodies }: Filled): Body[] {
  const overlap = (a: Body, b: Body): boolean =>
    [0, 1, 2].every((i) => Math.min(a.max[i], b.max[i]) - Math.max(a.min[i], b.min[i]) > sameNumber * (a.max[i] - a.min[i]));
  return bodies.filter((b) => b.curved && !isSheet(b) && (metal(b) || bodies.some((m) => metal(m) && m.order < b.order && overlap(m, b))));
}

/** Courant number where solid metal cuts cells: what is left of small cells then needs little enlarging. */
export const cutCourant = 0.9;

/** Least free area of a face over its longest free side, both as parts of the whole; stable with that Courant number. */
export const leastArea = 0.35;

/** Walls that lean further than this stand along a face and have next to no field through it. */
export const mostTilt = 5;

/** Full scale of a stored fraction. */
const whole = 65535;
/** Fractions this close to nothing or all are taken as such. */
const small = 0.002;

/**
 * Conformal metal: edges and faces beside curved or slanted conductors count with their free length and area (Dey and Mittra,
 * IEEE Microwave Guided Wave Lett. 7, 273, 1997). The edges' free lengths come from the exact shapes; a face is bounded by
 * straight lines between the points where metal cuts its edges. E is kept times the free part of its edge, so the curl is that
 * of whole cells and only H of cut faces is multiplied. Where the sum of |coefficients| of an edge's second difference would
 * not allow the time step (Gershgorin), its small faces borrow area and voltage from a neighbour in the same plane, which keeps a
 * uniform field exact and the coupling symmetric (the enlarged cells of Xiao and Liu, IEEE Microwave Wireless Compon. Lett. 14,
 * 551, 2004).
 */
export class CutCells {
  readonly faces: CutFaces;
  /** Number of each cut face by its place. */
  private number: ReadonlyMap<string, number>;
  private readonly lo: number[];
  private readonly size: number[];
  /** Mark of the metal at each node of the region; 0 free. */
  private readonly node: Uint8Array;
  private readonly forced: Uint8Array;
  private readonly part: Uint16Array[];
  private readonly solids: { shape: Exact; min: Point3; max: Point3; metal: boolean }[];
  /** Free stretches of edges that have more than one, as parts of their length: walls thinner than a cell. Keys: component times nodes, and node. */
  private readonly parted = new Map<number, [number, number][]>();
  /** Faces that such walls may part, by name. */
  readonly partedFaces = new Map<string, { normal: Axis; at: Point3 }>();

  constructor(
    private readonly scene: Filled,
    private readonly grid: Grid,
    private readonly media: Media,
    /** Faces of which others decide. */
    private readonly taken: (n: Axis, at: readonly number[]) => boolean = () => false,
    /** Whether walls thinner than a cell part edges and faces, or are closed to the nearer nodes. */
    private readonly parts = false,
  ) {
    ({ lo: this.lo, size: this.size } = nodesAround(cutters(scene), scene, grid));
    const nodes = this.size[0] * this.size[1] * this.size[2];
    this.node = new Uint8Array(nodes);
    this.forced = new Uint8Array(nodes);
    this.part = [0, 1, 2].map(() => new Uint16Array(nodes).fill(whole));
    this.solids = scene.bodies
      .map((b, i) => ({ b, metal: media.conductor[media.ofBody[i]] > 0 }))
      .filter(({ b }) => !isSheet(b))
      .sort((p, q) => p.b.order - q.b.order)
      .map(({ b, metal }) => ({ shape: b.shape as Exact, min: b.min, max: b.max, metal }));
    this.markNodes();
    for (const axis of [0, 1, 2] as const) this.cutEdges(axis);
    this.snapParted();
    this.closeSaddles();
    this.joinForced();
    this.takeParted();
    const cut = this.cutFaces();
    this.number = numbersOf(cut);
    this.tilt(cut);
    this.faces = enlargeFaces(cut, this.leastShares(cut), {
      grid,
      free: (c, i, j, k) => this.free(c, i, j, k),
      inside: (at) => this.inside(at),
      apart: (n, at) => taken(n, at) || this.partedFaces.has(faceName(n, at)),
    });
    // Lenders are known by now.
    this.number = numbersOf(this.faces);
  }

  private at(i: number, j: number, k: number): number {
    return ((k - this.lo[2]) * this.size[1] + j - this.lo[1]) * this.size[0] + i - this.lo[0];
  }

  /** Range of x indices in which a row of edges may be cut or metal, if any: the rest of the row is none of this object's business. */
  range(c: Axis, j: number, k: number): [number, number] | null {
    const [, my, mz] = this.size;
    if (j < this.lo[1] || k < this.lo[2] || j >= this.lo[1] + my - (c === 1 ? 1 : 0) || k >= this.lo[2] + mz - (c === 2 ? 1 : 0)) return null;
    return [this.lo[0], this.lo[0] + this.size[0] - (c === 0 ? 1 : 0)];
  }

  /** Free part of an edge, 0..1. */
  free(c: Axis, i: number, j: number, k: number): number {
    const r = this.range(c, j, k);
    return r && i >= r[0] && i < r[1] ? this.part[c][this.at(i, j, k)] / whole : 1;
  }

  /** Free part of a face's area, 0..1, before anything is borrowed. */
  area(n: Axis, at: readonly number[]): number {
    if (!this.inside(at) || !this.inside(at.map((x, a) => x + (a === n ? 0 : 1)))) return 1;
    const known = this.number.get(faceName(n, at));
    return known === undefined ? this.uncut(n, at) : this.faces.area[known];
  }

  /** Free part of a face that metal does not cut: nothing where all of its sides are metal, else all of it, also where a corner just touches metal. */
  private uncut(n: Axis, at: readonly number[]): number {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const first = this.at(at[0], at[1], at[2]);
    return this.part[u][first] || this.part[v][first] || this.part[u][first + this.stride(v)] || this.part[v][first + this.stride(u)] ? 1 : 0;
  }

  /** Whether a face is among those that metal cuts, or lends to one. */
  cuts(n: Axis, at: readonly number[]): boolean {
    return this.inside(at) && this.number.has(faceName(n, at));
  }

  /** Length of the metal that bounds a cut face, metres, and its mark; null where none does. */
  wall(n: Axis, at: readonly number[]): { length: number; mark: number } | null {
    if (!this.inside(at) || !this.inside(at.map((x, a) => x + (a === n ? 0 : 1)))) return null;
    const known = this.number.get(faceName(n, at));
    return known === undefined || !(this.faces.wall[known] > 0) ? null : { length: this.faces.wall[known], mark: this.faces.metal[known] };
  }

  /** Whether a node lies in metal. */
  holds = (at: readonly number[]): boolean => this.inside(at) && this.node[this.at(at[0], at[1], at[2])] > 0;

  /** Metal mark of an edge inside the range that has no free part. */
  metal(c: Axis, i: number, j: number, k: number): number {
    const n = this.at(i, j, k);
    return Math.max(1, this.node[n], this.node[n + this.stride(c)]);
  }

  private stride(a: number): number {
    return a === 0 ? 1 : a === 1 ? this.size[0] : this.size[0] * this.size[1];
  }

  /** Coordinates just to both sides of a grid line, inside the region. */
  beside(a: Axis, i: number, filling: Filling): [number, number] {
    const x = this.grid.lines[a];
    const d = 1e-4 * Math.min(i > 0 ? x[i] - x[i - 1] : Infinity, i + 1 < x.length ? x[i + 1] - x[i] : Infinity);
    return [filling.clamp(a, x[i] - d), filling.clamp(a, x[i] + d)];
  }

  private markNodes(): void {
    const filling = new Filling(this.scene.bodies, this.media.ofBody, this.scene);
    const { conductor } = this.media;
    const xs = Float64Array.from({ length: this.size[0] }, (_, i) => this.lo[0] + i).reduce<number[]>(
      (all, i) => (all.push(...this.beside(0, i, filling)), all),
      [],
    );
    const sorted = Float64Array.from(xs);
    const found = new Uint16Array(sorted.length);
    for (let k = 0; k < this.size[2]; k++)
      for (let j = 0; j < this.size[1]; j++) {
        const base = this.at(this.lo[0], this.lo[1] + j, this.lo[2] + k);
        for (const y of this.beside(1, this.lo[1] + j, filling))
          for (const z of this.beside(2, this.lo[2] + k, filling)) {
            if (!filling.near(y, y, z, z)) continue;
            filling.row(y, z, sorted, found);
            for (let p = 0; p < found.length; p++) {
              const mark = conductor[found[p]];
              if (mark) this.node[base + (p >> 1)] = Math.min(255, mark);
            }
          }
      }
  }

  /** Stretches of metal on a line along an axis, later bodies over earlier ones. */
  metalOn(axis: Axis, p: Point3): number[] {
    const d: Point3 = [0, 0, 0];
    d[axis] = 1;
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
    let spans: number[] = [];
    for (const s of this.solids) {
      if (p[u] < s.min[u] || p[u] > s.max[u] || p[v] < s.min[v] || p[v] > s.max[v]) continue;
      if (!s.metal && !spans.length) continue;
      const own = spansAlong(s.shape, p, d);
      spans = s.metal ? either(spans, own) : without(spans, own);
    }
    return spans;
  }

  /** Free parts of the edges along an axis. Lines just beside the grid's own decide, so that a face on a line is metal. */
  private cutEdges(axis: Axis): void {
    const filling = new Filling(this.scene.bodies, this.media.ofBody, this.scene);
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3] as [Axis, Axis];
    const x = this.grid.lines[axis];
    const step = this.stride(axis);
    const ends = x.slice(this.lo[axis], this.lo[axis] + this.size[axis]).map((c) => filling.clamp(axis, c));
    for (let q = 0; q < this.size[v]; q++)
      for (let p = 0; p < this.size[u]; p++) {
        const index = [0, 0, 0];
        index[axis] = this.lo[axis];
        index[u] = this.lo[u] + p;
        index[v] = this.lo[v] + q;
        let spans: number[] = [];
        for (const cu of this.beside(u, index[u], filling))
          for (const cv of this.beside(v, index[v], filling)) {
            const at: Point3 = [0, 0, 0];
            at[u] = cu;
            at[v] = cv;
            spans = either(spans, this.metalOn(axis, at));
          }
        const base = this.at(index[0], index[1], index[2]);
        for (let s = 0; s < spans.length; s += 2) {
          for (let i = 0; i + 1 < ends.length; i++) {
            const length = x[this.lo[axis] + i + 1] - x[this.lo[axis] + i];
            // Beyond the region bodies go on as they end.
            const beyond = ends[i + 1] - ends[i] < 1e-3 * length;
            const from = beyond ? ends[i] : Math.max(spans[s], ends[i]);
            const to = beyond ? (spans[s] <= ends[i] && spans[s + 1] >= ends[i] ? from + length : from) : Math.min(spans[s + 1], ends[i + 1]);
            if (to <= from) continue;
            const n = base + i * step;
            const left = this.part[axis][n] - (whole * (to - from)) / length;
            this.part[axis][n] = left < small * whole ? 0 : left > (1 - small) * whole ? whole : Math.round(left);
            if (this.parts && !beyond) this.takeMetal(axis * this.node.length + n, (from - ends[i]) / length, (to - ends[i]) / length);
            // A wall thinner than a cell must not vanish between nodes: the nearer node counts as metal.
            else if (from > ends[i] && to < ends[i + 1] && !this.node[n] && !this.node[n + step]) {
              const near = from - ends[i] < ends[i + 1] - to ? n : n + step;
              this.node[near] = 1;
              this.forced[near] = 1;
            }
          }
        }
      }
  }

  /** Metal on an edge, as parts of its length; what is left free of it. */
  private takeMetal(key: number, from: number, to: number): void {
    const free = this.parted.get(key) ?? [[0, 1]];
    this.parted.set(
      key,
      free.flatMap(([a, b]): [number, number][] =>
        [[a, Math.min(b, from)] as [number, number], [Math.max(a, to), b] as [number, number]].filter(([x, y]) => y - x > small),
      ),
    );
  }

  /** A wall next to a node must not vanish: the node counts as metal. */
  private snapParted(): void {
    const nodes = this.node.length;
    for (const [key, free] of this.parted) {
      const n = key % nodes;
      const next = n + this.stride(Math.floor(key / nodes));
      if (free.length > 1 || this.node[n] || this.node[next]) continue;
      for (const near of free.length ? [free[0][0] > 0 ? n : next] : [n, next]) this.node[near] = this.forced[near] = 1;
    }
  }

  /** Keeps the edges of several free stretches; faces beside them are parted. */
  private takeParted(): void {
    const nodes = this.node.length;
    for (const [key, free] of this.parted) {
      const c = Math.floor(key / nodes) as Axis;
      const n = key % nodes;
      if (free.length > 1 && !(this.node[n] && this.node[n + this.stride(c)])) {
        this.part[c][n] = Math.round(whole * free.reduce((sum, [a, b]) => sum + b - a, 0));
        const at = this.placeOf(n);
        for (const normal of [0, 1, 2] as const)
          if (normal !== c) for (const by of [0, -1]) this.takeFace(normal, shifted(at, 3 - c - normal, by) as Point3);
      } else this.parted.delete(key);
    }
  }

  private takeFace(normal: Axis, at: Point3): void {
    if (this.inside(at) && this.inside(at.map((x, a) => x + (a === normal ? 0 : 1)))) this.partedFaces.set(faceName(normal, at), { normal, at });
  }

  private placeOf = (n: number): Point3 => [0, 1, 2].map((a) => this.lo[a] + (Math.floor(n / this.stride(a)) % this.size[a])) as Point3;

  /** Free stretches of an edge of which there are several; undefined of all others. */
  stretches = (c: Axis, at: readonly number[]): readonly [number, number][] | undefined =>
    this.parted.size && this.inside(at) ? this.parted.get(c * this.node.length + this.at(at[0], at[1], at[2])) : undefined;

  /** Places of edges that walls thinner than a cell part, metres. */
  *partedEdges(): Iterable<Point3> {
    for (const key of this.parted.keys()) {
      const at = this.placeOf(key % this.node.length);
      yield at.map((x, a) => this.grid.lines[a][x]) as Point3;
    }
  }

  /**
   * A wall that runs through a face from corner to corner parts its two free corners, which one sample of H cannot tell apart: it
   * would leak. The corner with less room counts as metal.
   */
  private closeSaddles(): void {
    for (let pass = 0, found = true; found && pass < 8; pass++) {
      found = false;
      this.eachFace((n, corners, sides, at) => {
        const free = corners.map((x) => this.node[x] === 0);
        if (free[0] === free[1] || free[1] === free[2] || free[2] === free[3]) return;
        // Sides come in turn, so corner c lies between side c - 1 and side c.
        const [low, high] = free[0] ? [0, 2] : [1, 3];
        const room = (c: number): number => sides[c] + sides[(c + 3) % 4];
        if (this.parts) {
          this.takeFace(n, at);
          return;
        }
        const taken = corners[room(low) < room(high) ? low : high];
        this.node[taken] = Math.max(this.node[corners[free[0] ? 1 : 0]], 1);
        this.forced[taken] = 1;
        found = true;
      });
    }
  }

  /** Settles edges of which a free stretch would lead through a wall. Between nodes of a thin wall edges are metal; from there to free nodes they are whole. */
  private joinForced(): void {
    for (const axis of [0, 1, 2] as const) {
      const step = this.stride(axis);
      const part = this.part[axis];
      for (let n = 0; n + step < this.node.length; n++) {
        const [a, b] = [this.node[n], this.node[n + step]];
        if (this.forced[n] || this.forced[n + step]) part[n] = a && b ? 0 : whole;
        else if (!a && !b) part[n] = whole;
        // Between two nodes in metal only a gap of a whole cell is one: the chord of a thin curved wall may leave it for a stretch.
        else if (a && b && part[n] < whole) part[n] = 0;
      }
    }
  }

  /** Every face of the region that has metal at a corner: normal, corners counter-clockwise, stored parts of the sides between them in turn, place. */
  private eachFace(visit: (n: Axis, corners: number[], sides: number[], at: [number, number, number]) => void): void {
    for (const n of [0, 1, 2] as const) {
      const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
      const [su, sv] = [this.stride(u), this.stride(v)];
      const [pu, pv] = [this.part[u], this.part[v]];
      const most = [0, 1, 2].map((a) => this.size[a] - (a === n ? 0 : 1));
      for (let k = 0; k < most[2]; k++)
        for (let j = 0; j < most[1]; j++)
          for (let i = 0; i < most[0]; i++) {
            const at = (k * this.size[1] + j) * this.size[0] + i;
            if (!this.node[at] && !this.node[at + su] && !this.node[at + su + sv] && !this.node[at + sv]) continue;
            visit(
              n,
              [at, at + su, at + su + sv, at + sv],
              [pu[at], pv[at + su], pu[at + sv], pv[at]],
              [i + this.lo[0], j + this.lo[1], k + this.lo[2]],
            );
          }
    }
  }

  private cutFaces(): Cut {
    const field: number[] = [];
    const index: number[] = [];
    const area: number[] = [];
    const metal: number[] = [];
    const wall: number[] = [];
    this.eachFace((n, corners, sides, at) => {
      const marks = corners.map((c) => this.node[c]);
      if (sides.every((p) => p === 0) || this.taken(n, at) || this.partedFaces.has(faceName(n, at))) return;
      const [u, v] = [(n + 1) % 3, (n + 2) % 3];
      const [lu, lv] = [u, v].map((a) => this.grid.lines[a][at[a] + 1] - this.grid.lines[a][at[a]]);
      const parts = sides.map((p) => p / whole);
      const { free, cut } = faceArea(marks, parts, lu, lv);
      if (free > 1 - small && cut === 0) return;
      field.push(3 + n);
      index.push(...at);
      area.push(Math.max(small, Math.min(1, free)));
      metal.push(Math.max(...marks));
      wall.push(cut);
    });
    return { field, index, area, metal, wall };
  }

  /**
   * Lengthens walls that lean: on a wall of normal m the field tangential to it is H_n over the sine between m and n, the
   * normal of the face, and so is its voltage. The normal follows from the free areas around the two cells beside a face, as
   * those of a closed surface add up to nothing.
   */
  private tilt(cut: Cut): void {
    const steps = this.grid.lines.map((x) => x.map((_, i) => (i + 1 < x.length ? x[i + 1] - x[i] : 0)));
    const free = (n: Axis, at: number[]): number => {
      const known = this.number.get(faceName(n, at));
      return known === undefined ? this.uncut(n, at) : cut.area[known];
    };
    const normal = (n: Axis, cell: number[]): number => {
      const [u, v] = [(n + 1) % 3, (n + 2) % 3];
      return (free(n, cell) - free(n, shifted(cell, n, 1))) * steps[u][cell[u]] * steps[v][cell[v]];
    };
    cut.field.forEach((field, f) => {
      if (cut.wall[f] === 0) return;
      const n = (field - 3) as Axis;
      const at = cut.index.slice(3 * f, 3 * f + 3);
      const sum = [0, 0, 0];
      for (const cell of [at, shifted(at, n, -1)]) {
        if (!this.inside(cell) || !this.inside(cell.map((x) => x + 1))) continue;
        for (const a of [0, 1, 2] as const) sum[a] += normal(a, cell);
      }
      const across = Math.hypot(sum[(n + 1) % 3], sum[(n + 2) % 3]);
      if (across > 0) cut.wall[f] *= Math.min(mostTilt, Math.hypot(across, sum[n]) / across);
    });
  }

  /** The area that each cut face needs for the time step, as a part of the whole: a share of the longest of its free sides. */
  private leastShares(cut: Cut): Float64Array {
    return Float64Array.from(cut.field, (field, f) => {
      const n = (field - 3) as Axis;
      const at = cut.index.slice(3 * f, 3 * f + 3);
      const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
      const side = (c: Axis, [i, j, k]: number[]): number => this.free(c, i, j, k);
      const longest = Math.max(side(u, at), side(v, at), side(u, shifted(at, v, 1)), side(v, shifted(at, u, 1)));
      return Math.max(cut.area[f], leastArea * longest);
    });
  }

  private inside(at: readonly number[]): boolean {
    return at.every((x, a) => x >= this.lo[a] && x < this.lo[a] + this.size[a]);
  }
}

/**
 * Free part of a rectangular face's area, and the length of metal across it, metres. Corners counter-clockwise from the lower
 * left with their metal marks; free parts of the lower, right, upper and left side; lengths of the sides.
 */
export function faceArea(marks: readonly number[], sides: readonly number[], lu: number, lv: number): { free: number; cut: number } {
  const corner = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ];
  // All corners in metal: a strip is free between two sides, or a slot that ends in the face.
  if (marks.every((m) => m > 0)) {
    const [across, along] = [(sides[0] + sides[2]) / 2, (sides[1] + sides[3]) / 2];
    return across > along ? { free: across, cut: 2 * lv } : { free: along, cut: 2 * lu };
  }
  // Outline of the free part; stretches between two points of metal cuts are wall.
  const points: { x: number; y: number; cut: boolean }[] = [];
  for (let c = 0; c < 4; c++) {
    const next = (c + 1) % 4;
    const [x, y] = corner[c];
    const [dx, dy] = [corner[next][0] - x, corner[next][1] - y];
    const f = sides[c];
    if (!marks[c]) {
      points.push({ x, y, cut: false });
      if (marks[next]) points.push({ x: x + f * dx, y: y + f * dy, cut: true });
    } else if (!marks[next]) points.push({ x: x + (1 - f) * dx, y: y + (1 - f) * dy, cut: true });
  }
  let free = 0;
  let cut = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length];
    free += (p.x * q.y - q.x * p.y) / 2;
    if (p.cut && q.cut) cut += Math.hypot((q.x - p.x) * lu, (q.y - p.y) * lv);
  });
  return { free, cut };
}
