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

/** First planes of the slabs that threads sweep, and the end: slabs of like cost, each of at least one plane. */
export function slabsOf(planes: number, threads: number, loads: PlaneLoads): Int32Array {
  const before = new Float64Array(planes + 1);
  for (let k = 0; k < planes; k++)
    before[k + 1] = before[k] + loads.cells * (loads.layer(k) ? 1 + costs.layer : 1) + costs.state * loads.states[k] + costs.mixed * loads.mixed[k];
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
