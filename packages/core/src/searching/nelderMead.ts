import { look, type Search, type Task, within } from './search.ts';

/** Edge of the first simplex, and of that of a new beginning. */
const edge = 0.12;
/** A simplex of this size, or of so little difference in cost, has come to its end. */
const smallest = 1e-5;

/**
 * The simplex method of J. A. Nelder and R. Mead, Comput. J. 7 (1965) 308, with the coefficients that suit many dimensions (F. Gao and L. Han, Comput.
 * Optim. Appl. 51 (2012) 259), held within the cube. A simplex that has shrunk begins anew around its best point, until that brings nothing.
 */
export function* nelderMead({ dimensions: n, start }: Task): Search {
  const [grow, pull, shrink] = [1 + 2 / n, 0.75 - 1 / (2 * n), 1 - 1 / n];
  let [best, lowest] = [within(start), Infinity];
  for (let size = edge; size > smallest; size /= 3) {
    const corners = [best, ...best.map((v, i) => best.map((w, k) => (k === i ? (v + size <= 1 ? v + size : v - size) : w)))];
    const told = yield corners;
    let simplex = corners.map((x, i) => ({ x, cost: told[i].cost }));
    const before = lowest;
    for (;;) {
      simplex.sort((a, b) => a.cost - b.cost);
      const [first, worst] = [simplex[0], simplex[n]];
      [best, lowest] = [first.x, first.cost];
      if (Math.max(...simplex.map((c) => Math.max(...c.x.map((v, i) => Math.abs(v - first.x[i]))))) < smallest) break;
      const middle = first.x.map((_, i) => simplex.slice(0, n).reduce((s, c) => s + c.x[i], 0) / n);
      const along = (t: number): number[] => within(middle.map((m, i) => m + t * (m - worst.x[i])));
      const tried = { x: along(1), cost: 0 };
      tried.cost = (yield* look(tried.x)).cost;
      if (tried.cost < first.cost) {
        const far = { x: along(n > 1 ? grow : 2), cost: 0 };
        far.cost = (yield* look(far.x)).cost;
        simplex[n] = far.cost < tried.cost ? far : tried;
        continue;
      }
      if (tried.cost < simplex[n - 1].cost) {
        simplex[n] = tried;
        continue;
      }
      const contract = n > 1 ? pull : 0.5;
      const near = { x: along(tried.cost < worst.cost ? contract : -contract), cost: 0 };
      near.cost = (yield* look(near.x)).cost;
      if (near.cost < Math.min(tried.cost, worst.cost)) {
        simplex[n] = near;
        continue;
      }
      const pulled = simplex.slice(1).map((c) => within(c.x.map((v, i) => first.x[i] + (n > 1 ? shrink : 0.5) * (v - first.x[i]))));
      const again = yield pulled;
      simplex = [first, ...pulled.map((x, i) => ({ x, cost: again[i].cost }))];
    }
    if (!(lowest < before)) return;
  }
}
