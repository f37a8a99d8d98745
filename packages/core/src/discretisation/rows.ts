import { Filling, inPlane, loopCrossings } from '../geometry/index.ts';
import type { Point2 } from '../document/index.ts';
import type { Grid } from '../grid/index.ts';
import type { Filled } from '../geometry/index.ts';
import type { Cuts } from './cuts.ts';
import type { SheetRow } from './sheetCuts.ts';
import type { Subpixel } from './subpixel.ts';
import type { Media } from './media.ts';
import { cutPieces, type Pieces } from './pieces.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameMesh } from '../numerics/tolerance.ts';

/** Averages of a row for each set of media, kept for other rows that are cut alike. */
interface Kept {
  re: Float64Array[];
  loss: Float64Array[];
}

/** Relative permittivity, loss part and metal mark of the electric edges of one row; valid until the next call. */
export interface EdgeRow {
  /** False: the whole row is vacuum and the arrays hold nothing of use. */
  mixed: boolean;
  re: Float64Array;
  loss: Float64Array;
  /** The same for each set of media, the first being re and loss. */
  views: readonly { re: Float64Array; loss: Float64Array }[];
  /** 0: no metal, 1: perfect, otherwise 1 + class of metal. */
  metal: Uint16Array;
  /** Free part of each edge where curved metal cuts some of the row; null where it cuts none. */
  free: Float64Array | null;
  /** 1 + class of the lossy sheet that the edge lies in, where it is not inside metal. */
  sheet: Uint16Array;
}

/**
 * Averages the media onto the electric edges, row by row along x. Along an edge the average is harmonic, across it
 * arithmetic: exact for layers along the grid, also layers thinner than a cell (A. Farjadpour et al., Opt. Lett. 31, 2972,
 * 2006, for the diagonal case). An edge in or on a conductor is metal. Sheets lie on grid planes. The media may be given several times, as they
 * are at several frequencies: where they stand is looked up once, and averages are shared by rows that the bodies cut alike.
 */
export class EdgeRows {
  private readonly filling: Filling;
  private readonly pieces: Pieces[];
  private readonly xs: Float64Array;
  private readonly media16: Uint16Array;
  /** Of each set of media: sums over a slice, and the running inverse mean along the edge. */
  private readonly sums: { re: Float64Array; loss: Float64Array; inverseRe: Float64Array; inverseLoss: Float64Array }[];
  private readonly weight: Float64Array;
  private readonly length: Float64Array;
  private readonly sheets: Map<string, Uint16Array>;
  private readonly probeX: Float64Array[];
  private readonly row: EdgeRow;
  private readonly nx: number;
  private readonly parts: Float64Array;
  /** Edges of the row that a sheet makes metal, which no solid does. */
  private readonly onSheet: Uint8Array;
  private readonly media: Media;
  private readonly kept = new Map<string, Kept>();
  private readonly mostKept: number;
  private at0 = '';

  constructor(
    scene: Filled,
    private readonly grid: Grid,
    private readonly views: readonly Media[],
    private readonly cuts: Cuts | null = null,
    private readonly subpixel: Subpixel | null = null,
  ) {
    const [media] = views;
    this.media = media;
    this.filling = new Filling(scene.bodies, media.ofBody, scene);
    this.pieces = ([0, 1, 2] as const).map((a) => {
      const round = scene.bodies.filter((b) => b.curved).map((b): [number, number] => [b.min[a], b.max[a]]);
      return cutPieces(grid.lines[a], grid.unsnapped[a], round);
    });
    const lines = grid.lines[0];
    this.nx = lines.length - 1;
    this.xs = this.pieces[0].centre.map((x) => this.filling.clamp(0, x));
    this.media16 = new Uint16Array(Math.max(this.xs.length, 2 * lines.length));
    const floats = (n: number): Float64Array => new Float64Array(n);
    this.sums = views.map(() => ({
      re: floats(this.xs.length),
      loss: floats(this.xs.length),
      inverseRe: floats(lines.length),
      inverseLoss: floats(lines.length),
    }));
    this.weight = floats(this.xs.length);
    this.length = floats(lines.length);
    this.mostKept = 6 * grid.lines[1].length;
    const made = views.map(() => ({ re: floats(lines.length), loss: floats(lines.length) }));
    this.row = {
      mixed: false,
      ...made[0],
      views: made,
      metal: new Uint16Array(lines.length),
      free: null,
      sheet: new Uint16Array(lines.length),
    };
    this.parts = new Float64Array(lines.length);
    this.onSheet = new Uint8Array(lines.length);
    // Metal is asked for at the middle of Ex edges, and just left and right of the node for Ey and Ez.
    const middle = Float64Array.from({ length: this.nx }, (_, i) => this.filling.clamp(0, (lines[i] + lines[i + 1]) / 2));
    const beside = Float64Array.from(
      [...lines].flatMap((x, i) => {
        const d = 1e-4 * Math.min(i > 0 ? x - lines[i - 1] : Infinity, i < this.nx ? lines[i + 1] - x : Infinity);
        return [this.filling.clamp(0, x - d), this.filling.clamp(0, x + d)];
      }),
    );
    this.probeX = [middle, beside, beside];
    this.sheets = markSheets(scene, grid, media);
  }

  /** Edge row of component `c` (0, 1, 2: Ex, Ey, Ez) at row j of plane k; of its metal alone where no media are asked for. */
  at(c: Axis, j: number, k: number, media = true): EdgeRow {
    const [, ly, lz] = this.grid.lines;
    const name = `${c} ${j} ${k}`;
    if (name === this.at0) return this.row;
    this.at0 = media ? name : '';
    const sheet = this.sheets.get(name);
    const cutSheet = this.cuts?.sheets?.rows.get(name);
    const at = (l: Float64Array, i: number): number => l[Math.min(Math.max(i, 0), l.length - 1)];
    const near = this.filling.near(at(ly, j - 1), at(ly, j + 1), at(lz, k - 1), at(lz, k + 1));
    this.row.mixed = near || sheet !== undefined || cutSheet !== undefined;
    if (!this.row.mixed) return this.row;
    this.row.metal.fill(0);
    this.row.sheet.fill(0);
    this.onSheet.fill(0);
    this.row.free = null;
    if (near) {
      if (media) {
        this.average(c, j, k);
        this.blend(c, j, k);
      }
      this.markMetal(c, j, k);
      this.cut(c, j, k);
    } else {
      for (const v of this.row.views) {
        v.re.fill(1);
        v.loss.fill(0);
      }
    }
    if (sheet)
      for (let i = 0; i <= this.nx; i++) {
        if (sheet[i] === 0 || this.row.metal[i]) continue;
        this.onSheet[i] = 1;
        if (sheet[i] === 1) this.row.metal[i] = 1;
        else this.row.sheet[i] = sheet[i];
      }
    if (cutSheet) this.cutSheets(cutSheet);
    return this.row;
  }

  /** Beside outlines of sheets that run across no axis, parts of edges take the place of the marks at the edges' middles; solids go first. */
  private cutSheets({ part, mark }: SheetRow): void {
    const { row, parts } = this;
    if (!row.free) row.free = parts.fill(1);
    for (let i = 0; i <= this.nx; i++) {
      if (Number.isNaN(part[i]) || parts[i] !== 1 || (row.metal[i] && !this.onSheet[i])) continue;
      row.metal[i] = mark[i] === 1 ? 1 : 0;
      row.sheet[i] = mark[i] > 1 ? mark[i] : 0;
      if (part[i] > 0) parts[i] = part[i];
    }
  }

  /** Half cells beside node i (dual cell), or of cell i (along the edge), on an axis, as a range of pieces. */
  private range(axis: 1 | 2, i: number, along: boolean): [number, number] {
    const { start } = this.pieces[axis];
    const halves = start.length - 1;
    const from = along ? 2 * i : 2 * i - 1;
    return [start[Math.max(0, from)], start[Math.min(halves, from + 2)]];
  }

  private average(c: Axis, j: number, k: number): void {
    const [, py, pz] = this.pieces;
    const [y0, y1] = this.range(1, j, c === 1);
    const [z0, z1] = this.range(2, k, c === 2);
    // What the averages depend on: where the bodies cut the rows of samples, and along an axis on which they cut these differently what each row counts.
    const cuts: string[][] = [];
    for (let y = y0; y < y1; y++) {
      const across: string[] = [];
      for (let z = z0; z < z1; z++) across.push(this.filling.cuts(py.centre[y], pz.centre[z], this.xs));
      cuts.push(across);
    }
    const alikeY = cuts.every((across) => across.every((s, z) => s === cuts[0][z]));
    const alikeZ = cuts.every((across) => across.every((s) => s === across[0]));
    const name = [
      c,
      alikeY ? '' : py.width.subarray(y0, y1),
      alikeZ ? '' : pz.width.subarray(z0, z1),
      ...(alikeY ? cuts.slice(0, 1) : cuts).map((across) => (alikeZ ? across[0] : across.join(','))),
    ].join(';');
    let kept = this.kept.get(name);
    if (!kept) {
      this.averageAnew(c, y0, y1, z0, z1);
      kept = { re: this.row.views.map((v) => v.re.slice()), loss: this.row.views.map((v) => v.loss.slice()) };
      this.kept.set(name, kept);
      // The oldest goes: rows are alike where they are near.
      if (this.kept.size > this.mostKept) this.kept.delete(this.kept.keys().next().value!);
      return;
    }
    this.row.views.forEach((v, n) => {
      v.re.set(kept.re[n]);
      v.loss.set(kept.loss[n]);
    });
  }

  private averageAnew(c: Axis, y0: number, y1: number, z0: number, z1: number): void {
    const [px, py, pz] = this.pieces;
    const { conductor } = this.media;
    const { sums, weight, media16, nx } = this;
    const clear = (): void => {
      weight.fill(0);
      for (const s of sums) {
        s.re.fill(0);
        s.loss.fill(0);
      }
    };
    const addRow = (y: number, z: number, w: number): void => {
      this.filling.row(py.centre[y], pz.centre[z], this.xs, media16);
      for (let p = 0; p < weight.length; p++) if (!conductor[media16[p]]) weight[p] += w;
      for (let n = 0; n < sums.length; n++) {
        const { re, loss } = sums[n];
        const { re: er, loss: el } = this.views[n];
        for (let p = 0; p < weight.length; p++) {
          const m = media16[p];
          if (conductor[m]) continue;
          re[p] += w * er[m];
          loss[p] += w * el[m];
        }
      }
    };
    this.length.fill(0);
    for (const s of sums) {
      s.inverseRe.fill(0);
      s.inverseLoss.fill(0);
    }
    // What lies in metal does not count: the edge's free part alone has a field.
    if (c === 0) {
      clear();
      for (let y = y0; y < y1; y++) for (let z = z0; z < z1; z++) addRow(y, z, py.width[y] * pz.width[z]);
      for (let i = 0; i < nx; i++)
        for (let p = px.start[2 * i]; p < px.start[2 * i + 2]; p++) {
          if (!(weight[p] > 0)) continue;
          this.length[i] += px.width[p];
          for (const s of sums) addInverse(s, i, s.re[p] / weight[p], s.loss[p] / weight[p], px.width[p]);
        }
    } else {
      // Ey, Ez: for each slice along the edge, average over the dual face; then the harmonic mean of the slices.
      const [s0, s1, ps] = c === 1 ? ([y0, y1, py] as const) : ([z0, z1, pz] as const);
      const [t0, t1, pt] = c === 1 ? ([z0, z1, pz] as const) : ([y0, y1, py] as const);
      for (let s = s0; s < s1; s++) {
        clear();
        for (let t = t0; t < t1; t++) addRow(c === 1 ? s : t, c === 1 ? t : s, pt.width[t]);
        for (let i = 0; i <= nx; i++) {
          const a = px.start[Math.max(0, 2 * i - 1)];
          const b = px.start[Math.min(2 * nx, 2 * i + 1)];
          let w = 0;
          for (let p = a; p < b; p++) w += px.width[p] * weight[p];
          if (!(w > 0)) continue;
          this.length[i] += ps.width[s];
          for (const one of sums) {
            let [re, loss] = [0, 0];
            for (let p = a; p < b; p++) {
              re += px.width[p] * one.re[p];
              loss += px.width[p] * one.loss[p];
            }
            addInverse(one, i, re / w, loss / w, ps.width[s]);
          }
        }
      }
    }
    sums.forEach((s, n) => this.finish(s, this.row.views[n]));
  }

  /** The inverse means as permittivities; vacuum where an edge has no free part. */
  private finish(s: { inverseRe: Float64Array; inverseLoss: Float64Array }, out: { re: Float64Array; loss: Float64Array }): void {
    for (let i = 0; i <= this.nx; i++) {
      const length = this.length[i];
      const re = s.inverseRe[i] / length;
      const loss = s.inverseLoss[i] / length;
      const d = re * re + loss * loss;
      out.re[i] = length === 0 ? 1 : re / d;
      out.loss[i] = length === 0 ? 0 : loss / d;
    }
  }

  /** Where curved dielectrics are near, their tensor averages take the place of the averages along the grid. */
  private blend(c: Axis, j: number, k: number): void {
    const { subpixel, row } = this;
    const range = subpixel?.range(c, j, k);
    if (!subpixel || !range) return;
    for (let i = range[0]; i < range[1]; i++) {
      if (!subpixel.blends(c, i, j, k)) continue;
      for (let n = 0; n < row.views.length; n++) {
        const e = subpixel.edge(c, i, j, k, n);
        if (e) [row.views[n].re[i], row.views[n].loss[i]] = e;
      }
    }
  }

  /** Where curved metal is near, its exact cuts take the place of the marks at the edges' middles. */
  private cut(c: Axis, j: number, k: number): void {
    const { cuts, parts } = this;
    const solids = cuts?.solids;
    const range = solids?.range(c, j, k);
    if (!solids || !range) return;
    parts.fill(1);
    for (let i = range[0]; i < range[1]; i++) {
      const free = solids.free(c, i, j, k);
      this.row.metal[i] = free === 0 ? solids.metal(c, i, j, k) : 0;
      if (free > 0) parts[i] = free;
    }
    this.row.free = parts;
  }

  private markMetal(c: Axis, j: number, k: number): void {
    const [, ly, lz] = this.grid.lines;
    const positions = (l: Float64Array, i: number, along: boolean): number[] => {
      if (along) return [(l[i] + l[Math.min(i + 1, l.length - 1)]) / 2];
      const d = 1e-4 * Math.min(i > 0 ? l[i] - l[i - 1] : Infinity, i + 1 < l.length ? l[i + 1] - l[i] : Infinity);
      return [l[i] - d, l[i] + d];
    };
    const xs = this.probeX[c];
    const { metal } = this.row;
    const { conductor } = this.media;
    for (const y of positions(ly, j, c === 1))
      for (const z of positions(lz, k, c === 2)) {
        this.filling.row(y, z, xs, this.media16);
        for (let p = 0; p < xs.length; p++) {
          const mark = conductor[this.media16[p]];
          if (mark) metal[c === 0 ? p : p >> 1] = mark;
        }
      }
  }
}

/** Adds w / (re - j loss) to the running inverse. */
function addInverse(s: { inverseRe: Float64Array; inverseLoss: Float64Array }, i: number, re: number, loss: number, w: number): void {
  const d = re * re + loss * loss;
  s.inverseRe[i] += (w * re) / d;
  s.inverseLoss[i] += (w * loss) / d;
}

/** Metal marks of sheets: for each edge row that a sheet touches, a mark per x index. Keys are 'component j k'. */
function markSheets(scene: Filled, grid: Grid, media: Media): Map<string, Uint16Array> {
  const rows = new Map<string, Uint16Array>();
  const lines = grid.lines;
  const least = lines.map((l) => l.reduce((m, x, i) => (i ? Math.min(m, x - l[i - 1]) : m), Infinity));
  const clamp = (a: number, x: number): number => Math.min(Math.max(x, scene.min[a]), scene.max[a]);
  for (const [body, { shape, min, max }] of scene.bodies.entries()) {
    if (shape.form !== 'sheet') continue;
    const n = shape.normal;
    const [u, w] = inPlane[n];
    const size = Math.max(max[u] - min[u], max[w] - min[w]);
    const plane = lines[n].reduce((best, x, i) => (Math.abs(x - shape.offset) < Math.abs(lines[n][best] - shape.offset) ? i : best), 0);
    // A long body may have features far smaller than itself: no more than a part of a cell.
    const tolerance = Math.min(sameMesh * size, 1e-3 * least[u], 1e-3 * least[w]);
    for (const along of [u, w] as const) {
      const across = along === u ? w : u;
      // Outlines with the row's direction first, so that each row is cut once.
      const loops = along === u ? shape.loops : shape.loops.map((l) => l.map(([p, q]): Point2 => [q, p]));
      for (let b = 0; b < lines[across].length; b++) {
        const pb = clamp(across, lines[across][b]);
        if (pb < min[across] - tolerance || pb > max[across] + tolerance) continue;
        // The edge counts as inside: a row just to either side will do.
        const sides = [loopCrossings(loops, pb - tolerance), loopCrossings(loops, pb + tolerance)];
        if (!sides.some((c) => c.length)) continue;
        for (let a = 0; a + 1 < lines[along].length; a++) {
          const pa = clamp(along, (lines[along][a] + lines[along][a + 1]) / 2);
          if (!sides.some((c) => within(c, pa, tolerance))) continue;
          const index = [0, 0, 0];
          index[n] = plane;
          index[along] = a;
          index[across] = b;
          const key = `${along} ${index[1]} ${index[2]}`;
          let row = rows.get(key);
          if (!row) rows.set(key, (row = new Uint16Array(lines[0].length)));
          // Where a perfect and a lossy sheet overlap the perfect one shorts the other.
          if (row[index[0]] !== 1) row[index[0]] = media.conductor[media.ofBody[body]];
        }
      }
    }
  }
  return rows;
}

/** Whether a coordinate lies between a pair of crossings, their ends counted in. */
function within(crossings: readonly number[], at: number, tolerance: number): boolean {
  for (let i = 0; i + 1 < crossings.length; i += 2) if (at >= crossings[i] - tolerance && at <= crossings[i + 1] + tolerance) return true;
  return false;
}
