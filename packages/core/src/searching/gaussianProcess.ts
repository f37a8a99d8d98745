import { nelderMead } from './nelderMead.ts';
import { searchFunction } from './search.ts';

/** Value and spread (standard deviation) that are foretold at a place. */
export interface Foretold {
  value: number;
  spread: number;
}

/** Share of the variance that is noise: what a mesh that changes from point to point brings, and what keeps the matrix well. */
const noises = [1e-8, 1e-1] as const;
/** Least and largest length over which values hold together, in the cube. */
const lengths = [0.03, 6] as const;
const mostTries = 160;

/** Correlation of Matern with smoothness 5/2 at a scaled distance. */
const matern = (r: number): number => {
  const s = Math.sqrt(5) * r;
  return (1 + s + (s * s) / 3) * Math.exp(-s);
};

/**
 * A Gaussian process through points of the unit cube, each dimension with a length of its own: correlation of Matern 5/2, lengths and noise of the largest
 * likelihood, mean and variance in closed form (C. E. Rasmussen and C. K. I. Williams, Gaussian Processes for Machine Learning, 2006, 2.2, 4.2, 5.4).
 */
export class GaussianProcess {
  private readonly level: number;
  private readonly variance: number;
  private readonly weights: Float64Array;
  private readonly factor: Float64Array;
  private readonly lengths: readonly number[];
  private readonly noise: number;

  /** `known` are parameters of an earlier process of the same points but few, which are then not sought anew. */
  constructor(
    private readonly x: readonly (readonly number[])[],
    y: readonly number[],
    known?: GaussianProcess,
  ) {
    const d = x[0].length;
    const fitted = known ? { lengths: known.lengths, noise: known.noise } : likeliest(x, y);
    [this.lengths, this.noise] = [fitted.lengths.slice(0, d), fitted.noise];
    const found = solved(x, y, this.lengths, this.noise);
    [this.level, this.variance, this.weights, this.factor] = [found.mean, found.variance, found.weights, found.factor];
  }

  /** The value alone that is foretold at a place. */
  mean(place: readonly number[]): number {
    let sum = this.level;
    for (let i = 0; i < this.x.length; i++) sum += this.weights[i] * matern(distance(this.x[i], place, this.lengths));
    return sum;
  }

  /** What each point's value is above what the others foretell (Rasmussen and Williams, eq. 5.12). */
  leftOut(): number[] {
    const n = this.x.length;
    return Array.from({ length: n }, (_, i) => {
      // The diagonal of the inverse is the squared length of a column of the inverse of the factor.
      const column = new Float64Array(n);
      column[i] = 1;
      forward(this.factor, column, n);
      return this.weights[i] / column.reduce((s, v) => s + v * v, 0);
    });
  }

  /** What is foretold at a place, and how surely. */
  at(place: readonly number[]): Foretold {
    const n = this.x.length;
    const k = Float64Array.from(this.x, (p) => matern(distance(p, place, this.lengths)));
    const value = this.level + k.reduce((s, v, i) => s + v * this.weights[i], 0);
    forward(this.factor, k, n);
    return { value, spread: Math.sqrt(Math.max(0, this.variance * (1 - k.reduce((s, v) => s + v * v, 0)))) };
  }
}

function distance(a: readonly number[], b: readonly number[], scale: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += ((a[i] - b[i]) / scale[i]) ** 2;
  return Math.sqrt(sum);
}

/** Solves L v = v in place. */
function forward(l: Float64Array, v: Float64Array, n: number): void {
  for (let i = 0; i < n; i++) {
    let s = v[i];
    for (let k = 0; k < i; k++) s -= l[i * n + k] * v[k];
    v[i] = s / l[i * n + i];
  }
}

function backward(l: Float64Array, v: Float64Array, n: number): void {
  for (let i = n - 1; i >= 0; i--) {
    let s = v[i];
    for (let k = i + 1; k < n; k++) s -= l[k * n + i] * v[k];
    v[i] = s / l[i * n + i];
  }
}

/** Factor, mean, variance and weights for some lengths, and minus twice the log of their likelihood. */
function solved(x: readonly (readonly number[])[], y: readonly number[], scale: readonly number[], noise: number) {
  const n = x.length;
  const factor = new Float64Array(n * n);
  let log = 0;
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let s = i === j ? 1 + noise : matern(distance(x[i], x[j], scale));
      for (let k = 0; k < j; k++) s -= factor[i * n + k] * factor[j * n + k];
      factor[i * n + j] = i === j ? Math.sqrt(Math.max(s, 1e-14)) : s / factor[j * n + j];
      if (i === j) log += 2 * Math.log(factor[i * n + i]);
    }
  const ones = new Float64Array(n).fill(1);
  const values = Float64Array.from(y);
  forward(factor, ones, n);
  forward(factor, values, n);
  const mean = values.reduce((s, v, i) => s + v * ones[i], 0) / ones.reduce((s, v) => s + v * v, 0);
  const weights = values.map((v, i) => v - mean * ones[i]);
  const variance = Math.max(weights.reduce((s, v) => s + v * v, 0) / n, 1e-300);
  backward(factor, weights, n);
  return { factor, mean, variance, weights, likelihood: n * Math.log(variance) + log };
}

/** Lengths and noise of the largest likelihood, sought in their logarithms. */
function likeliest(x: readonly (readonly number[])[], y: readonly number[]): { lengths: readonly number[]; noise: number } {
  const d = x[0].length;
  const scaled = (share: number, [low, high]: readonly [number, number]): number => low * (high / low) ** share;
  const of = (p: readonly number[]): { lengths: number[]; noise: number } => ({
    lengths: p.slice(0, d).map((v) => scaled(v, lengths)),
    noise: scaled(p[d], noises),
  });
  const search = (start: number): ReturnType<typeof searchFunction> =>
    searchFunction(
      nelderMead({ dimensions: d + 1, start: [...Array.from({ length: d }, () => start), 0.2], seed: 1, together: 1 }),
      (p) => {
        const { lengths: own, noise } = of(p);
        return { cost: solved(x, y, own, noise).likelihood, misses: [] };
      },
      mostTries,
    );
  const [near, far] = [search(0.35), search(0.7)];
  return of(near.cost < far.cost ? near.x : far.x);
}
