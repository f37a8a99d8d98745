import { describe, expect, test } from '@jest/globals';
import { type Method, methods, type Search, searchFunction, type Task, type Told } from './index.ts';
import { GaussianProcess } from './gaussianProcess.ts';
import { influenceOf, sobolIndices } from './sensitivity.ts';
import { sobol } from './sequences.ts';
import { normalBelow } from './normal.ts';

interface Bench {
  name: string;
  domain: [number, number][];
  least: number;
  of(x: number[]): number;
}
const times = (n: number, low: number, high: number): [number, number][] => Array.from({ length: n }, () => [low, high]);
/** H. H. Rosenbrock, Comput. J. 3 (1960) 175. */
const rosenbrock = (n: number): Bench => ({ name: `Rosenbrock ${n}`, domain: times(n, -2, 2), least: 0, of: (x) => x.slice(1).reduce((s, v, i) => s + 100 * (v - x[i] ** 2) ** 2 + (1 - x[i]) ** 2, 0) }); // prettier-ignore
/** Branin and Hartmann as in L. C. W. Dixon and G. P. Szego, Towards Global Optimisation 2, 1978. */
const branin: Bench = {
  name: 'Branin',
  domain: [[-5, 10], [0, 15]], // prettier-ignore
  least: 0.397887,
  of: ([x, y]) => (y - (5.1 / (4 * Math.PI ** 2)) * x ** 2 + (5 / Math.PI) * x - 6) ** 2 + 10 * (1 - 1 / (8 * Math.PI)) * Math.cos(x) + 10,
};
const hartmannA = [[10, 3, 17, 3.5, 1.7, 8], [0.05, 10, 17, 0.1, 8, 14], [3, 3.5, 1.7, 10, 17, 8], [17, 8, 0.05, 10, 0.1, 14]]; // prettier-ignore
const hartmannP = [[1312, 1696, 5569, 124, 8283, 5886], [2329, 4135, 8307, 3736, 1004, 9991], [2348, 1451, 3522, 2883, 3047, 6650], [4047, 8828, 8732, 5743, 1091, 381]]; // prettier-ignore
const hartmann: Bench = {
  name: 'Hartmann 6',
  domain: times(6, 0, 1),
  least: -3.32237,
  of: (x) => -[1, 1.2, 3, 3.2].reduce((s, c, i) => s + c * Math.exp(-x.reduce((t, v, k) => t + hartmannA[i][k] * (v - hartmannP[i][k] / 1e4) ** 2, 0)), 0), // prettier-ignore
};
const rastrigin: Bench = { name: 'Rastrigin 10', domain: times(10, -5.12, 5.12), least: 0, of: (x) => x.reduce((s, v) => s + v * v - 10 * Math.cos(2 * Math.PI * v) + 10, 0) }; // prettier-ignore

const told = (b: Bench) => (p: readonly number[]): Told => ({ cost: b.of(p.map((v, i) => b.domain[i][0] + v * (b.domain[i][1] - b.domain[i][0]))), misses: [] }); // prettier-ignore
const task = (b: Bench, more: Partial<Task> = {}): Task => ({
  dimensions: b.domain.length,
  start: b.domain.map(() => 0.15),
  seed: 7,
  together: 1,
  ...more,
});

describe('minima of standard functions', () => {
  test.each([
    // Evaluations allowed: for Branin by a surrogate forty, for the others of the size that the methods' papers report for such functions.
    { method: 'nelder-mead', bench: rosenbrock(2), within: 1e-6, most: 250 },
    { method: 'quasi-newton', bench: rosenbrock(2), within: 1e-4, most: 300 },
    { method: 'quasi-newton', bench: rosenbrock(6), within: 1e-2, most: 1200 },
    { method: 'surrogate', bench: branin, within: 0.01 * branin.least, most: 40 },
    { method: 'surrogate', bench: hartmann, within: 0.02 * 3.32237, most: 110 },
    { method: 'cma-es', bench: rosenbrock(6), within: 1e-6, most: 4000 },
    { method: 'cma-es', bench: rastrigin, within: 1e-4, most: 60_000 },
    { method: 'evolution', bench: hartmann, within: 1e-3 * 3.32, most: 20_000 },
    { method: 'evolution', bench: branin, within: 1e-4, most: 1200 },
  ] as { method: Method; bench: Bench; within: number; most: number }[])('$bench.name by $method', ({ method, bench, within, most }) => {
    const found = searchFunction(methods[method].begin(task(bench)), told(bench), most, bench.least + within);
    process.stdout.write(`${bench.name} by ${method}: ${found.cost - bench.least} above its minimum after ${found.asked} points of ${most}\n`);
    expect(found.cost - bench.least).toBeLessThanOrEqual(within);
  });

  test('least squares find what goals ask for, in few points', () => {
    // A resonance curve a / (1 + (f - b)^2 / c^2) through what a = 0.3, b = 0.62, c = 0.2 give at nine places.
    const curve = ([a, b, c]: readonly number[]): number[] => Array.from({ length: 9 }, (_, i) => (10 * a) / (1 + ((i / 8 - b) / (0.05 + c)) ** 2));
    const wanted = curve([0.3, 0.62, 0.2]);
    const of = (p: readonly number[]): Told => {
      const misses = curve(p).map((v, i) => v - wanted[i]);
      return { cost: misses.reduce((s, m) => s + m * m, 0), misses };
    };
    const found = searchFunction(methods['least-squares'].begin({ dimensions: 3, start: [0.5, 0.5, 0.5], seed: 1, together: 1 }), of, 80, 1e-8);
    expect(found.cost).toBeLessThanOrEqual(1e-8);
    [0.3, 0.62, 0.2].forEach((v, i) => expect(Math.abs(found.x[i] - v)).toBeLessThan(1e-3));
  });
});

describe('every method', () => {
  const names = Object.keys(methods) as Method[];
  /** Points that it asks for until some are known. */
  const asked = (search: Search, of: (p: readonly number[]) => Told, most: number): number[][] => {
    const all: number[][] = [];
    searchFunction(search, (p) => (all.push([...p]), of(p)), most);
    return all;
  };

  test.each(names)('%s asks for the same points when it is told the same, and stays in the cube where the best is on its side', (method) => {
    // The least value lies beyond a corner.
    const of = (p: readonly number[]): Told => {
      const misses = p.map((v, i) => v - (i ? -0.4 : 1.3));
      return { cost: misses.reduce((s, m) => s + m * m, 0), misses };
    };
    const given = { dimensions: 3, start: [0.5, 0.5, 0.5], seed: 3, together: 2 };
    const most = method === 'evolution' ? 400 : method === 'surrogate' ? 40 : 90;
    const first = asked(methods[method].begin(given), of, most);
    expect(asked(methods[method].begin(given), of, most)).toEqual(first);
    expect(first.every((p) => p.every((v) => v >= 0 && v <= 1))).toBe(true);
    const best = Math.min(...first.map((p) => of(p).cost));
    expect(best).toBeLessThan(0.3 ** 2 + 2 * 0.4 ** 2 + 0.05);
  });

  test.each(names)('%s goes on where points have no result', (method) => {
    const of = (p: readonly number[]): Told => (p[0] > 0.6 ? { cost: Infinity, misses: [NaN] } : { cost: (p[0] - 0.55) ** 2 + (p[1] - 0.3) ** 2, misses: [p[0] - 0.55, p[1] - 0.3] }); // prettier-ignore
    const found = searchFunction(methods[method].begin({ dimensions: 2, start: [0.1, 0.9], seed: 5, together: 1 }), of, 200, 1e-4);
    expect(found.cost).toBeLessThan(2e-3);
  });
});

test('a Gaussian process goes through its points, and is as sure as it should be between them', () => {
  const of = ([a, b]: readonly number[]): number => Math.sin(5 * a) + 0.5 * b * b;
  const x = Array.from({ length: 25 }, (_, i) => [(i % 5) / 4, Math.floor(i / 5) / 4]);
  const process = new GaussianProcess(x, x.map(of)); // prettier-ignore
  for (const p of x) expect(Math.abs(process.at(p).value - of(p))).toBeLessThan(2e-3);
  let outside = 0;
  for (let i = 0; i < 200; i++) {
    const p = [(i * 0.618) % 1, (i * 0.414) % 1];
    const { value, spread } = process.at(p);
    expect(Math.abs(value - of(p))).toBeLessThan(0.05);
    if (Math.abs(value - of(p)) > 3 * spread + 2e-3) outside++;
  }
  expect(outside).toBeLessThan(10);
  expect(normalBelow(1.96)).toBeCloseTo(0.9750021, 6);
});

describe('which parameter matters', () => {
  // T. Ishigami and T. Homma, ISUMA 1990: sin a + 7 sin^2 b + 0.1 c^4 sin a on -pi to pi, whose indices are known.
  const ishigami = (p: readonly number[]): number => {
    const [a, b, c] = p.map((v) => Math.PI * (2 * v - 1));
    return Math.sin(a) + 7 * Math.sin(b) ** 2 + 0.1 * c ** 4 * Math.sin(a);
  };
  const even = (d: number) => Array.from({ length: d }, () => ({ kind: 'even', from: 0, to: 1 }) as const);
  const known = { first: [0.3139, 0.4424, 0], total: [0.5576, 0.4424, 0.2437] };

  test('Sobol indices of the Ishigami function within 3 %, of it and of a process through 200 points of it', () => {
    const x = sobol(200, 3);
    const process = influenceOf(x, x.map(ishigami), even(3))!; // prettier-ignore
    for (const [name, found] of [
      ['itself', sobolIndices(ishigami, 3)],
      ['its process', process.each],
    ] as const) {
      // prettier-ignore
      const off = (['first', 'total'] as const).flatMap((k) => found.map((s, i) => Math.abs(s[k] - known[k][i])));
      globalThis.process.stdout.write(`Ishigami by ${name}: indices off by ${Math.max(...off).toFixed(4)} at most, of 0.03\n`);
      expect(Math.max(...off)).toBeLessThan(0.03);
    }
    // What it says it misses is what it misses elsewhere.
    const own = new GaussianProcess(x, x.map(ishigami)); // prettier-ignore
    const elsewhere = sobol(900, 3).slice(400);
    const missed = Math.sqrt(elsewhere.reduce((s, p) => s + (own.mean(p) - ishigami(p)) ** 2, 0) / elsewhere.length);
    globalThis.process.stdout.write(
      `left out ${process.error.toFixed(3)}, missed elsewhere ${missed.toFixed(3)}, of a spread of ${process.spread.toFixed(3)}\n`,
    );
    expect(Math.abs(Math.log2(process.error / missed))).toBeLessThan(1);
    expect(process.error / process.spread).toBeLessThan(0.4);
  });

  test('slopes and what is left out are those of a plane; of too few points nothing is told', () => {
    const x = sobol(24, 2);
    const { each, error } = influenceOf(x, x.map(([a, b]) => 3 * a - b), even(2))!; // prettier-ignore
    each.forEach(({ slope, first, total }, i) => {
      expect(Math.abs(slope - [3, -1][i])).toBeLessThan(0.02);
      for (const share of [first, total]) expect(Math.abs(share - [0.9, 0.1][i])).toBeLessThan(0.01);
    });
    expect(error).toBeLessThan(0.02);
    expect(influenceOf(x.slice(0, 6), x.slice(0, 6).map(() => 1), even(2))).toBeNull(); // prettier-ignore
    expect(influenceOf(x, x.map(() => 5), even(2))!.each.map((s) => s.total)).toEqual([0, 0]); // prettier-ignore
  });
});
