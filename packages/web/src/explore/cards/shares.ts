import type { StudyRow } from '../study/useStudyData.ts';

/** The smallest and the largest of some values; equal where there is but one. */
export function spanOf(values: readonly number[]): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) {
    if (!Number.isFinite(v)) continue;
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  return [low, high];
}

/** Where a value lies between two, from 0 to 1. */
export const shareOf = (v: number, [low, high]: readonly [number, number]): number => (high > low ? (v - low) / (high - low) : 0.5);

/** Values of a grid of points over two parameters. */
export interface Grid {
  xs: number[];
  ys: number[];
  /** By row: ys outer, xs inner; NaN where there is none. */
  values: Float64Array;
  rows: (StudyRow | null)[];
}

const distinct = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** Points over two parameters as a grid; of several at one place the last. */
export function gridOf(points: readonly StudyRow[], x: string, y: string, figure: (row: StudyRow) => number): Grid {
  const [xs, ys] = [x, y].map((p) => distinct(points.map((r) => r.values[p])));
  const [atX, atY] = [xs, ys].map((list) => new Map(list.map((v, i) => [v, i])));
  const values = new Float64Array(xs.length * ys.length).fill(NaN);
  const rows: (StudyRow | null)[] = Array.from(values, () => null);
  for (const row of points) {
    const n = atY.get(row.values[y])! * xs.length + atX.get(row.values[x])!;
    values[n] = figure(row);
    rows[n] = row;
  }
  return { xs, ys, values, rows };
}

/** Ends of the cells around values: half way to the next. */
export function cellEnds(values: readonly number[]): number[] {
  if (values.length < 2) return [values[0] - (Math.abs(values[0]) || 1) / 2, values[0] + (Math.abs(values[0]) || 1) / 2];
  const middles = values.slice(1).map((v, i) => (v + values[i]) / 2);
  return [2 * values[0] - middles[0], ...middles, 2 * values.at(-1)! - middles.at(-1)!];
}

/** Place in a list of ends of the cell that holds a value; -1 outside. */
export function cellOf(ends: readonly number[], v: number): number {
  const n = ends.findIndex((e) => v < e) - 1;
  return n < 0 ? -1 : n;
}
