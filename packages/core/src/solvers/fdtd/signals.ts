import type { ResultArray, ResultMeta } from '../../results/index.ts';
import type { Discrete } from './discretise.ts';
import { type RecordingPlan, signsOf, wallAt } from './recorders.ts';
import type { Probe, Simulation } from './simulation.ts';

/** Probes of the points, three each: E at the node as the mean of the edges on both sides. */
export const probesOf = (plan: RecordingPlan, { grid }: Discrete): Probe[] =>
  plan.points.flatMap(({ node }) =>
    ([0, 1, 2] as const).map((c): Probe => {
      const x = grid.lines[c];
      const [below, above] = [x[node[c]] - x[node[c] - 1], x[node[c] + 1] - x[node[c]]];
      const shift: [number, number, number] = [0, 0, 0];
      shift[c] = -1;
      // Straight between the middles of the two edges.
      return { field: c, at: node, shift, weights: [below / (below + above), above / (below + above)] };
    }),
  );

/** Most samples of a signal that a result keeps unless it is told how many. */
const mostSamples = 4000;

/** Adds the signals of the scene's points to a result's arrays and tells where they are. */
export function signalArrays(
  plan: RecordingPlan,
  { grid, dt }: Discrete,
  simulation: Simulation,
  arrays: Record<string, ResultArray>,
): NonNullable<ResultMeta['signals']> {
  return plan.points.map(({ recorder: { name, turned, start = 0, stop = 0, every = 0 }, node }, n) => {
    const signs = turned ? signsOf(plan, turned) : [1, 1, 1];
    const series = [0, 1, 2].map((c) => simulation.probe(3 * n + c));
    const end = stop ? Math.min(simulation.steps, Math.ceil(stop / dt)) : simulation.steps;
    const first = Math.min(Math.ceil(start / dt - 1e-9), end);
    const step = every ? Math.max(1, Math.round(every / dt)) : Math.max(1, Math.ceil((end - first) / mostSamples));
    const count = Math.floor((end - first) / step);
    // Sample i is that after so many steps.
    const steps = (i: number): number => first + (i + 1) * step;
    arrays[`point:${name}`] = {
      shape: [count, 3],
      data: Float32Array.from({ length: 3 * count }, (_, i) => signs[i % 3] * series[i % 3][steps(Math.floor(i / 3)) - 1]),
    };
    arrays[`point:${name}:time`] = { shape: [count], data: Float64Array.from({ length: count }, (_, i) => steps(i) * dt) };
    const at = node.map((i, a) => (turned?.[a] ? 2 * wallAt(plan, a) - grid.lines[a][i] : grid.lines[a][i]));
    return { name, at: at as [number, number, number] };
  });
}
