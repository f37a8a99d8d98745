import { type AxisLimit, buildGrid, cellCount, type Grid, type Refinement } from '../../grid/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { Simulation } from './simulation.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Factor by which marked cells, and those that metal's edges and layers ask for, become smaller. */
const shrink = 1.5;
const finerBy = 1.4;

/** Sums of the squared jumps of E from node to node over the cells of each axis, times their volume: where the grid is too coarse for the field. */
export class RefinementIndicator {
  readonly sums: [Float64Array, Float64Array, Float64Array];
  private readonly steps: Float64Array[];
  private readonly from: number[];
  private readonly to: number[];

  constructor(private readonly grid: Grid) {
    this.steps = grid.lines.map((x) => Float64Array.from({ length: x.length - 1 }, (_, i) => x[i + 1] - x[i]));
    this.sums = this.steps.map((s) => new Float64Array(s.length)) as RefinementIndicator['sums'];
    this.from = [0, 1, 2].map((a) => grid.outerCells[2 * a]);
    this.to = [0, 1, 2].map((a) => grid.lines[a].length - 1 - grid.outerCells[2 * a + 1]);
  }

  /** Adds the fields as they stand. Metal, where E is exactly zero, does not count. */
  take(simulation: Simulation): void {
    const { from, to, steps } = this;
    const { sx, rows } = simulation.shape;
    const strides = [1, sx, sx * rows];
    for (const c of [0, 1, 2] as const) {
      const e = simulation.electric(c);
      for (const a of [0, 1, 2] as const) {
        if (a === c) continue;
        const [stride, sum] = [strides[a], this.sums[a]];
        for (let k = from[2]; k < to[2]; k++)
          for (let j = from[1]; j < to[1]; j++) {
            const row = k * strides[2] + j * strides[1];
            const across = a === 0 ? steps[1][j] * steps[2][k] : a === 1 ? steps[2][k] : steps[1][j];
            for (let i = from[0]; i < to[0]; i++) {
              const [p, q] = [e[row + i], e[row + i + stride]];
              if (p === 0 || q === 0) continue;
              const at = a === 0 ? i : a === 1 ? j : k;
              sum[at] += (p - q) * (p - q) * across * (a === 0 ? 1 : steps[0][i]) * steps[a][at];
            }
          }
      }
    }
  }

  /** Limits for the cells that together hold a part of all jumps (bulk criterion: W. Doerfler, SIAM J. Numer. Anal. 33, 1106, 1996). */
  limits(bulk: number): AxisLimit[] {
    const all = this.sums.flatMap((sum, axis) => Array.from(sum, (value, i) => ({ axis: axis as Axis, i, value }))).filter((x) => x.value > 0);
    all.sort((p, q) => q.value - p.value);
    const total = all.reduce((s, x) => s + x.value, 0);
    const out: AxisLimit[] = [];
    let sum = 0;
    for (const { axis, i, value } of all) {
      if (sum >= bulk * total) break;
      sum += value;
      const x = this.grid.lines[axis];
      out.push({ axis, from: x[i], to: x[i + 1], size: (x[i + 1] - x[i]) / shrink });
    }
    return out;
  }
}

/** Factor in cells from pass to pass: a change means little if the grid has hardly changed. */
const growth = 1.8;

/**
 * What the next pass asks of the grid, about twice the cells or more: smaller ones where the jumps are largest, at metal's edges and in layers, or where
 * that is too few every cell smaller.
 */
export function refined(scene: GridScene, now: Refinement, grid: Grid, jumps: RefinementIndicator): { refinement: Refinement; grid: Grid } {
  const enough = growth * cellCount(grid);
  const finer = now.finer * finerBy;
  for (const bulk of [0.5, 0.7, 0.85, 0.95]) {
    const refinement = { ...now, finer, limits: [...now.limits, ...jumps.limits(bulk)] };
    const next = buildGrid(scene, refinement);
    if (cellCount(next) >= enough) return { refinement, grid: next };
  }
  const all = { ...now, finer, cellsPerWavelength: grid.cellsPerWavelength * finerBy };
  return { refinement: all, grid: buildGrid(scene, all) };
}
