import { look, type Search, type Task, within } from './search.ts';

const slopeStep = 1e-3;
const smallest = 1e-6;

/**
 * The method of K. Levenberg and D. W. Marquardt (SIAM J. Appl. Math. 11 (1963) 431) on the misses of the goals, with slopes by differences, held within the
 * cube: for goals that ask for values, as many of them as parameters or more.
 */
export function* leastSquares({ dimensions: n, start }: Task): Search {
  let x = within(start);
  let told = yield* look(x);
  if (!Number.isFinite(told.cost)) return;
  let damping = 1e-2;
  for (;;) {
    const steps = x.map((v) => (v + slopeStep <= 1 ? slopeStep : -slopeStep));
    const beside = yield x.map((v, i) => x.map((w, k) => (k === i ? v + steps[i] : w)));
    // Slopes of each miss; of a point that has none they count nothing.
    const slopes = told.misses.map((m, j) => steps.map((s, i) => (Number.isFinite(beside[i].cost) ? (beside[i].misses[j] - m) / s : 0)));
    const square = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (__, k) => slopes.reduce((s, row) => s + row[i] * row[k], 0)));
    const right = Array.from({ length: n }, (_, i) => -slopes.reduce((s, row, j) => s + row[i] * told.misses[j], 0));
    let moved = 0;
    for (; damping < 1e8; damping *= 6) {
      const way = solve(square, right, damping);
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

/** Solves (A + damping diag A) v = b by elimination; A is symmetric and positive. */
function solve(a: readonly (readonly number[])[], b: readonly number[], damping: number): number[] {
  const n = b.length;
  const largest = Math.max(...a.map((row, i) => row[i]), 1e-300);
  const m = a.map((row, i) => [...row.map((v, k) => (i === k ? v + damping * Math.max(v, 1e-9 * largest) : v)), b[i]]);
  for (let c = 0; c < n; c++) {
    const pivot = m.slice(c).reduce((best, row, i) => (Math.abs(row[c]) > Math.abs(m[best][c]) ? c + i : best), c);
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let i = c + 1; i < n; i++) {
      const f = m[i][c] / m[c][c];
      for (let k = c; k <= n; k++) m[i][k] -= f * m[c][k];
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) out[i] = (m[i][n] - m[i].slice(i + 1, n).reduce((s, v, k) => s + v * out[i + 1 + k], 0)) / m[i][i];
  return out;
}
