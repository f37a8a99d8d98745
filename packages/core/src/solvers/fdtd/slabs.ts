/** What one cell costs in the sweep against what goes with it, as measured: CPML across z, a state of a medium with memory, an edge that mixes. */
const costs = { layer: 0.5, state: 0.18, mixed: 0.6 };

/** What stands in each plane of a model besides its plain cells. */
export interface PlaneLoads {
  /** Cells of a plane. */
  cells: number;
  layer: (k: number) => boolean;
  states: Float64Array;
  mixed: Float64Array;
}

/** Sum of the costs of the planes before each one, and of all. */
export function costsOf(planes: number, loads: PlaneLoads): Float64Array {
  const before = new Float64Array(planes + 1);
  for (let k = 0; k < planes; k++)
    before[k + 1] = before[k] + loads.cells * (loads.layer(k) ? 1 + costs.layer : 1) + costs.state * loads.states[k] + costs.mixed * loads.mixed[k];
  return before;
}

/** First planes of the slabs that threads sweep, and the end: slabs of like cost, each of at least one plane. */
export function slabsOf(before: Float64Array, threads: number): Int32Array {
  const planes = before.length - 1;
  const out = new Int32Array(threads + 1);
  out[threads] = planes;
  for (let t = 1, k = 0; t < threads; t++) {
    const share = (t * before[planes]) / threads;
    while (before[k + 1] < share) k++;
    const near = share - before[k] < before[k + 1] - share ? k : k + 1;
    out[t] = Math.min(Math.max(near, out[t - 1] + 1), planes - (threads - t));
  }
  return out;
}

/** Below this difference of the slowest thread and the mean, as a part of it, slabs stay. */
const level = 0.02;
/** Part of the way that borders are moved at once: what is measured is noisy. */
const damping = 0.5;

/**
 * Slabs that even out the times in which threads swept theirs (any unit): each slab's cost becomes what it took, spread over its planes as before, and
 * borders go half of the way to where these costs are like. What cores differ in, or share with others, is so evened out as well.
 */
export function rebalanced(slabs: Int32Array, before: Float64Array, took: Float64Array): Int32Array {
  const threads = took.length;
  const mean = took.reduce((s, v) => s + v, 0) / threads;
  if (!(mean > 0) || took.every((v) => v < (1 + level) * mean)) return slabs;
  const real = new Float64Array(before.length);
  for (let t = 0, sum = 0; t < threads; sum += took[t++]) {
    const first = before[slabs[t]], all = before[slabs[t + 1]] - first; // prettier-ignore
    for (let k = slabs[t]; k < slabs[t + 1]; k++) real[k + 1] = sum + (took[t] * (before[k + 1] - first)) / all;
  }
  const ideal = slabsOf(real, threads);
  return slabs.map((k, t) => Math.round(k + damping * (ideal[t] - k)));
}
