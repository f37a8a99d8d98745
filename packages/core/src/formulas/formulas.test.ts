import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { c0, eps0 } from '../numerics/constants.ts';
import { complete, curveAround, formulas, tryCompute } from './index.ts';

const value = (name: string, ...args: number[]): number => {
  const formula = formulas.find((f) => f.name === name)!;
  const result = tryCompute(formula, complete(formula, args)!);
  if ('fault' in result) throw new Error(result.fault);
  return result.si;
};

/**
 * Capacitance of a strip on a grounded board by charges on strips and the method of images (A. Farrar, A. T. Adams, IEEE Trans.
 * MTT-20, 65, 1972), farad per metre. An answer of another kind to hold the closed forms against.
 */
function stripCapacitance(u: number, er: number, n = 36): number {
  const edge = (i: number): number => (-u / 2) * Math.cos((Math.PI * i) / n);
  const k = (er - 1) / (er + 1);
  // Integral of ln(a^2 + x^2).
  const whole = (x: number, a: number): number => x * Math.log(x * x + a * a || 1e-300) - 2 * x + (a ? 2 * a * Math.atan(x / a) : 0);
  const a = Array.from({ length: n }, (_, i) => {
    const x = (edge(i) + edge(i + 1)) / 2;
    return Array.from({ length: n }, (_, j) => {
      let sum = 0;
      for (let m = 1; m <= 200 && k ** (m - 1) > 1e-12; m++) {
        const part = (d: number): number => whole(edge(j + 1) - x, d) - whole(edge(j) - x, d);
        sum += (-k) ** (m - 1) * (part(2 * m) - part(2 * (m - 1)));
      }
      return sum / (2 * Math.PI * eps0 * (1 + er)) / (edge(j + 1) - edge(j));
    });
  });
  const q = Array<number>(n).fill(1);
  for (let c = 0; c < n; c++) {
    const pivot = a.slice(c).reduce((best, row, r) => (Math.abs(row[c]) > Math.abs(a[best][c]) ? r + c : best), c);
    [a[c], a[pivot], q[c], q[pivot]] = [a[pivot], a[c], q[pivot], q[c]];
    for (let r = c + 1; r < n; r++) {
      const f = a[r][c] / a[c][c];
      for (let m = c; m < n; m++) a[r][m] -= f * a[c][m];
      q[r] -= f * q[c];
    }
  }
  for (let r = n - 1; r >= 0; r--) q[r] = (q[r] - a[r].reduce((s, v, m) => (m > r ? s + v * q[m] : s), 0)) / a[r][r];
  return q.reduce((s, v) => s + v, 0);
}

describe('microstrip', () => {
  // Stated error of the formulas: 0.2 % in permittivity, 0.03 % in air impedance; together within 0.5 %.
  test.each([
    [0.3, 2.2],
    [2.2, 3.5],
    [1, 9.8],
    [4, 9.8],
  ])('w/h %d on er %d agrees with charges on strips within 0.5 %%', (u, er) => {
    // prettier-ignore
    const c = stripCapacitance(u, er);
    const air = stripCapacitance(u, 1);
    expect(Math.abs(value('microstrip_permittivity', u * 1e-3, er, 1e-3) / (c / air) - 1)).toBeLessThan(0.005);
    expect(Math.abs(value('microstrip_impedance', u * 1e-3, er, 1e-3) * c0 * Math.sqrt(c * air) - 1)).toBeLessThan(0.005);
  });

  test('slows towards the board’s own permittivity as the frequency rises, never beyond', () => {
    const e = [0, 5e9, 20e9, 60e9, 500e9].map((f) => value('microstrip_permittivity', 1e-3, 9.8, 0.635e-3, f));
    e.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(e[i]));
    expect(e[4]).toBeLessThan(9.8);
    expect(e[4]).toBeGreaterThan(9.5);
  });

  test('says when it leaves its range', () => {
    const f = formulas.find((x) => x.name === 'microstrip_impedance')!;
    expect(f.compute([10e-3, 3, 0.05e-3, 0]).outside).toMatch(/0.1 to 100/);
    expect(f.compute([1e-3, 30, 1e-3, 0]).outside).toMatch(/20/);
    expect(f.compute([1e-3, 3, 1e-3, 0]).outside).toBeUndefined();
  });
});

describe('closed forms', () => {
  test.each<[string, number[], number, number]>([
    ['wavelength', [299792458], 1, 1e-12],
    ['wavelength', [10e9, 4], 0.0149896229, 1e-9],
    // Copper at 10 GHz (Pozar, example 1.2): 0.66 um.
    ['skin_depth', [5.813e7, 10e9], 0.66e-6, 3e-3],
    // WR-62: TE10 cutoff 9.4879 GHz of the standard EIA table.
    ['guide_cutoff', [15.799e-3, 7.899e-3], 9.488e9, 1e-3],
    ['guide_wavelength', [15e9, 15.799e-3, 7.899e-3], 0.0258, 2e-3],
    // 50 ohm air stripline: w/b = 1.4424 (exact).
    ['stripline_impedance', [1.4424e-3, 1, 1e-3], 50, 1e-3],
    ['coax_impedance', [1, 2.3023, 1], 50, 1e-3],
    ['coax_impedance', [0.912, 2.985, 2.02], 50.05, 2e-3],
    // k = 1/sqrt(2) gives K = K': 30 pi / sqrt(1) for a coplanar line in air.
    ['coplanar_impedance', [1e-3, (1e-3 * (Math.SQRT2 - 1)) / 2, 1, 1], 376.730313668 / 4, 1e-6],
  ])('%s(%j) is %d', (name, args, expected, tolerance) => {
    expect(Math.abs(value(name, ...args) / expected - 1)).toBeLessThan(tolerance);
  });

  test('a coplanar line on a thick board has the mean permittivity; a ground below lowers its impedance', () => {
    expect(value('coplanar_permittivity', 1e-4, 1e-4, 9.8, 1)).toBeCloseTo(5.4, 6);
    expect(value('grounded_coplanar_impedance', 1e-3, 0.2e-3, 3.5, 0.5e-3)).toBeLessThan(value('coplanar_impedance', 1e-3, 0.2e-3, 3.5, 0.5e-3));
  });
});

test('synthesis gives back what analysis was given', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 25, max: 110, noNaN: true }),
      fc.double({ min: 1.5, max: 12, noNaN: true }),
      fc.double({ min: 1e-4, max: 2e-3, noNaN: true }),
      (z, er, h) => {
        const close = (got: number): boolean => Math.abs(got / z - 1) < 1e-6;
        const f = 5e9;
        return (
          close(value('microstrip_impedance', value('microstrip_width', z, er, h, f), er, h, f)) &&
          close(value('coax_impedance', value('coax_inner', z, 4e-3, er), 4e-3, er)) &&
          close(value('coax_impedance', 1e-3, value('coax_outer', z, 1e-3, er), er)) &&
          close(value('stripline_impedance', value('stripline_width', z / 2, er, h), er, h) * 2)
        );
      },
    ),
    { numRuns: 200 },
  );
});

test('nonsense is refused in a sentence, never with a number', () => {
  fc.assert(
    fc.property(fc.constantFrom(...formulas), fc.array(fc.double({ noNaN: false }), { minLength: 5, maxLength: 5 }), (f, args) => {
      const result = tryCompute(f, args.slice(0, f.args.length));
      return 'fault' in result ? /[.]$/.test(result.fault) : Number.isFinite(result.si);
    }),
    { numRuns: 3000 },
  );
  expect(
    tryCompute(
      formulas.find((f) => f.name === 'guide_wavelength')!,
      [5e9, 15.8e-3, 7.9e-3, 1, 0, 1],
    ),
  ).toMatchObject({ fault: expect.stringMatching(/cut off below 9\.4/) });
});

test('a curve around a point has the point in its middle', () => {
  const f = formulas.find((x) => x.name === 'coax_impedance')!;
  const { x, y } = curveAround(f, [1e-3, 3e-3, 1], 0);
  expect(x[40]).toBeCloseTo(1e-3, 12);
  expect(y[40]).toBeCloseTo(value('coax_impedance', 1e-3, 3e-3, 1), 9);
  expect(f.source && f.range && f.about).toBeTruthy();
});
