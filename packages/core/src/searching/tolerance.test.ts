import { expect, test } from '@jest/globals';
import { normalAt, normalBelow } from './normal.ts';
import { latinHypercube, sobol } from './sequences.ts';
import { canLink, drawing, type Spread } from './spreads.ts';
import { toleranceOf, type ToleranceTask } from './tolerance.ts';

/** A figure solved at points of the cube. */
const sampled = (of: (x: readonly number[]) => number, d: number, n = 40, checks = 10) => {
  const [x, kept] = [sobol(n, d), latinHypercube(checks, d, 3)];
  return { x, y: x.map(of), checks: { x: kept, y: kept.map(of) } };
};
const normal = (deviation: number, middle = 0.5): Spread => ({ kind: 'normal', middle, deviation });
const task = (t: Partial<ToleranceTask> & Pick<ToleranceTask, 'spreads' | 'figures'>): ToleranceTask => ({
  links: [],
  limits: [],
  shifts: t.spreads.map(() => 0),
  ...t,
});

test('values of a normal distribution from shares, against tables (Abramowitz and Stegun, table 26.5) and its own inverse', () => {
  expect(normalAt(0.975)).toBeCloseTo(1.959963984540054, 13);
  expect(normalAt(0.001)).toBeCloseTo(-3.090232306167814, 13);
  expect(normalAt(1e-12)).toBeCloseTo(-7.034483825301, 8);
  expect(normalAt(0.5)).toBe(0);
  for (const x of [-2.5, -1, -0.2, 0.7, 1.9, 4]) expect(normalAt(normalBelow(x))).toBeCloseTo(x, 2);
});

test('spreads: a cut normal one keeps within its cut, linked parameters have the correlation that was asked for, and nonsense cannot be linked', () => {
  const draw = drawing([{ ...normal(0.1), cut: 2 } as Spread, normal(0.2), { kind: 'list', values: [0, 1] }], [{ a: 0, b: 1, by: 0.8 }]);
  const rows = sobol(4096, 3).map(draw);
  const [a, b] = [0, 1].map((k) => rows.map((r) => r[k]));
  expect(Math.min(...a)).toBeGreaterThanOrEqual(0.3);
  expect(Math.max(...a)).toBeLessThanOrEqual(0.7);
  const mean = (v: number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
  const cov = (p: number[], q: number[]): number => mean(p.map((v, i) => (v - mean(p)) * (q[i] - mean(q))));
  // Cutting takes a little of it.
  expect(cov(a, b) / Math.sqrt(cov(a, a) * cov(b, b))).toBeCloseTo(0.8, 1);
  expect(Math.sqrt(cov(b, b))).toBeCloseTo(0.2, 2);
  expect(mean(rows.map((r) => r[2]))).toBeCloseTo(0.5, 2);
  expect(canLink([{ a: 0, b: 1, by: 0.9 }, { a: 1, b: 2, by: 0.9 }, { a: 0, b: 2, by: -0.9 }], 3)).toBe(false); // prettier-ignore
});

test('the yield of a linear problem is that of its closed form within a standard error, with links too', () => {
  // y = 2 a + b: its deviation is the root of 4 sa^2 + sb^2 + 4 r sa sb.
  const of = ([a, b]: readonly number[]): number => 2 * a + b;
  for (const by of [0, 0.6]) {
    const deviation = Math.sqrt(4 * 0.1 ** 2 + 0.15 ** 2 + 4 * by * 0.1 * 0.15);
    const found = toleranceOf(
      task({
        spreads: [normal(0.1), normal(0.15)],
        links: by ? [{ a: 0, b: 1, by }] : [],
        figures: [sampled(of, 2)],
        limits: [{ figure: 0, low: -Infinity, high: 1.8 }],
      }),
    );
    const exact = normalBelow((1.8 - 1.5) / deviation);
    process.stdout.write(`yield ${found.kept!.share}, closed form ${exact.toFixed(5)}, standard error ${found.standardError.toFixed(5)}\n`);
    expect(Math.abs(found.kept!.share - exact)).toBeLessThan(found.standardError);
    const [figure] = found.figures;
    expect(figure!.mean).toBeCloseTo(1.5, 3);
    expect(Math.abs(figure!.deviation / deviation - 1)).toBeLessThan(0.01);
    expect(figure!.bars.shares.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
    expect(figure!.checked!.points).toBe(10);
  }
});

test('the worst case of a bent figure lies at its corner, and its middle is moved to where most keep the goals', () => {
  const of = ([a, b]: readonly number[]): number => (a - 0.7) ** 2 + 0.3 * (b - 0.4) ** 2;
  const even: Spread = { kind: 'even', from: 0.35, to: 0.65 };
  const found = toleranceOf(
    task({
      spreads: [even, even],
      figures: [sampled(of, 2, 60)],
      limits: [{ figure: 0, low: -Infinity, high: 0.03 }],
      shifts: [0.3, 0],
    }),
  );
  const [least, most] = found.figures[0]!.worst;
  expect(most.value).toBeCloseTo(of([0.35, 0.65]), 2);
  expect(least.value).toBeCloseTo(of([0.65, 0.4]), 2);
  expect(most.place[0]).toBeCloseTo(0.35, 2);
  // (a - 0.7)^2 stays below 0.03 for the most a's about 0.7, a step of 0.2.
  expect(found.centre!.steps[0]).toBeCloseTo(0.2, 1);
  expect(found.centre!.steps[1]).toBe(0);
  expect(found.centre!.kept.share).toBeGreaterThan(found.kept!.share + 0.2);
});

test('a dip in decibels is modelled by its power, which is smooth: the sharpest place of a match within half a decibel', () => {
  // The reflection of a resonance whose place moves with a, matched best at b = 0.4.
  const of = ([a, b]: readonly number[]): number => 10 * Math.log10((a - 0.55) ** 2 + 0.1 * (b - 0.4) ** 2 + 1e-4);
  const spreads = [normal(0.15), normal(0.15)];
  const figures = [false, true].map((decibels) => ({ ...sampled(of, 2, 40, 20), decibels }));
  const [asIs, byPower] = toleranceOf(task({ spreads, figures })).figures.map((f) => f!);
  process.stdout.write(`dip: errs by ${asIs.checked!.error.toFixed(2)} dB as it is, ${byPower.checked!.error.toFixed(2)} dB by its power\n`);
  expect(asIs.checked!.error).toBeGreaterThan(1);
  expect(byPower.checked!.error).toBeLessThan(0.5);
  expect(byPower.worst[0].value).toBeCloseTo(-40, -1);
});

test('a model that errs says so: shares with its error lie apart, and too few points say nothing', () => {
  const noisy = ([a, b]: readonly number[]): number => a + 0.2 * Math.sin(40 * b) * Math.cos(31 * a);
  const spreads = [normal(0.15), normal(0.15)];
  const limits = [{ figure: 0, low: 0.3, high: 0.8 }];
  const found = toleranceOf(task({ spreads, figures: [sampled(noisy, 2, 30)], limits }));
  expect(found.kept!.most - found.kept!.least).toBeGreaterThan(0.1);
  expect(found.figures[0]!.checked!.error).toBeGreaterThan(0.05);
  const few = toleranceOf(task({ spreads, figures: [sampled(noisy, 2, 5, 0)], limits }));
  expect([few.figures[0], few.kept, few.each[0]]).toEqual([null, null, null]);
});
