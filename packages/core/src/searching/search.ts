/** What came of a point: its cost, the less the better (Infinity where it has none), and by how much each goal is missed, whose squares make the cost. */
export interface Told {
  cost: number;
  misses: readonly number[];
  /** Smooth figures of which the cost is made, where the task says how. */
  figures?: readonly number[];
}

/** What is searched: the unit cube of some dimensions, from a start within it. */
export interface Task {
  dimensions: number;
  start: readonly number[];
  seed: number;
  /** Points that are looked at at once where a method may choose how many. */
  together: number;
  /** The cost of figures: a model of them foretells more than one of the cost, which may have corners where they have none. */
  costOf?(figures: readonly number[]): number;
}

/**
 * A way of searching: asks for points of the unit cube, several at once, and is told what came of them; it ends where it sees no better one. With the same
 * task and the same answers it asks for the same points, so that a search which was cut short is gone on with by telling it again what is known.
 */
export type Search = Generator<number[][], void, readonly Told[]>;

/** A point held within the unit cube. */
export const within = (x: readonly number[]): number[] => x.map((v) => Math.max(0, Math.min(1, v)));

/** Sum of the products of two lists. */
export const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
};

/** Has a method ask for one point. */
export function* look(x: readonly number[]): Generator<number[][], Told, readonly Told[]> {
  const [told] = yield [[...x]];
  return told;
}

/** The best point so far of a search, and the way to it. */
export interface Found {
  x: number[];
  cost: number;
  /** Points that were asked for. */
  asked: number;
}

/** Runs a search on a function until it ends, has asked for so many points, or has come to a cost that is good enough. */
export function searchFunction(search: Search, of: (x: readonly number[]) => Told, most: number, enough = -Infinity): Found {
  const best: Found = { x: [], cost: Infinity, asked: 0 };
  let told: Told[] = [];
  for (;;) {
    const step = search.next(told);
    if (step.done) return best;
    told = step.value.map((x) => {
      const t = of(x);
      best.asked++;
      if (t.cost < best.cost) Object.assign(best, { x: [...x], cost: t.cost });
      return t;
    });
    if (best.asked >= most || best.cost <= enough) return best;
  }
}
