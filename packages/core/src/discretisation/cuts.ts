import type { Filled, FilledOverBand } from '../geometry/index.ts';
import type { Point3 } from '../document/index.ts';
import type { Grid } from '../grid/index.ts';
import type { Axis } from '../numerics/axis.ts';
import { cutCourant, CutCells, cutsCells } from './cutCells.ts';
import { type CutFaces, enlargeFaces, faceName, numbersOf } from './enlarge.ts';
import type { Media } from './media.ts';
import type { EdgeRows } from './rows.ts';
import { cutsSheets, SheetCuts } from './sheetCuts.ts';
import { facesOfSplits } from './split/splitFaces.ts';
import { freeInRows } from './split/freeOfEdges.ts';
import { splitsCells } from './split/laid.ts';
import { Splits } from './split/splits.ts';

/**
 * How much larger than in a uniform grid the square of the highest frequency may be at a face beside a sheet; the Courant number leaves room for that. What is
 * above it borrows, which costs accuracy: half of this moved the resonance of a patch by half a percent.
 */
const mostOfStep = 2.5;
/** Courant number beside outlines of sheets that run across no axis. */
const sheetCourant = 0.77;

/** Part of the largest step of whole cells that metal leaves which cuts edges and faces of a grid: solids that are curved or slanted, sheets that end across no axis. */
export const courantOfCuts = (scene: Filled): number =>
  Math.min(cutsCells(scene) || splitsCells(scene) ? cutCourant : 1, cutsSheets(scene) ? sheetCourant : 1);

/** What of a grid's edges and faces is free of metal: beside curved and slanted solids, beside outlines of sheets that run across no axis, and on either side of sheets across none. */
export class Cuts {
  faces: CutFaces;

  constructor(
    readonly solids: CutCells | null,
    readonly sheets: SheetCuts | null,
    readonly splits: Splits | null,
    private readonly grid: Grid,
    /** Whether walls thinner than a cell, as they cross a guided port, are closed to the nearest nodes. */
    readonly thinClosed = false,
  ) {
    if (solids && sheets) sheets.yieldTo((n, at) => solids.cuts(n, at) || this.parts(n, at));
    const ofSheets = this.sheetFaces();
    this.faces = solids && ofSheets.count ? joined(solids.faces, ofSheets) : (solids?.faces ?? ofSheets);
  }

  /** Those of a scene; null where nothing cuts. */
  static of(scene: FilledOverBand & { boundaries?: readonly string[]; guides?: readonly PortRectangle[] }, grid: Grid, media: Media): Cuts | null {
    const curved = cutsCells(scene);
    const laid = curved || splitsCells(scene) ? new Splits(scene, grid, media) : null;
    const cutSolids = (parts: boolean): CutCells | null => (curved ? new CutCells(scene, grid, media, (n, at) => laid!.meets(n, at), parts) : null);
    let solids = cutSolids(true);
    // Modes of guided ports know one field on each edge, so walls thinner than a cell that cross one are closed to nodes.
    const closed = !!solids && !!scene.guides?.some((g) => crossesPort(solids!.partedEdges(), g, grid));
    if (closed) solids = cutSolids(false);
    const splits = laid && (laid.plates.length || solids?.partedFaces.size) ? laid : null;
    const sheets = cutsSheets(scene) ? new SheetCuts(scene, grid, media) : null;
    return solids || sheets || splits ? new Cuts(solids, sheets, splits, grid, closed) : null;
  }

  /** Splits edges and faces, once rows of the grid tell what else lies on them. */
  split(rows: readonly EdgeRows[]): void {
    const { splits, solids, sheets, grid } = this;
    if (!splits) return;
    splits.split(
      freeInRows((c, j, k) => rows[c].at(c, j, k, false), grid, solids),
      solids,
    );
    const known = numbersOf(this.faces);
    this.faces = joined(
      this.faces,
      facesOfSplits(splits, grid, (n, at) => known.has(faceName(n, at)) || (sheets?.knows(n, at) ?? false)),
    );
  }

  /** Whether a face is one that thin metal may part. */
  private parts = (n: Axis, at: readonly number[]): boolean =>
    this.splits !== null && (this.splits.meets(n, at) || (this.solids?.partedFaces.has(faceName(n, at)) ?? false));

  /** Part by which an edge counts; 0 in metal. */
  free(c: Axis, i: number, j: number, k: number): number {
    const solid = this.solids?.free(c, i, j, k) ?? 1;
    return solid === 1 ? (this.sheets?.free(c, i, j, k) ?? 1) : solid;
  }

  /**
   * By how much the square of the field kept on an edge is to be divided for that of energy: solids cut off their part of the volume, beside a sheet the part counts
   * once, as voltage and flux differ by it.
   */
  energyPart(c: Axis, i: number, j: number, k: number): number {
    const solid = this.solids?.free(c, i, j, k) ?? 1;
    return solid === 1 ? (this.sheets?.free(c, i, j, k) ?? 1) : solid * solid;
  }

  /** Part by which a face counts, before anything is borrowed. */
  area(n: Axis, at: readonly number[]): number {
    const solid = this.solids?.area(n, at) ?? 1;
    return solid === 1 ? (this.sheets?.area(n, at) ?? 1) : solid;
  }

  /** Faces beside sheets, without those that solids cut. */
  private sheetFaces(): CutFaces {
    const { solids, sheets, grid } = this;
    const all = sheets?.faces ?? { field: [], index: [], area: [], tension: [] };
    const at = (n: number): number[] => all.index.slice(3 * n, 3 * n + 3);
    const own = Array.from(all.field, (_, n) => n).filter(
      (n) => !solids?.cuts((all.field[n] - 3) as Axis, at(n)) && !this.parts((all.field[n] - 3) as Axis, at(n)),
    );
    const cut = { field: own.map((n) => all.field[n]), index: own.flatMap(at), area: own.map((n) => all.area[n]), metal: own.map(() => 0), wall: own.map(() => 0) }; // prettier-ignore
    const wanted = own.map((n) => this.meanSide((all.field[n] - 3) as Axis, at(n)) / mostOfStep);
    return enlargeFaces(cut, wanted, {
      grid,
      tension: own.map((n) => all.tension[n]),
      free: (c, i, j, k) => this.free(c, i, j, k),
      apart: (n, p) => (solids?.cuts(n, p) ?? false) || this.parts(n, p),
      inside: (p) => p.every((x, a) => x >= 0 && x < grid.lines[a].length),
    });
  }

  /** Mean part of a face's sides, each weighed by what it adds to the square of the highest frequency. */
  private meanSide(n: Axis, at: readonly number[]): number {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const beside = (axis: Axis): [number, number, number] => at.map((x, a) => x + (a === axis ? 1 : 0)) as [number, number, number];
    const own = at as [number, number, number];
    const [u2, v2] = [u, v].map((a) => (this.grid.lines[a][at[a] + 1] - this.grid.lines[a][at[a]]) ** 2);
    const ofU = this.free(u, ...own) + this.free(u, ...beside(v));
    const ofV = this.free(v, ...own) + this.free(v, ...beside(u));
    return (ofU * u2 + ofV * v2) / (2 * (u2 + v2));
  }
}

/** A guided port's rectangle, metres. */
interface PortRectangle {
  normal: Axis;
  min: Readonly<Point3>;
  max: Readonly<Point3>;
}

/** Whether some of the edges lie in a port's rectangle or the cells beside it. */
function crossesPort(edges: Iterable<Point3>, { normal, min, max }: PortRectangle, grid: Grid): boolean {
  const cell = grid.lines.map((x) => x.reduce((most, v, i) => (i ? Math.max(most, v - x[i - 1]) : 0), 0));
  const beside = cell.map((c, a) => (a === normal ? 2 : 1) * c);
  for (const p of edges) if (p.every((x, a) => x > min[a] - beside[a] && x < max[a] + beside[a])) return true;
  return false;
}

/** Two arrays one after another, of the first's kind. */
function after<T extends Float64Array | Int32Array | Uint16Array | Uint8Array>(a: T, b: ArrayLike<number>): T {
  const out = new (a.constructor as new (length: number) => T)(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}

/** Two lists of faces as one. */
export function joined(a: CutFaces, b: CutFaces): CutFaces {
  const [faces, links] = [a.count, a.other.length];
  return {
    count: faces + b.count,
    field: after(a.field, b.field),
    index: after(a.index, b.index),
    area: after(a.area, b.area),
    metal: after(a.metal, b.metal),
    wall: after(a.wall, b.wall),
    own: after(a.own, b.own),
    start: after(
      a.start.slice(0, faces),
      b.start.map((n) => n + links),
    ),
    other: after(
      a.other,
      b.other.map((n) => n + faces),
    ),
    factor: after(a.factor, b.factor),
  };
}
