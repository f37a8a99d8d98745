import { eta0, mu0 } from '../../numerics/constants.ts';
import type { Grid } from '../../grid/index.ts';
import type { Cuts } from '../../discretisation/cuts.ts';
import { apart, type SplitPart } from '../../discretisation/split/types.ts';
import type { MetalClass } from '../../discretisation/media.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Field samples that a passive branch with memory loads: edges in lossy sheets, faces beside lossy metal. */
export interface Branches {
  /** Classes of metal that `metal` counts in. */
  metals: MetalClass[];
  count: number;
  /** The first so many are on faces that curved metal cuts. */
  onCuts: number;
  /** 0..5: Ex, Ey, Ez, Hx, Hy, Hz; 6: the jump of H at a sheet across no axis, whose number is the first index. */
  field: Uint8Array;
  /** Grid indices, three an entry. */
  index: Int32Array;
  metal: Uint16Array;
  /** Strength of the branch in the update: per ohm for faces, per siemens for edges. */
  q: Float32Array;
  /** Area of metal that the sample stands for, m^2: its power lost is area / 2 Re(Z |H|^2) or area / 2 Re(Y |E|^2). */
  area: Float32Array;
}

/** Entries that stand next to each other along an axis and belong to one class: `entries` are their numbers, in order. */
export interface BranchRun {
  axis: Axis;
  entries: number[];
}

/** Shortest run that is taken along an axis before the next axis is tried. */
const worthwhile = 4;

/** Divides branches into straight runs, so that they can be recorded in few regions. */
export function branchRuns({ count, field, index, metal }: Branches): BranchRun[] {
  const out: BranchRun[] = [];
  let left = Array.from({ length: count }, (_, n) => n);
  for (const axis of [0, 1, 2] as const) {
    const [a, b] = [(axis + 1) % 3, (axis + 2) % 3];
    left.sort(
      (m, n) =>
        field[m] - field[n] ||
        metal[m] - metal[n] ||
        index[3 * m + a] - index[3 * n + a] ||
        index[3 * m + b] - index[3 * n + b] ||
        index[3 * m + axis] - index[3 * n + axis],
    );
    const rest: number[] = [];
    for (let from = 0; from < left.length;) {
      let to = from + 1;
      const follows = (m: number, n: number): boolean =>
        field[m] === field[n] &&
        metal[m] === metal[n] &&
        index[3 * m + a] === index[3 * n + a] &&
        index[3 * m + b] === index[3 * n + b] &&
        index[3 * m + axis] + 1 === index[3 * n + axis];
      while (to < left.length && follows(left[to - 1], left[to])) to++;
      const entries = left.slice(from, to);
      if (entries.length >= worthwhile || axis === 2) out.push({ axis, entries });
      else rest.push(...entries);
      from = to;
    }
    left = rest;
  }
  return out;
}

/** Marks of the electric edges of one node plane: for Ex, Ey, Ez a value per (j, i); 0 none, 1 perfect, otherwise 1 + class. */
export type PlaneMarks = [Uint16Array, Uint16Array, Uint16Array];

/** The two edges of each pair that bound a face: component, and the axis by which the second is shifted. */
const around = ([0, 1, 2] as const).map((n) => {
  const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
  return [
    { c: u, shift: v },
    { c: v, shift: u },
  ] as const;
});

/**
 * Collects branches while a model is discretised plane by plane. A face beside lossy metal has, on each of its edges that
 * lies on the metal, the voltage Z H in place of zero: H half a cell away stands for H at the surface, as its normal
 * derivative there vanishes. An edge in a lossy sheet carries the current Y E in parallel with its dual cell.
 */
export class BranchBuilder {
  private readonly entries: { field: number[]; index: number[]; metal: number[]; q: number[]; area: number[] } = {
    field: [],
    index: [],
    metal: [],
    q: [],
    area: [],
  };
  private readonly steps: Float64Array[];
  private readonly duals: Float64Array[];
  private readonly planes: [PlaneMarks, PlaneMarks];
  private readonly width: number;
  private readonly metals: MetalClass[];
  /** Whether some metal of the scene has losses. */
  readonly needed: boolean;

  constructor(
    grid: Grid,
    private readonly dt: number,
    metals: readonly (MetalClass | null)[],
    private readonly cuts: Cuts | null = null,
  ) {
    this.metals = metals.slice(1) as MetalClass[];
    this.needed = this.metals.length > 0;
    this.steps = grid.lines.map((x) => Float64Array.from({ length: x.length - 1 }, (_, i) => x[i + 1] - x[i]));
    this.duals = grid.lines.map((x) => x.map((_, i) => (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2));
    this.width = grid.lines[0].length;
    const size = this.needed ? this.width * grid.lines[1].length : 0;
    const plane = (): PlaneMarks => [new Uint16Array(size), new Uint16Array(size), new Uint16Array(size)];
    this.planes = [plane(), plane()];
    if (this.needed) this.cutFaces();
  }

  private readonly cut = new Set<string>();
  private onCuts = 0;

  /** Faces that curved metal cuts have the metal's voltage along the cut. */
  private cutFaces(): void {
    const faces = this.cuts?.solids?.faces;
    this.jumps();
    if (!faces) {
      this.onCuts = this.entries.field.length;
      return;
    }
    for (let f = 0; f < faces.count; f++) {
      const n = (faces.field[f] - 3) as Axis;
      const at = Array.from(faces.index.subarray(3 * f, 3 * f + 3));
      this.cut.add(`${n} ${at.join(' ')}`);
      if (faces.metal[f] < 2 || faces.wall[f] === 0) continue;
      const [a, b] = [(n + 1) % 3, (n + 2) % 3];
      const area = faces.area[f] * this.steps[a][at[a]] * this.steps[b][at[b]];
      this.push(3 + n, at, faces.metal[f], (this.dt * faces.wall[f]) / (mu0 * area), faces.wall[f] * this.duals[n][at[n]]);
    }
    this.onCuts = this.entries.field.length;
  }

  /** Between the two parts of a face that a lossy sheet splits it sets a voltage, which drives both of their H. */
  private jumps(): void {
    const splits = this.cuts?.splits;
    for (const { normal: n, at, parts, joints } of splits?.faces ?? []) {
      this.cut.add(`${n} ${at.join(' ')}`);
      for (const { length, mark, sample, one, other } of joints) {
        const drive = this.drive(n, at, parts[one].counts) + this.drive(n, at, parts[other].counts);
        this.push(apart, [sample, 0, 0], mark, length * drive, length * this.duals[n][at[n]]);
      }
    }
    // Walls of solids bound one side each.
    const bound = (
      field: number,
      index: readonly number[],
      n: Axis,
      at: readonly number[],
      { counts, walls }: Pick<SplitPart, 'counts' | 'walls'>,
    ): void => {
      for (const { length, mark } of walls) this.push(field, index, mark, length * this.drive(n, at, counts), length * this.duals[n][at[n]]);
    };
    for (const { normal, at, parts } of splits?.faces ?? []) for (const p of parts) bound(apart, [p.sample, 0, 0], normal, at, p);
    for (const { normal, at, part } of splits?.cut ?? []) {
      this.cut.add(`${normal} ${at.join(' ')}`);
      bound(3 + normal, at, normal, at, part);
    }
  }

  /** By how much a voltage along a metre of metal drives H on a part of a face, given as a part of its area. */
  private drive(n: Axis, at: readonly number[], part: number): number {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3];
    return this.dt / (mu0 * part * this.steps[u][at[u]] * this.steps[v][at[v]]);
  }

  /** Marks one row of edges of the plane under way. */
  mark(c: Axis, j: number, marks: Uint16Array | number): void {
    if (!this.needed) return;
    const row = this.planes[1][c].subarray(j * this.width, (j + 1) * this.width);
    if (typeof marks === 'number') row.fill(marks);
    else row.set(marks.subarray(0, this.width));
  }

  /** An edge in a lossy sheet of mark `mark`; `cb` is its update coefficient. */
  sheetEdge(c: Axis, i: number, j: number, k: number, mark: number, cb: number): void {
    const at = [i, j, k];
    const normal = this.metals[mark - 2].normal!;
    const across = 3 - c - normal;
    this.push(c, at, mark, (cb * eta0) / this.duals[normal][at[normal]], this.steps[c][at[c]] * this.duals[across][at[across]]);
  }

  /** Finishes node plane `k`, whose edges have been marked: faces in it and between it and the plane below. */
  endPlane(k: number): void {
    if (!this.needed) return;
    const [below, here] = this.planes;
    const [nx, ny] = [this.steps[0].length, this.steps[1].length];
    for (let j = 0; j <= ny; j++) {
      if (j < ny) this.faces(2, j, k, nx, here, here);
      if (k > 0) {
        if (j < ny) this.faces(0, j, k - 1, nx + 1, below, here);
        this.faces(1, j, k - 1, nx, below, here);
      }
    }
    this.planes.reverse();
    for (const marks of this.planes[1]) marks.fill(0);
  }

  /** Faces with normal `n` of row j, indices k of their lower corner. */
  private faces(n: Axis, j: number, k: number, count: number, below: PlaneMarks, above: PlaneMarks): void {
    const w = this.width;
    const [first, second] = around[n];
    const shifted = (c: number, shift: number): [Uint16Array, number] =>
      shift === 2 ? [above[c], 0] : [n === 2 ? above[c] : below[c], shift === 1 ? w : 1];
    const a0 = n === 2 ? above[first.c] : below[first.c];
    const b0 = n === 2 ? above[second.c] : below[second.c];
    const [a1, da] = shifted(first.c, first.shift);
    const [b1, db] = shifted(second.c, second.shift);
    for (let i = 0; i < count; i++) {
      const o = j * w + i;
      const [p, q, r, s] = [a0[o], a1[o + da], b0[o], b1[o + db]];
      if (p < 2 && q < 2 && r < 2 && s < 2) continue;
      if (p && q && r && s) continue;
      const at = [i, j, k];
      if (this.cut.size && this.cut.has(`${n} ${at.join(' ')}`)) continue;
      const la = this.steps[first.c][at[first.c]];
      const lb = this.steps[second.c][at[second.c]];
      const length = ((p > 1 ? 1 : 0) + (q > 1 ? 1 : 0)) * la + ((r > 1 ? 1 : 0) + (s > 1 ? 1 : 0)) * lb;
      this.push(3 + n, at, Math.max(p, q, r, s), (this.dt * length) / (mu0 * la * lb), length * this.duals[n][at[n]]);
    }
  }

  private push(field: number, at: readonly number[], mark: number, q: number, area: number): void {
    const e = this.entries;
    e.field.push(field);
    e.index.push(at[0], at[1], at[2]);
    e.metal.push(mark - 2);
    e.q.push(q);
    e.area.push(area);
  }

  /** What has been collected. */
  done(): Branches {
    const e = this.entries;
    return {
      metals: this.metals,
      count: e.field.length,
      onCuts: this.onCuts,
      field: Uint8Array.from(e.field),
      index: Int32Array.from(e.index),
      metal: Uint16Array.from(e.metal),
      q: Float32Array.from(e.q),
      area: Float32Array.from(e.area),
    };
  }
}
