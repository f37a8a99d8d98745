import { describe, expect, test } from '@jest/globals';
import { c0 } from '../../numerics/constants.ts';
import { uniformGrid } from '@jadebell/verification/bench';
import type { Grid } from '../../yee/index.ts';
import { planWave, type TotalBox, type WavePlan } from './discreteWave.ts';
import { pulseAt, pulseFor } from '../../numerics/pulse.ts';
import { timeStep } from './discretise.ts';

const pulse = pulseFor(2e9, 4e9);
const box: TotalBox = { lo: [3, 3, 3], hi: [0, 0, 0] };
// On no axis, and off the diagonal, where the scheme is nearly exact.
const tilt = [2 / 15, 5 / 15, -14 / 15] as const;
const field = [5 / Math.sqrt(29), -2 / Math.sqrt(29), 0] as const;

/** A region of 6 cm, and the same with cells that grow along x. */
function grids(cells: number): Record<'uniform' | 'graded', Grid> {
  const uniform = uniformGrid([-0.03, -0.03, -0.03], [0.03, 0.03, 0.03], [cells, cells, cells], 0);
  const [x, y, z] = uniform.lines;
  return { uniform, graded: { ...uniform, lines: [x.map((v) => v + 0.25 * v * (1 + v / 0.03)), y, z] } };
}

/** What the plan adds to a sample of a row at a step. */
function added(plan: WavePlan, row: WavePlan['rows'][number], i: number, n: number): number {
  const { length, ...table } = plan.tables[row.axis];
  const values = row.half ? table.half : table.node;
  const turn = row.field < 3 ? plan.turnE : plan.turnH;
  let sum = 0;
  for (let t = 0; t < plan.tones; t++) {
    const [fr, fi] = [row.factors[2 * t], row.factors[2 * t + 1]];
    const [xr, xi] = [values[2 * t * length + row.from + i], values[(2 * t + 1) * length + row.from + i]];
    const [wr, wi] = [turn[2 * (n * plan.tones + t)], turn[2 * (n * plan.tones + t) + 1]];
    const [pr, pi] = [fr * xr - fi * xi, fr * xi + fi * xr];
    sum += pr * wr - pi * wi;
  }
  return sum;
}

/** Largest difference of what is added on one face to the tangential fields from the wave in free space, relative to the largest, in the middle of its rows. */
function off(grid: Grid): number {
  const n = grid.lines[0].length - 1;
  const dt = timeStep(grid, { bodies: [], min: [0, 0, 0], max: [0, 0, 0] });
  const inner: TotalBox = { lo: box.lo, hi: [n - 3, n - 3, n - 3] };
  const plan = planWave(grid, dt, inner, { towards: [...tilt], re: [...field], im: [0, 0, 0] }, pulse);
  const h = [0, 1, 2].map((a) => tilt[(a + 1) % 3] * field[(a + 2) % 3] - tilt[(a + 2) % 3] * field[(a + 1) % 3]);
  const at = (a: number, half: boolean, i: number): number => (half ? (grid.lines[a][i] + grid.lines[a][i + 1]) / 2 : grid.lines[a][i]);
  const first = tilt.map((d, a) => (d >= 0 ? grid.lines[a][inner.lo[a] - 1] : grid.lines[a][inner.hi[a] + 1]));
  let [worst, largest] = [0, 0];
  for (const row of plan.rows) {
    const normal = 0;
    // E on the face of least x, driven by H in the cells before it, and the other way round.
    const electric = row.field < 3;
    const index = electric ? inner.lo[0] : inner.lo[0] - 1;
    if (row.axis === normal || row.at[normal] !== index || row.field % 3 === normal) continue;
    const [along, other] = [row.axis, 3 - row.axis];
    const source = electric ? 3 + (3 - row.field) : 3 - (row.field - 3);
    const isHalf = (a: number): boolean => (source < 3 ? a === source : a !== source - 3);
    const amplitude = source < 3 ? field[source] : h[source - 3];
    const depth = electric ? at(0, true, inner.lo[0] - 1) : grid.lines[0][inner.lo[0]];
    const step = electric ? (grid.lines[0][index + 1] - grid.lines[0][index - 1]) / 2 : grid.lines[0][index + 1] - grid.lines[0][index];
    const i = row.count >> 1;
    const point = [depth, 0, 0];
    point[along] = at(along, isHalf(along), row.at[along] + i);
    point[other] = at(other, isHalf(other), row.at[other]);
    const late = tilt.reduce((s, d, a) => s + (d * (point[a] - first[a])) / c0, 0);
    for (let step0 = 0; step0 < plan.steps; step0 += 3) {
      const wave = amplitude * pulseAt(pulse, (step0 + (electric ? 0.5 : 1)) * dt - late);
      const told = (added(plan, row, i, step0) * step) / (c0 * dt);
      // The sign is that of the curl: only the size is compared where it differs.
      worst = Math.max(worst, Math.min(Math.abs(told - wave), Math.abs(told + wave)));
      largest = Math.max(largest, Math.abs(wave));
    }
  }
  return worst / largest;
}

describe('the plane wave of the grid', () => {
  test.each(['uniform', 'graded'] as const)('on a %s grid it is the wave in free space but for the error of the scheme, of second order', (kind) => {
    const [coarse, fine] = [20, 40].map((cells) => off(grids(cells)[kind]));
    process.stdout.write(`${kind}: off by ${coarse.toFixed(4)}, with half the cells ${fine.toFixed(4)}\n`);
    expect(fine).toBeLessThan(0.02);
    expect(coarse / fine).toBeGreaterThan(3);
  });

  test('it meets the box when it is said to, from any side, and ends', () => {
    const grid = grids(16).uniform;
    const inner: TotalBox = { lo: [3, 3, 3], hi: [13, 13, 13] };
    for (const towards of [
      [0, 0, 1],
      [0, 0, -1],
      [-0.6, 0.8, 0],
    ] as [number, number, number][]) {
      // prettier-ignore
      const plan = planWave(grid, timeStep(grid, { bodies: [], min: [0, 0, 0], max: [0, 0, 0] }), inner, { towards, re: [0, 0, 0].map((_, a) => (a === (towards[2] ? 0 : 2) ? 1 : 0)) as [number, number, number], im: [0, 0, 0] }, pulse); // prettier-ignore
      const first = towards.map((d, a) => (d >= 0 ? grid.lines[a][2] : grid.lines[a][14]));
      expect(plan.delay).toBeCloseTo(-towards.reduce((s, d, a) => s + (d * first[a]) / c0, 0), 15);
      const row = plan.rows.find((r) => r.factors.some((f) => Math.abs(f) > 0))!;
      const series = Array.from({ length: plan.steps }, (_, n) => Math.abs(added(plan, row, 2, n)));
      const most = Math.max(...series);
      expect(series[0]).toBeLessThan(1e-3 * most);
      expect(series[plan.steps - 1]).toBeLessThan(1e-3 * most);
    }
  });
});
