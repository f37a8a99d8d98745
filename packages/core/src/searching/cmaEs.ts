import { symmetricEigen } from '../numerics/symmetricEigen.ts';
import { randomOf } from './sequences.ts';
import { type Search, type Task, within } from './search.ts';

/** Spread of the first population, of the cube. */
const firstSpread = 0.3;
/** A population that has come so close together, in the cube or in cost, has ended. */
const smallest = 1e-8;
/** Populations, each twice as large as the one before, until a search ends by itself. */
const mostPopulations = 9;

/** Numbers of a normal distribution: G. E. P. Box and M. E. Muller, Ann. Math. Stat. 29 (1958) 610. */
export function normalOf(seed: number): () => number {
  const random = randomOf(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/**
 * Evolution of a normal distribution by the covariance of what did well: N. Hansen, The CMA Evolution Strategy: A Tutorial, arXiv:1604.00772, in the cube by
 * putting what leaves it on its side; begun anew with twice the population where one has ended (A. Auger and N. Hansen, CEC 2005, 1769).
 */
export function* cmaEs({ dimensions: n, start, seed, together }: Task): Search {
  const normal = normalOf(seed);
  const random = randomOf(seed + 1);
  let size = Math.max(4 + Math.floor(3 * Math.log(n)), together);
  let from = within(start);
  for (let round = 0; round < mostPopulations; round++, size *= 2) {
    yield* population(n, from, size, normal);
    from = Array.from({ length: n }, random);
  }
}

function* population(n: number, start: readonly number[], size: number, normal: () => number): Search {
  // Section "parameters" of the tutorial.
  const parents = Math.floor(size / 2);
  const raw = Array.from({ length: parents }, (_, i) => Math.log((size + 1) / 2) - Math.log(i + 1));
  const sum = raw.reduce((s, w) => s + w, 0);
  const weights = raw.map((w) => w / sum);
  const mass = 1 / weights.reduce((s, w) => s + w * w, 0);
  const forSpread = (mass + 2) / (n + mass + 5);
  const damping = 1 + 2 * Math.max(0, Math.sqrt((mass - 1) / (n + 1)) - 1) + forSpread;
  const forPath = (4 + mass / n) / (n + 4 + (2 * mass) / n);
  const forOne = 2 / ((n + 1.3) ** 2 + mass);
  const forMany = Math.min(1 - forOne, (2 * (mass - 2 + 1 / mass)) / ((n + 2) ** 2 + mass));
  const usual = Math.sqrt(n) * (1 - 1 / (4 * n) + 1 / (21 * n * n));

  let mean = [...start];
  let spread = firstSpread;
  const cov = new Float64Array(n * n);
  for (let i = 0; i < n; i++) cov[i * n + i] = 1;
  let [path, spreadPath] = [new Float64Array(n), new Float64Array(n)];
  const steady: number[] = [];
  for (let turn = 1; ; turn++) {
    const { values, vectors } = symmetricEigen(cov, n);
    const scales = values.map((v) => Math.sqrt(Math.max(v, 1e-30)));
    if (Math.max(...scales) > 1e7 * Math.min(...scales)) return;
    const children = Array.from({ length: size }, () => {
      const z = Float64Array.from({ length: n }, normal);
      return within(mean.map((m, i) => m + spread * z.reduce((s, v, k) => s + vectors[i * n + k] * scales[k] * v, 0)));
    });
    const told = yield children;
    const order = told.map((_, i) => i).sort((a, b) => told[a].cost - told[b].cost);
    const before = mean;
    mean = mean.map((_, i) => weights.reduce((s, w, k) => s + w * children[order[k]][i], 0));
    const step = mean.map((m, i) => (m - before[i]) / spread);
    // C^(-1/2) of the step.
    const straight = Float64Array.from({ length: n }, (_, k) => {
      let v = 0;
      for (let i = 0; i < n; i++) v += vectors[i * n + k] * step[i];
      return v / scales[k];
    });
    spreadPath = spreadPath.map((p, i) => {
      let v = 0;
      for (let k = 0; k < n; k++) v += vectors[i * n + k] * straight[k];
      return (1 - forSpread) * p + Math.sqrt(forSpread * (2 - forSpread) * mass) * v;
    });
    const long = Math.hypot(...spreadPath);
    const calm = long / Math.sqrt(1 - (1 - forSpread) ** (2 * turn)) / usual < 1.4 + 2 / (n + 1);
    path = path.map((p, i) => (1 - forPath) * p + (calm ? Math.sqrt(forPath * (2 - forPath) * mass) * step[i] : 0));
    const ways = order.slice(0, parents).map((o) => children[o].map((v, i) => (v - before[i]) / spread));
    const rest = 1 - forOne - forMany + (calm ? 0 : forOne * forPath * (2 - forPath));
    for (let i = 0; i < n; i++)
      for (let k = 0; k <= i; k++) {
        const many = ways.reduce((s, w, m) => s + weights[m] * w[i] * w[k], 0);
        cov[i * n + k] = cov[k * n + i] = rest * cov[i * n + k] + forOne * path[i] * path[k] + forMany * many;
      }
    spread = Math.min(1, spread * Math.exp((forSpread / damping) * (long / usual - 1)));
    const [low, high] = [told[order[0]].cost, told[order[size - 1]].cost];
    steady.push(low);
    const last = steady.slice(-(10 + Math.ceil((30 * n) / size)));
    const still = steady.length > last.length && Math.max(...last) - Math.min(...last) <= smallest * Math.max(Math.abs(low), smallest);
    if (spread * Math.max(...scales) < smallest || still || high - low <= 1e-14 * Math.abs(low)) return;
  }
}
