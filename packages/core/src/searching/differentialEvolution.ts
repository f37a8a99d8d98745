import { latinHypercube, randomOf } from './sequences.ts';
import { type Search, type Task, within } from './search.ts';

/** Share of a difference that is added, another for each generation (dither). */
const differences = [0.5, 1] as const;
const crossing = 0.9;
/** A population whose costs differ by less, of their size, has come together. */
const together = 1e-9;

/** Populations until a search ends by itself. */
const mostPopulations = 8;

/** Differential evolution, rand/1/bin: R. Storn and K. Price, J. Glob. Optim. 11 (1997) 341; begun anew elsewhere where a population has come together. */
export function* differentialEvolution({ dimensions: n, start, seed }: Task): Search {
  for (let round = 0; round < mostPopulations; round++) yield* population(n, round ? null : start, seed + round);
}

function* population(n: number, start: readonly number[] | null, seed: number): Search {
  const random = randomOf(seed);
  const size = Math.max(10, 6 * n);
  const pick = (): number => Math.floor(random() * size);
  let people = [...(start ? [within(start)] : []), ...latinHypercube(start ? size - 1 : size, n, seed)];
  let costs = (yield people).map((t) => t.cost);
  for (;;) {
    const difference = differences[0] + (differences[1] - differences[0]) * random();
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
