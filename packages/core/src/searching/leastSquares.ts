import { leastSquares as closest } from '../numerics/leastSquares.ts';
import { look, type Search, type Task, within } from './search.ts';

const slopeStep = 1e-3;
const smallest = 1e-6;

/**
 * The method of K. Levenberg and D. W. Marquardt (SIAM J. Appl. Math. 11 (1963) 431) on the misses of the goals, with slopes by differences, held within the
 * cube: for goals that ask for values, as many of them as parameters or more.
 */
export function* leastSquares({ start }: Task): Search {
  let x = within(start);
  let told = yield* look(x);
  if (!Number.isFinite(told.cost)) return;
  let damping = 1e-2;
  for (;;) {
    const steps = x.map((v) => (v + slopeStep <= 1 ? slopeStep : -slopeStep));
    const beside = yield x.map((v, i) => x.map((w, k) => (k === i ? v + steps[i] : w)));
    // Slopes of each miss; of a point that has none they count nothing.
    const slopes = told.misses.map((m, j) => steps.map((s, i) => (Number.isFinite(beside[i].cost) ? (beside[i].misses[j] - m) / s : 0)));
    // Slopes by parameter, with the damping as one more row for each, in the size of its own slopes.
    const sizes = steps.map((_, i) => slopes.reduce((sum, row) => sum + row[i] ** 2, 0));
    const least = 1e-9 * Math.max(...sizes, 1e-300);
    const columns = (): Float64Array[] =>
      steps.map((_, i) =>
        Float64Array.from([...slopes.map((row) => row[i]), ...sizes.map((size, k) => (k === i ? Math.sqrt(damping * Math.max(size, least)) : 0))]),
      );
    const right = Float64Array.from([...told.misses.map((m) => -m), ...steps.map(() => 0)]);
    let moved = 0;
    for (; damping < 1e8; damping *= 6) {
      const way = closest(columns(), right);
      if (!way) continue;
      const next = within(x.map((v, i) => v + way[i]));
      const found = yield* look(next);
      if (!(found.cost < told.cost)) continue;
      moved = Math.hypot(...next.map((v, i) => v - x[i]));
      [x, told] = [next, found];
      damping = Math.max(1e-9, damping / 10);
      break;
    }
    if (moved < smallest) return;
  }
}
