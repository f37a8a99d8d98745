import { latinHypercube, randomOf } from '../studies/index.ts';
import { type Search, type Task, within } from './search.ts';

const difference = 0.6;
const crossing = 0.9;
/** A population whose costs differ by less, of their size, has come together. */
const together = 1e-9;

/** Differential evolution, rand/1/bin: R. Storn and K. Price, J. Glob. Optim. 11 (1997) 341. */
export function* differentialEvolution({ dimensions: n, start, seed }: Task): Search {
  const random = randomOf(seed);
  const size = Math.max(10, 6 * n);
  const pick = (): number => Math.floor(random() * size);
  let people = [within(start), ...latinHypercube(size - 1, n, seed)];
  let costs = (yield people).map((t) => t.cost);
  for (;;) {
    const children = people.map((own, i) => {
      let [a, b, c] = [i, i, i];
      while (a === i) a = pick();
      while (b === i || b === a) b = pick();
      while (c === i || c === a || c === b) c = pick();
      const always = Math.floor(random() * n);
      return own.map((v, k) => {
        if (k !== always && random() >= crossing) return v;
        const made = people[a][k] + difference * (people[b][k] - people[c][k]);
        // What leaves the cube comes back half way to the side that it left by.
        return made < 0 ? people[a][k] / 2 : made > 1 ? (people[a][k] + 1) / 2 : made;
      });
    });
    const told = (yield children).map((t) => t.cost);
    people = people.map((p, i) => (told[i] <= costs[i] ? children[i] : p));
    costs = costs.map((c, i) => Math.min(c, told[i]));
    const [low, high] = [Math.min(...costs), Math.max(...costs)];
    if (high - low <= together * Math.max(Math.abs(low), 1e-12)) return;
  }
}
