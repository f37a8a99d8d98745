import { GaussianProcess } from './gaussianProcess.ts';
import { mostDimensions, sobol } from './sequences.ts';
import { momentsOf, quantile, type Spread } from './spreads.ts';

/** Points by which indices are reckoned, of each of two samples. */
const samples = 4096;

/** Shares of the variance of a figure that one parameter brings: by itself, and with all that it does together with others. */
export interface Shares {
  first: number;
  total: number;
}

/**
 * Sobol indices of a function over the unit cube, all parameters evenly spread: the first by A. Saltelli et al., the total by M. J. W. Jansen (Comput. Phys.
 * Commun. 181 (2010) 259, table 2 b and f), on two halves of a Sobol sequence.
 * @throws RangeError for more parameters than half the dimensions of the sequence.
 */
export function sobolIndices(of: (x: readonly number[]) => number, dimensions: number): Shares[] {
  if (2 * dimensions > mostDimensions) throw new RangeError(`Indices of at most ${mostDimensions / 2} parameters.`);
  const rows = sobol(samples, 2 * dimensions);
  const [a, b] = [rows.map((r) => r.slice(0, dimensions)), rows.map((r) => r.slice(dimensions))];
  const [fa, fb] = [a.map(of), b.map(of)];
  const all = [...fa, ...fb];
  const mean = all.reduce((s, v) => s + v, 0) / all.length;
  const variance = all.reduce((s, v) => s + (v - mean) ** 2, 0) / all.length;
  const mixed = [...(a[0] ?? [])];
  return Array.from({ length: dimensions }, (_, i) => {
    let [first, total] = [0, 0];
    for (let n = 0; n < samples; n++) {
      for (let k = 0; k < dimensions; k++) mixed[k] = k === i ? b[n][k] : a[n][k];
      const f = of(mixed);
      first += fb[n] * (f - fa[n]);
      total += (fa[n] - f) ** 2;
    }
    // A figure that does not move has no shares, whatever is left of it by rounding.
    return variance > 1e-18 * mean * mean ? { first: first / samples / variance, total: total / samples / (2 * variance) } : { first: 0, total: 0 };
  });
}

/** How parameters make a figure what it is, by a Gaussian process through points of the unit cube. */
export interface Influence {
  /** Root mean square of what the process misses at each point when it knows only the others, and the standard deviation of the figure. */
  error: number;
  spread: number;
  /** Of each parameter its shares, the slope in the middle of all, for the whole edge, and what one standard deviation of it does there. */
  each: (Shares & { slope: number; deviation: number })[];
}

/** Fewest points by which a figure of so many parameters is modelled. */
export const fewestPoints = (parameters: number): number => 3 * parameters + 1;
/** Step by which slopes are taken. */
const step = 0.02;

/** How parameters that are spread, each by itself, make a figure what it is; null where the points are too few. */
export function influenceOf(x: readonly (readonly number[])[], y: readonly number[], spreads: readonly Spread[]): Influence | null {
  const d = x[0]?.length ?? 0;
  if (!d || x.length < fewestPoints(d)) return null;
  const process = new GaussianProcess(x, y);
  const misses = process.leftOut();
  const mean = y.reduce((s, v) => s + v, 0) / y.length;
  const root = (list: readonly number[]): number => Math.sqrt(list.reduce((s, v) => s + v * v, 0) / list.length);
  const moments = spreads.map(momentsOf);
  const middle = moments.map((m) => m.mean);
  const beside = (i: number, by: number): number => process.mean(middle.map((v, k) => (k === i ? v + by : v)));
  return {
    error: root(misses),
    spread: root(y.map((v) => v - mean)),
    each: sobolIndices((p) => process.mean(p.map((share, i) => quantile(spreads[i], share))), d).map((s, i) => {
      const slope = (beside(i, step) - beside(i, -step)) / (2 * step);
      return { ...s, slope, deviation: slope * moments[i].deviation };
    }),
  };
}
