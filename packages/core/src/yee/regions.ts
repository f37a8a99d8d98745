import type { Grid } from './grid.ts';
import type { Axis } from '../numerics/axis.ts';

/** Planes and rows of field samples whose Fourier sums are kept during a run. */
export interface Region {
  /** 0..5: Ex, Ey, Ez, Hx, Hy, Hz. */
  field: number;
  /** First sample, [i, j, k]; a second sample at `shift` along an axis is added with weight `wb`. */
  from: [number, number, number];
  shift: [number, number, number];
  wa: number;
  wb: number;
  innerAxis: Axis;
  inner: number;
  outerAxis: Axis;
  outer: number;
  /** The recorded frequencies whose sums are kept; absent: all. */
  at?: KeptAt;
}

/** Some of the recorded frequencies, by their number. */
export interface KeptAt {
  list: readonly number[];
  /** For each recorded frequency its place in the list, -1 for none. */
  place: Int32Array;
}

/** So many recorded frequencies, of which those of a list are kept. */
export function keptAt(list: readonly number[], of: number): KeptAt {
  const place = new Int32Array(of).fill(-1);
  list.forEach((f, i) => (place[f] = i));
  return { list, place };
}

/** Fourier sums of a region: [outer][kept frequency][re, im][padded inner]. */
export interface RegionSums {
  region: Region;
  padded: number;
  /** How many frequencies are kept. */
  count: number;
  data: Float32Array;
}

/** Reads one sum at a recorded frequency, which the region must keep. */
export function sumAt(s: RegionSums, o: number, i: number, f: number): [number, number] {
  const n = s.region.at ? s.region.at.place[f] : f;
  const at = (o * s.count + n) * 2 * s.padded + i;
  return [s.data[at], s.data[at + s.padded]];
}

/** Whether samples of a field stand between the nodes of an axis. */
export const isHalf = (axis: number, field: number): boolean => (field < 3 ? field === axis : field - 3 !== axis);

/** Coordinate of a sample of `field` with index i on an axis. */
export function coordinate(grid: Grid, axis: Axis, field: number, i: number): number {
  const x = grid.lines[axis];
  return isHalf(axis, field) ? (x[i] + x[i + 1]) / 2 : x[i];
}

/** Width of the cell or dual cell that a sample stands for on an axis. */
export function extent(grid: Grid, axis: Axis, field: number, i: number): number {
  const x = grid.lines[axis];
  return isHalf(axis, field) ? x[i + 1] - x[i] : (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2;
}

/**
 * A region of a field on the node plane `index` of `normal`, between node indices lo and hi on the other two axes. Samples
 * that sit half a cell off the plane are interpolated to it.
 */
export function planeRegion(grid: Grid, field: number, normal: Axis, index: number, lo: readonly number[], hi: readonly number[]): Region {
  const [innerAxis, outerAxis] = ([0, 1, 2] as const).filter((a) => a !== normal) as [Axis, Axis];
  const from: [number, number, number] = [lo[0], lo[1], lo[2]];
  from[normal] = index;
  const shift: [number, number, number] = [0, 0, 0];
  let wa = 1;
  let wb = 0;
  if (isHalf(normal, field)) {
    // Linear interpolation between the samples half a cell below and above.
    const below = coordinate(grid, normal, field, index - 1);
    const above = coordinate(grid, normal, field, index);
    wb = (above - grid.lines[normal][index]) / (above - below);
    wa = 1 - wb;
    shift[normal] = -1;
  }
  const count = (a: Axis): number => hi[a] - lo[a] + (isHalf(a, field) ? 0 : 1);
  return { field, from, shift, wa, wb, innerAxis, inner: count(innerAxis), outerAxis, outer: count(outerAxis) };
}

/** A row of samples of a field along an axis; a second sample at `shift` may be added. Weights are those of either. */
export const rowRegion = (
  field: number,
  from: [number, number, number],
  along: Axis,
  count: number,
  shift: [number, number, number] = [0, 0, 0],
  weights: readonly [number, number] = [1, 0],
): Region => ({
  field,
  from,
  shift,
  wa: weights[0],
  wb: weights[1],
  innerAxis: along,
  inner: count,
  outerAxis: along === 2 ? 0 : 2,
  outer: 1,
});

/** Weights with which the samples of a field half a cell above and below a node make up its value there. */
export function atNode(grid: Grid, axis: Axis, field: number, i: number): [above: number, below: number] {
  const [below, above] = [coordinate(grid, axis, field, i - 1), coordinate(grid, axis, field, i)];
  const wb = (above - grid.lines[axis][i]) / (above - below);
  return [1 - wb, wb];
}
