import {
  type Body,
  type Exact,
  type Filled,
  type FilledOverBand,
  Grounds,
  inPlane,
  insideLoops,
  isSheet,
  loopCrossings,
  spansAlong,
} from '../geometry/index.ts';
import { type Grid, nearestLine } from '../grid/index.ts';
import type { Point2, Point3, SheetRecipe } from '../document/index.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';
import { eta0 } from '../numerics/constants.ts';
import { immittanceAt } from './immittance.ts';
import { commonOutline, type DistanceMap, distanceMap, halved, type Piece } from './outline.ts';
import { faceName, shifted } from './enlarge.ts';
import { edgeField, type EdgeField } from './edgeField.ts';
import { edgePart, type EdgePlace, facePart, postPart, sidePart } from './sheetEdge.ts';
import type { Media } from './media.ts';

/** A sheet of metal, with its outline. */
interface Plate {
  loops: readonly Point2[][];
  /** Its metal, as in `Media.conductor`. */
  mark: number;
}

/** Whether the outline of some sheet of metal runs across no axis. */
export const cutsSheets = ({ bodies }: Filled): boolean => bodies.some((b) => sheetOf(b)?.loops.some(leans));

const sheetOf = (b: Body): SheetRecipe | null => (b.material.kind === 'conductor' && b.shape.form === 'sheet' ? b.shape : null);
const leans = (loop: readonly Point2[]): boolean =>
  loop.some((p, i) => {
    const q = loop[(i + 1) % loop.length];
    return p[0] !== q[0] && p[1] !== q[1];
  });

/** How far from an edge its field is told apart, in cells. */
const reachInCells = 1.6;
/** Ground farther than so many cells is none. */
const farGround = 8;
/** Smallest part of a face. */
const leastArea = 1e-4;
/** Parts below this are taken as none. */
const least = 0.02;

/** Sheets of more ohms per square are no metal to the field at their edge, which stays finite: a tenth of the impedance of free space. */
const resistive = eta0 / 10;

/** Ohms per square of a lossy sheet, the size of its impedance at a frequency in hertz. */
const resistance = ({ metals }: Media, mark: number, frequency: number): number => 1 / Math.hypot(...immittanceAt(metals[mark - 1]!.fit, frequency));

/** Part of each edge that is not plain, and its metal, along one row of the grid, by x index. */
export interface SheetRow {
  /** NaN where the edge is none of this object's business. */
  part: Float64Array;
  mark: Uint16Array;
}

/** Faces found, with their parts. */
export interface SheetFaces {
  field: number[];
  index: number[];
  area: number[];
  /** Tension of the edge's field at a face in the plane; 0 of others. */
  tension: number[];
}

/**
 * Sheets whose outlines run across no axis: edges and faces of the grid beside such an outline count by the parts that the field at the edge of a sheet gives them (sheetEdge.ts).
 * What lies beside outlines along the axes stays as it is, as lines are laid for these.
 */
export class SheetCuts {
  /** By 'component j k'. */
  readonly rows = new Map<string, SheetRow>();
  readonly faces: SheetFaces = { field: [], index: [], area: [], tension: [] };
  private readonly numbers = new Map<string, number>();
  /** All sheets of metal, with the coordinate of the grid line that each lies on, and whether it is a film that is cut nowhere. */
  private readonly sheets: { shape: SheetRecipe; plane: number; film: boolean }[] = [];
  private readonly solids: { shape: Exact; min: Point3; max: Point3 }[];

  constructor(
    private readonly scene: FilledOverBand & { boundaries?: readonly string[] },
    private readonly grid: Grid,
    media: Media,
  ) {
    const band = (scene.band.from + scene.band.to) / 2;
    this.solids = scene.bodies.filter((b) => b.material.kind === 'conductor' && !isSheet(b)).map((b) => ({ shape: b.shape as Exact, min: b.min, max: b.max })); // prettier-ignore
    const planes = new Map<string, { normal: Axis; plane: number; plates: Plate[] }>();
    scene.bodies.forEach((b, n) => {
      const sheet = sheetOf(b);
      if (!sheet) return;
      const plane = nearestLine(grid.lines[sheet.normal], sheet.offset);
      const name = `${sheet.normal} ${plane}`;
      const mark = media.conductor[media.ofBody[n]];
      const film = mark > 1 && resistance(media, mark, band) > resistive;
      this.sheets.push({ shape: sheet, plane: grid.lines[sheet.normal][plane], film });
      if (film) return;
      const known = planes.get(name) ?? { normal: sheet.normal, plane, plates: [] };
      planes.set(name, known);
      known.plates.push({ loops: sheet.loops, mark });
    });
    for (const { normal, plane, plates } of planes.values()) if (plates.some((p) => p.loops.some(leans))) this.cutPlane(normal, plane, plates);
  }

  /** Part of an edge, 1 where nothing is known of it. */
  free(c: Axis, i: number, j: number, k: number): number {
    const part = this.rows.get(`${c} ${j} ${k}`)?.part[i];
    return part === undefined || Number.isNaN(part) ? 1 : part;
  }

  /** Part of a face, 1 where nothing is known of it. */
  area(n: Axis, at: readonly number[]): number {
    const known = this.numbers.get(faceName(n, at));
    return known === undefined ? 1 : this.faces.area[known];
  }

  /** Whether a face is one of those that do not count as they are. */
  knows = (n: Axis, at: readonly number[]): boolean => this.numbers.has(faceName(n, at));

  /** Makes edges whole that would count for more beside faces that solids cut, which are none of this object's business. */
  yieldTo(cut: (n: Axis, at: readonly number[]) => boolean): void {
    for (const [name, { part }] of this.rows) {
      const [c, j, k] = name.split(' ').map(Number);
      part.forEach((p, i) => {
        const beside = ([0, 1, 2] as const).filter((a) => a !== c);
        if (p > 1 && beside.some((a) => [0, 1].some((back) => cut((3 - c - a) as Axis, shifted([i, j, k], a, -back))))) part[i] = 1;
      });
    }
  }

  /** The outline that the sheets of a plane have in common, without what lies on the region's ends: there sheets go on. */
  private outlineOf(normal: Axis, plates: readonly Plate[]): Piece[] {
    const { min, max } = this.scene;
    const ends = (axis: number, x: number): boolean =>
      [min[axis], max[axis]].some((end) => Math.abs(x - end) <= sameNumber * (max[axis] - min[axis]) * 10);
    return commonOutline(plates.map((p) => p.loops)).filter(({ a, b }) => !inPlane[normal].some((axis, i) => a[i] === b[i] && ends(axis, a[i])));
  }

  private cutPlane(normal: Axis, plane: number, plates: readonly Plate[]): void {
    const { scene, grid } = this;
    const pieces = this.outlineOf(normal, plates);
    if (!pieces.some((p) => p.slanted)) return;
    const axes = inPlane[normal];
    const z = grid.lines[normal];
    const [below, above] = [plane > 0 ? z[plane] - z[plane - 1] : 0, plane + 1 < z.length ? z[plane + 1] - z[plane] : 0];
    const clamped = axes.map((a) => halved(grid.lines[a]).map((x) => Math.min(Math.max(x, scene.min[a]), scene.max[a])));
    const reach = axes.map((a) => {
      const x = grid.lines[a];
      const step = (i: number): number => (i >= 0 && i + 1 < x.length ? x[i + 1] - x[i] : 0);
      return Float64Array.from(
        { length: 2 * x.length - 1 },
        (_, i) => reachInCells * (i % 2 ? step((i - 1) / 2) : Math.max(step(i / 2 - 1), step(i / 2))),
      );
    });
    const covered = this.coverage(plates, clamped[1]);
    const map = distanceMap(pieces, [clamped[0], clamped[1]], [reach[0], reach[1]], covered);
    // Beyond the region a sheet goes on as it ends.
    axes.forEach((a, i) => {
      const x = halved(grid.lines[a]);
      const stride = i === 0 ? 1 : map.size[0];
      for (let n = 0; n < map.distance.length; n++) {
        const at = Math.floor(n / stride) % map.size[i];
        if (x[at] < scene.min[a] || x[at] > scene.max[a]) map.slope[i][n] = 0;
      }
    });
    new PlaneCutter(
      grid,
      normal,
      plane,
      axes,
      map,
      below,
      above,
      (u, w) => this.markAt(plates, u, w),
      (p) => this.taken(p, normal),
      new Grounds(scene, normal, z[plane]),
      this.rows,
      this.faces,
      this.numbers,
    ).cut();
  }

  /** Whether points are inside some sheet, by rows that are asked for one after another. */
  private coverage(plates: readonly Plate[], ws: Float64Array): (u: number, w: number) => boolean {
    const rows = new Map<number, number[][]>();
    for (const w of ws)
      if (!rows.has(w))
        rows.set(
          w,
          plates.map((p) => loopCrossings(p.loops, w)),
        );
    return (u, w) =>
      rows.get(w)!.some((crossed) => {
        let inside = false;
        for (const c of crossed) if (c < u) inside = !inside;
        return inside;
      });
  }

  /** The metal at a point: perfect metal shorts any other. */
  private markAt(plates: readonly Plate[], u: number, w: number): number {
    const here = plates.filter((p) => insideLoops(p.loops, [u, w]));
    return Math.min(...(here.length ? here : plates).map((p) => p.mark));
  }

  /** Whether other metal holds a point: a solid, a film, or a sheet across another axis. What touches that stays as it is. */
  private taken(p: Point3, normal: Axis): boolean {
    for (const { shape, plane, film } of this.sheets)
      if (
        (film || shape.normal !== normal) &&
        p[shape.normal] === plane &&
        insideLoops(shape.loops, inPlane[shape.normal].map((a) => p[a]) as Point2)
      )
        return true;
    return this.solids.some(({ shape, min, max }) => {
      if (p.some((x, a) => x < min[a] || x > max[a])) return false;
      const spans = spansAlong(shape, p, [1, 0, 0]);
      for (let i = 0; i + 1 < spans.length; i += 2) if (spans[i] <= 0 && spans[i + 1] >= 0) return true;
      return false;
    });
  }
}

/** Works out the parts of the elements beside the outline in one plane. */
class PlaneCutter {
  /** Parts of the plane's own faces. */
  private readonly inPlane = new Map<string, number>();

  constructor(
    private readonly grid: Grid,
    private readonly normal: Axis,
    private readonly plane: number,
    /** Axes of the plane, in the order of the outlines' coordinates. */
    private readonly axes: readonly [Axis, Axis],
    private readonly map: DistanceMap,
    /** Cells below and above. */
    private readonly below: number,
    private readonly above: number,
    private readonly markAt: (u: number, w: number) => number,
    private readonly taken: (p: Point3) => boolean,
    private readonly grounds: Grounds,
    private readonly rows: Map<string, SheetRow>,
    private readonly faces: SheetFaces,
    /** Number of each face by its name. */
    private readonly numbers: Map<string, number>,
  ) {}

  cut(): void {
    const [mu, mw] = this.axes.map((a) => this.grid.lines[a].length);
    for (let w = 0; w + 1 < mw; w++) for (let u = 0; u + 1 < mu; u++) this.face(u, w);
    for (let w = 0; w < mw; w++)
      for (let u = 0; u < mu; u++) {
        if (u + 1 < mu) this.edge(0, u, w);
        if (w + 1 < mw) this.edge(1, u, w);
        this.posts(u, w);
      }
  }

  private number(p: number, q: number): number {
    return q * this.map.size[0] + p;
  }

  /** Grid index from indices in the plane, a given number of cells above it. */
  private index(u: number, w: number, up = 0): [number, number, number] {
    const at: [number, number, number] = [0, 0, 0];
    at[this.axes[0]] = u;
    at[this.axes[1]] = w;
    at[this.normal] = this.plane + up;
    return at;
  }

  /** Width of the dual cell of a node. */
  private dual(axis: Axis, i: number): number {
    const x = this.grid.lines[axis];
    return (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2;
  }

  private set(c: Axis, at: readonly number[], part: number, mark: number): void {
    const name = `${c} ${at[1]} ${at[2]}`;
    let row = this.rows.get(name);
    if (!row) {
      const length = this.grid.lines[0].length;
      this.rows.set(name, (row = { part: new Float64Array(length).fill(NaN), mark: new Uint16Array(length) }));
    }
    // An edge between two planes goes to the one that leaves less of it; metal stays metal.
    if (row.part[at[0]] <= part || row.mark[at[0]]) return;
    row.part[at[0]] = part;
    row.mark[at[0]] = mark;
  }

  private coordinates(p: number, q: number): Point3 {
    const at: Point3 = [0, 0, 0];
    [p, q].forEach((n, i) => {
      const x = this.grid.lines[this.axes[i]];
      at[this.axes[i]] = n % 2 ? (x[(n - 1) / 2] + x[(n + 1) / 2]) / 2 : x[n / 2];
    });
    at[this.normal] = this.grid.lines[this.normal][this.plane];
    return at;
  }

  /** An edge along the first (0) or second axis of the plane, and the faces that stand on it. */
  private edge(along: 0 | 1, u: number, w: number): void {
    const { map, below, above } = this;
    const [p, q] = [2 * u + (along === 0 ? 1 : 0), 2 * w + (along === 1 ? 1 : 0)];
    const middle = this.number(p, q);
    const stride = along === 0 ? 1 : map.size[0];
    const [d0, dm, d1] = [middle - stride, middle, middle + stride].map((n) => map.distance[n]);
    if (!map.slanted[middle] || Number.isNaN(d0) || Number.isNaN(dm) || Number.isNaN(d1)) return;
    if (this.solids(p, q, along)) return;
    const c = this.axes[along];
    const other = along === 0 ? 1 : 0;
    const place: EdgePlace = {
      ends: [d0, d1],
      middle: dm,
      along: map.slope[along][middle],
      across: map.slope[other][middle],
      width: this.dual(this.axes[other], other === 0 ? u : w),
    };
    const field = this.field(p, q);
    const part = edgePart(field, place, below / 2, above / 2);
    const at = this.coordinates(p, q);
    if (part >= least) this.set(c, this.index(u, w), part, 0);
    else {
      const mark = this.markAt(at[this.axes[0]], at[this.axes[1]]);
      this.set(c, this.index(u, w), mark > 1 ? this.besideFaces(other, u, w) : 0, mark);
    }
    if (above) this.push(this.axes[other], this.index(u, w), sidePart(field, place, above));
    if (below) this.push(this.axes[other], this.index(u, w, -1), sidePart(field, place, -below));
  }

  /**
   * Part of an edge in a lossy sheet: the least of the faces beside it in the plane. What it stores beside what flows in the sheet is nothing, but the faces'
   * steps hang on it.
   */
  private besideFaces(across: 0 | 1, u: number, w: number): number {
    const of = (i: number, j: number): number => this.inPlane.get(`${i} ${j}`) ?? 1;
    return Math.min(1, of(u, w), across === 0 ? of(u - 1, w) : of(u, w - 1));
  }

  private face(u: number, w: number): void {
    const { map } = this;
    const [p, q] = [2 * u + 1, 2 * w + 1];
    const centre = this.number(p, q);
    if (!map.slanted[centre] || Number.isNaN(map.distance[centre])) return;
    const corners = [-1, 1].flatMap((dq) => [-1, 1].map((dp) => map.distance[this.number(p + dp, q + dq)])) as [number, number, number, number];
    if (corners.some(Number.isNaN) || corners.every((d) => d <= 0) || this.touches(p, q)) return;
    const { part, tense } = facePart(this.field(p, q), corners, map.distance[centre], this.below / 2, this.above / 2);
    const area = Math.max(leastArea, part);
    this.inPlane.set(`${u} ${w}`, area);
    this.push(this.normal, this.index(u, w), area, tense);
  }

  /** The edges across the plane at a node. */
  private posts(u: number, w: number): void {
    const { map, below, above } = this;
    const n = this.number(2 * u, 2 * w);
    if (!map.slanted[n] || Number.isNaN(map.distance[n]) || this.taken(this.coordinates(2 * u, 2 * w))) return;
    const slopes = [map.slope[0][n], map.slope[1][n]] as const;
    const widths = [this.dual(this.axes[0], u), this.dual(this.axes[1], w)] as const;
    const field = this.field(2 * u, 2 * w);
    if (above) this.set(this.normal, this.index(u, w), postPart(field, map.distance[n], slopes, widths, above), 0);
    if (below) this.set(this.normal, this.index(u, w, -1), postPart(field, map.distance[n], slopes, widths, -below), 0);
  }

  /** Whether other metal holds a corner or the centre of a face. */
  private touches(p: number, q: number): boolean {
    return this.taken(this.coordinates(p, q)) || [-1, 1].some((a) => [-1, 1].some((b) => this.taken(this.coordinates(p + a, q + b))));
  }

  /** Whether other metal holds an end or the middle of an edge. */
  private solids(p: number, q: number, along: 0 | 1): boolean {
    return [-1, 0, 1].some((s) => this.taken(this.coordinates(p + (along === 0 ? s : 0), q + (along === 1 ? s : 0))));
  }

  /** The field of the edge near a point: what stands below and above the metal counts that is no farther than some cells. */
  private field(p: number, q: number): EdgeField {
    const cell = Math.max(this.below, this.above, this.dual(this.axes[0], p >> 1), this.dual(this.axes[1], q >> 1));
    const [below, above] = this.grounds.at(this.coordinates(p, q)).map((h) => (h > farGround * cell ? Infinity : h));
    const name = `${below.toPrecision(9)} ${above.toPrecision(9)}`;
    let field = this.fields.get(name);
    if (!field) this.fields.set(name, (field = edgeField(below, above)));
    return field;
  }
  private readonly fields = new Map<string, EdgeField>();

  private push(normal: Axis, at: readonly number[], area: number, tension = 0): void {
    const name = faceName(normal, at);
    const known = this.numbers.get(name);
    if (known !== undefined) {
      this.faces.area[known] = Math.min(this.faces.area[known], area);
      return;
    }
    this.numbers.set(name, this.faces.field.length);
    this.faces.field.push(3 + normal);
    this.faces.index.push(...at);
    this.faces.area.push(area);
    this.faces.tension.push(tension);
  }
}
