import type { Body } from '../geometry/index.ts';
import type { Grid } from '../grid/index.ts';
import type { Filled } from '../geometry/index.ts';

/** Nodes around some bodies: the first on each axis and how many, one cell more on each side; bodies at the region's edge go on into the layers. */
export function nodesAround(bodies: readonly Body[], scene: Filled, grid: Grid): { lo: number[]; size: number[] } {
  const lo: number[] = [];
  const size: number[] = [];
  for (const a of [0, 1, 2]) {
    const x = grid.lines[a];
    const from = Math.min(...bodies.map((b) => b.min[a]));
    const to = Math.max(...bodies.map((b) => b.max[a]));
    let first = 0;
    let last = x.length - 1;
    while (first + 2 < x.length && x[first + 2] < from && from > scene.min[a]) first++;
    while (last > 1 && x[last - 2] > to && to < scene.max[a]) last--;
    lo.push(first);
    size.push(last - first + 1);
  }
  return { lo, size };
}
