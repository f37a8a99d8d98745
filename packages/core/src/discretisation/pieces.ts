import { sameMesh } from '../numerics/tolerance.ts';
/**
 * Pieces of the half cells along one axis, cut also at faces that are no grid lines, so that averages over thin layers are
 * exact. Pieces of half cell h stand at start[h] .. start[h+1]; half cell 2i is the lower half of cell i.
 */
export interface Pieces {
  start: Int32Array;
  centre: Float64Array;
  width: Float64Array;
}

/** Cuts an axis into pieces. `round` lists stretches with curved bodies, whose half cells are cut in two. */
export function cutPieces(lines: Float64Array, faces: readonly number[], round: readonly [number, number][]): Pieces {
  const centre: number[] = [];
  const width: number[] = [];
  const start = new Int32Array(2 * (lines.length - 1) + 1);
  for (let h = 0; h < 2 * (lines.length - 1); h++) {
    const i = h >> 1;
    const mid = (lines[i] + lines[i + 1]) / 2;
    const [a, b] = h & 1 ? [mid, lines[i + 1]] : [lines[i], mid];
    const cuts = faces.filter((f) => f > a + sameMesh * (b - a) && f < b - sameMesh * (b - a));
    if (round.some(([r0, r1]) => b > r0 && a < r1)) cuts.push((a + b) / 2);
    const ends = [a, ...cuts.sort((p, q) => p - q), b];
    start[h] = centre.length;
    for (let p = 1; p < ends.length; p++) {
      centre.push((ends[p - 1] + ends[p]) / 2);
      width.push(ends[p] - ends[p - 1]);
    }
  }
  start[start.length - 1] = centre.length;
  return { start, centre: Float64Array.from(centre), width: Float64Array.from(width) };
}
