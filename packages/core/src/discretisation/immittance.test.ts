import { describe, expect, test } from '@jest/globals';
import { mu0 } from '../numerics/constants.ts';
import { nonNegative } from '../numerics/nnls.ts';
import { fitImmittance, immittanceAt, type Metal, recursion, sheetAdmittance, surfaceImpedance, terms } from './immittance.ts';

const copper: Metal = { conductivity: 5.8e7, permeability: 1, thickness: null };

describe('non-negative least squares', () => {
  test('finds the plain solution where that is positive, and the edge where it is not', () => {
    const a = Float64Array.of(1, 0, 0, 1, 1, 1);
    expect([...nonNegative(a, Float64Array.of(1, 2, 3), 3, 2)].map((v) => v.toFixed(9))).toEqual(['1.000000000', '2.000000000']);
    const [x, y] = nonNegative(a, Float64Array.of(2, -1, 1), 3, 2);
    expect(y).toBe(0);
    // With y at zero the rest is x from rows 1 and 3.
    expect(x).toBeCloseTo(1.5, 9);
  });
});

describe('metal surfaces', () => {
  test('bulk copper at 10 GHz', () => {
    const [re, im] = surfaceImpedance(copper, 10e9);
    expect(re).toBeCloseTo(0.02609, 4);
    expect(im).toBeCloseTo(re, 12);
  });
  test('a film far thinner than the skin is a resistor; a thick one is bulk', () => {
    const film = surfaceImpedance({ ...copper, thickness: 10e-9 }, 1e9);
    expect(film[0]).toBeCloseTo(1 / (5.8e7 * 10e-9), 4);
    expect(surfaceImpedance({ ...copper, thickness: 1e-3 }, 1e9)).toEqual(surfaceImpedance(copper, 1e9));
  });
  test('two sides of a thick sheet conduct twice as well as one; of a thin one the same', () => {
    const [one] = sheetAdmittance(copper, 1, 1e9);
    expect(sheetAdmittance(copper, 2, 1e9)[0]).toBeCloseTo(2 * one, 3);
    const thin = { ...copper, thickness: 50e-9 };
    expect(sheetAdmittance(thin, 2, 1e9)[0] / sheetAdmittance(thin, 1, 1e9)[0]).toBeCloseTo(1, 3);
  });
});

describe('fits', () => {
  test.each([
    ['series', 1e9, 3e9, null],
    ['series', 10e9, 15e9, 2e-6],
    ['parallel', 1e9, 3e9, null],
    ['parallel', 5e9, 15e9, 0.5e-6],
  ] as const)('%s, %d to %d Hz, thickness %s: within half a percent between the points of the fit, and passive', (form, from, to, thickness) => {
    const metal = { ...copper, thickness };
    const value = (f: number): [number, number] => (form === 'series' ? surfaceImpedance(metal, f) : sheetAdmittance(metal, 2, f));
    const fit = fitImmittance(form, value, from, to);
    for (let i = 0; i < 57; i++) {
      const f = from + ((to - from) * i) / 56;
      const [x, y] = value(f);
      const [u, v] = immittanceAt(fit, f);
      expect(Math.hypot(u - x, v - y) / Math.hypot(x, y)).toBeLessThan(5e-3);
    }
    expect(Math.min(...fit.r)).toBeGreaterThanOrEqual(0);
    for (const f of [1e6, 1e8, 1e10, 1e12]) expect(immittanceAt(fit, f)[0]).toBeGreaterThanOrEqual(0);
  });

  test.each(['series', 'parallel'] as const)('the recursion of a %s fit, driven by a sine, answers with the fit', (form) => {
    const f = 2e9;
    const fit = fitImmittance(form, (x) => (form === 'series' ? surfaceImpedance(copper, x) : sheetAdmittance(copper, 2, x)), 1e9, 3e9);
    const dt = 1 / (f * 400);
    const c = recursion(fit, dt);
    const u = new Float64Array(terms);
    let [re, im] = [0, 0];
    const periods = 60;
    for (let n = 0; n < 400 * periods; n++) {
      const [before, after] = [n, n + 1].map((m) => Math.cos(2 * Math.PI * f * m * dt));
      let y = c[0] * (before + after);
      for (let t = 0; t < terms; t++) {
        y += c[4 + t] * u[t];
        u[t] = c[4 + terms + t] * u[t] + c[4 + 2 * terms + t] * (before + after);
      }
      if (n < 400 * (periods - 10)) continue;
      const phase = 2 * Math.PI * f * (n + 0.5) * dt;
      re += (2 / 4000) * y * Math.cos(phase);
      im -= (2 / 4000) * y * Math.sin(phase);
    }
    const [x, y] = immittanceAt(fit, f);
    expect(Math.hypot(re - x, im - y) / Math.hypot(x, y)).toBeLessThan(2e-3);
  });

  test('skin depth is what the impedance says', () => {
    const depth = 1 / Math.sqrt(Math.PI * 1e9 * mu0 * 5.8e7);
    expect(1 / (surfaceImpedance(copper, 1e9)[0] * 5.8e7)).toBeCloseTo(depth, 12);
  });
});
