import type { Grid } from './grid.ts';
import { isHalf, type Region, type RegionSums, sumAt } from './regions.ts';

type Index = [number, number, number];

/** Samples of one field component in a block of the grid: first index and count along each axis; a region for each plane across z. */
interface Block {
  field: number;
  from: Index;
  count: Index;
  planes: number[];
}

/** Fields in a block between grid nodes, with the samples half a cell beyond it, so that all can be interpolated in it. */
export interface VolumePlan {
  lo: Index;
  hi: Index;
  blocks: Block[];
}

/** Adds the regions of some fields (0..5: Ex to Hz) between nodes lo and hi, both included. `add` takes a region and gives its number. */
export function planVolume(grid: Grid, fields: readonly number[], lo: Index, hi: Index, add: (region: Region) => number): VolumePlan {
  const blocks = fields.map((field): Block => {
    const from = lo.map((n, a) => (isHalf(a, field) ? Math.max(0, n - 1) : n)) as Index;
    const last = hi.map((n, a) => (isHalf(a, field) ? Math.min(n, grid.lines[a].length - 2) : n));
    const count = last.map((n, a) => n - from[a] + 1) as Index;
    const planes = Array.from({ length: count[2] }, (_, k) =>
      add({
        field,
        from: [from[0], from[1], from[2] + k],
        shift: [0, 0, 0],
        wa: 1,
        wb: 0,
        innerAxis: 0,
        inner: count[0],
        outerAxis: 1,
        outer: count[1],
      }),
    );
    return { field, from, count, planes };
  });
  return { lo, hi, blocks };
}

/** Values of a block at one frequency, re and im, x fastest. */
export interface BlockValues {
  from: Index;
  count: Index;
  re: Float64Array;
  im: Float64Array;
}

/** Reads a block's sums at one frequency, times a complex factor. */
export function blockValues(
  { from, count, planes }: Block,
  sums: (region: number) => RegionSums,
  f: number,
  [sr, si]: readonly [number, number],
): BlockValues {
  const [nx, ny, nz] = count;
  const re = new Float64Array(nx * ny * nz);
  const im = new Float64Array(nx * ny * nz);
  for (let k = 0, n = 0; k < nz; k++) {
    const s = sums(planes[k]);
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++, n++) {
        const [x, y] = sumAt(s, j, i, f);
        re[n] = x * sr - y * si;
        im[n] = x * si + y * sr;
      }
  }
  return { from, count, re, im };
}
