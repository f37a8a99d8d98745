import { describe, expect, test } from '@jest/globals';
import { besselJ } from './earth/bessel.ts';
import { earthPermittivity, fading, reflections } from './earth/halfSpace.ts';
import { EarthTable } from './earth/table.ts';
import { halfSpaceKernel } from './earth/sommerfeld.ts';
import { reflected, reflectedByEarth } from './excite.ts';
import { nearPair, nearPairs, ringMean } from './near.ts';
import { mirrored } from './system.ts';
import { besselRatio, coatPotential, wireImpedance } from './wireMetal.ts';

const row = (from: number[], to: number[], radius: number): Float64Array => {
  const l = Math.hypot(...to.map((x, i) => x - from[i]));
  return Float64Array.of(...from, ...to.map((x, i) => (x - from[i]) / l), l, radius);
};

describe('static integrals of close segments', () => {
  test('the mean of 1 / R between two rings', () => {
    for (const [u, a, b] of [
      [0.3, 1, 1],
      [0.01, 1, 1],
      [5, 1, 0.4],
      [0, 1, 0.5],
    ]) {
      // prettier-ignore
      let sum = 0;
      const n = 20000;
      for (let i = 0; i < n; i++) sum += 1 / Math.sqrt(u * u + a * a + b * b - 2 * a * b * Math.cos((2 * Math.PI * (i + 0.5)) / n));
      expect(ringMean(u, a, b)).toBeCloseTo(sum / n, 4);
    }
  });

  test('a segment with itself: 2 L (asinh(L/a) - 1 + ...) of the averaged kernel, summed by brute force', () => {
    const [l, a] = [1, 0.05];
    const { integrals } = nearPair(row([0, 0, 0], [0, 0, l], a), row([0, 0, 0], [0, 0, l], a));
    // int int K(x - y) = 2 int (l - u) K(u) du, with u = v^2 against the logarithm.
    let sum = 0;
    const n = 4000;
    for (let i = 0; i < n; i++) {
      const v = (i + 0.5) / n;
      sum += (2 * (l - v * v) * ringMean(v * v, a, a) * 2 * v) / n;
    }
    expect(integrals.reduce((s, x) => s + x)).toBeCloseTo(sum, 4);
    expect(integrals[1]).toBeCloseTo(integrals[2], 9);
    expect(integrals[0]).toBeCloseTo(integrals[3], 9);
  });

  test('at an angle, and of two parallel wires: against a fine sum, either way round', () => {
    for (const [b, touches] of [
      [row([0, 0, 1], [0.6, 0, 1.8], 0.02), true],
      [row([0.3, 0, 0.1], [0.3, 0, 0.9], 0.01), false],
    ] as const) {
      const a = row([0, 0, 0], [0, 0, 1], 0.02);
      const { integrals, rho2 } = nearPair(a, b);
      expect(rho2 > 0).toBe(touches);
      const sum = [0, 0, 0, 0];
      const n = 700;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          const [s, t] = [(i + 0.5) / n, (j + 0.5) / n];
          const d = [0, 1, 2].map((c) => a[c] + s * a[6] * a[3 + c] - b[c] - t * b[6] * b[3 + c]);
          const g = (a[6] * b[6]) / (n * n) / Math.sqrt(d[0] ** 2 + d[1] ** 2 + d[2] ** 2 + rho2);
          [(1 - s) * (1 - t), (1 - s) * t, s * (1 - t), s * t].forEach((w, c) => (sum[c] += w * g));
        }
      integrals.forEach((x, c) => expect(x).toBeCloseTo(sum[c], 4));
      const back = nearPair(b, a).integrals;
      expect(back[1]).toBeCloseTo(integrals[2], 7);
      expect(back[0]).toBeCloseTo(integrals[0], 7);
    }
  });

  test('lists hold each segment with itself, its neighbours, and images that are close', () => {
    const all = new Float64Array(24);
    for (let i = 0; i < 3; i++) all.set(row([0, 0, i], [0, 0, i + 1], 0.01), 8 * i);
    const near = nearPairs(all, all);
    expect([...near.source.subarray(near.first[0], near.first[1])]).toEqual([0, 1, 2]);
    const images = nearPairs(all, mirrored(all, 0));
    expect([...images.source.subarray(images.first[0], images.first[1])]).toEqual([0, 1]);
  });
});

describe('what wires are made of', () => {
  test('skin effect: the resistance of the whole section at rest, of the skin at high frequency', () => {
    const wire = { radius: 1e-3, metal: { conductivity: 5.8e7, permeability: 1 } };
    expect(wireImpedance(wire, 1)[0]).toBeCloseTo(1 / (5.8e7 * Math.PI * 1e-6), 6);
    const f = 1e9;
    const depth = 1 / Math.sqrt(Math.PI * f * 4e-7 * Math.PI * 5.8e7);
    const [re, im] = wireImpedance(wire, f);
    const skin = 1 / (2 * Math.PI * 1e-3 * depth * 5.8e7);
    expect(re / skin).toBeCloseTo(1 + depth / 2e-3, 3);
    expect(im / skin).toBeCloseTo(1, 2);
    expect(wireImpedance({ radius: 1, metal: null }, f)).toEqual([0, 0]);
  });
  test('I0 / I1 goes over smoothly to its limit', () => {
    const [a, b] = [besselRatio(399.9), besselRatio(400.1)];
    expect(a[0]).toBeCloseTo(b[0], 6);
    expect(a[1]).toBeCloseTo(b[1], 6);
  });
  test('a coat lowers the potential of its charge, an air one does nothing', () => {
    expect(coatPotential({ radius: 1e-3, coat: { radius: 2e-3, permittivity: [3, 0] } })[0]).toBeLessThan(0);
    expect(coatPotential({ radius: 1e-3, coat: { radius: 2e-3, permittivity: [1, 0] } })[0]).toBeCloseTo(0, 9);
  });
});

describe('real earth', () => {
  test('Bessel functions meet their recurrence in the complex plane, and where the two ways of computing them meet', () => {
    const out = new Float64Array(4);
    // J0' = -J1.
    for (const [x, y] of [
      [0.5, 0.2],
      [7, 0.5],
      [11.9, 0.3],
      [12.3, 0.3],
      [60, 0.05],
    ]) {
      // prettier-ignore
      const h = 1e-5;
      besselJ(x + h, y, out);
      const up = [out[0], out[1]];
      besselJ(x - h, y, out);
      const down = [out[0], out[1]];
      besselJ(x, y, out);
      expect((up[0] - down[0]) / (2 * h)).toBeCloseTo(-out[2], 6);
      expect((up[1] - down[1]) / (2 * h)).toBeCloseTo(-out[3], 6);
    }
    besselJ(5, 0, out);
    expect(out[0]).toBeCloseTo(-0.1775967713, 9);
    expect(out[2]).toBeCloseTo(-0.3275791376, 9);
  });

  test('roots fade, and grazing waves are turned back', () => {
    for (const z of [[1, 0], [-1, 0], [3, -2], [-3, 2]] as [number, number][]) expect(fading(z)[1]).toBeLessThanOrEqual(0); // prettier-ignore
    const { e, h } = reflections([13, -5], [1 - 1e-12, 0]);
    expect(h[0]).toBeCloseTo(-1, 3);
    expect(e[0]).toBeCloseTo(1, 3);
  });

  test('the table meets the integrals between its nodes', () => {
    const eps = earthPermittivity({ permittivity: 8, conductivity: 0.01 }, 50e6);
    const table = new EarthTable(eps, { rho: 5, low: 0.4, high: 3 });
    const told = new Float64Array(8);
    for (const [rho, h] of [
      [0, 0.4],
      [0.33, 0.7],
      [4.7, 0.5],
      [2.1, 2.9],
      [5, 3],
    ]) {
      // prettier-ignore
      table.at(rho, h, told);
      const own = halfSpaceKernel(eps, rho, h);
      own.forEach((v, i) => expect(Math.abs(v - told[i]) * Math.hypot(rho, h)).toBeLessThan(3e-4));
    }
    expect(table.error).toBeLessThan(1e-4);
  });

  test('earth of metal sends a wave back as a perfect plane does, earth of air sends nothing', () => {
    const wave = { towards: [0.48, 0.36, -0.8], re: [0.64, 0.48, 0.6], im: [-0.6, 0.8, 0] } as const;
    const metal = reflectedByEarth(wave, { kind: 'earth', at: 0.3, permittivity: 1, conductivity: 1e9 }, 1e8);
    const perfect = reflected(wave, 0.3, (2 * Math.PI * 1e8) / 299792458);
    for (const part of ['re', 'im', 'towards'] as const) metal[part].forEach((v, i) => expect(v).toBeCloseTo(perfect[part][i], 3));
    const air = reflectedByEarth(wave, { kind: 'earth', at: 0.3, permittivity: 1, conductivity: 0 }, 1e8);
    expect(Math.hypot(...air.re, ...air.im)).toBeLessThan(1e-12);
  });
});
