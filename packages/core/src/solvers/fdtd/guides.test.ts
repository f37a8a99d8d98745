import { describe, expect, test } from '@jest/globals';
import { dispersionOnCells } from './guides.ts';

describe('a mode on the cells along its guide', () => {
  const step = 1e-3;
  const impedance = 1.3;
  test.each([10, 100, 800])('beta of %d 1/m: the discrete wave, slower than the true one by its cells, and back', (b) => {
    const { beta, admittance, propagates } = dispersionOnCells(step, b * b, () => impedance);
    expect(propagates).toBe(true);
    expect((2 / step) * Math.sin((beta[0] * step) / 2)).toBeCloseTo(b, 9);
    expect(beta[0]).toBeGreaterThan(b);
    expect(beta[0] / b - 1).toBeLessThan((b * step) ** 2 / 20);
    expect(admittance).toEqual([expect.closeTo(impedance * Math.cos((beta[0] * step) / 2), 12), 0]);
  });
  test.each([10, 800])('below cutoff by %d 1/m it fades by the hyperbolic sine', (a) => {
    const { beta, admittance, propagates } = dispersionOnCells(step, -a * a, (b) => 1 / b);
    expect(propagates).toBe(false);
    expect(beta[0]).toBe(0);
    expect((2 / step) * Math.sinh((-beta[1] * step) / 2)).toBeCloseTo(a, 9);
    expect(admittance[1]).toBeCloseTo(Math.cosh((beta[1] * step) / 2) / a, 12);
  });
  test('with finer cells it comes to the true one with the square of the cell', () => {
    const off = (d: number): number => dispersionOnCells(d, 500 ** 2, () => 1).beta[0] / 500 - 1;
    expect(off(1e-3) / off(0.5e-3)).toBeGreaterThan(3.9);
    expect(off(1e-3) / off(0.5e-3)).toBeLessThan(4.1);
  });
});
