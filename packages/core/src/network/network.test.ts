import { describe, expect, test } from '@jest/globals';
import { abs, type Complex, div } from '../numerics/complex.ts';
import { impedance, type IncidentWave } from '../results/index.ts';
import {
  activeReflection,
  crossing,
  groupDelay,
  immittanceMatrix,
  reactanceCircle,
  ratioCircle,
  reflectionOf,
  renormalised,
  resistanceCircle,
  shifted,
  standingWaveRatio,
  unwrapped,
} from './index.ts';

const array = (shape: number[], values: number[]) => ({ shape, data: Float64Array.from(values) });
const real = (re: number): Complex => [re, 0];

describe('impedance and admittance matrices', () => {
  // A T of 10 + 5j in each arm and 20 - 30j to ground: Z11 = Z22 = 30 - 25j, Z12 = 20 - 30j.
  const z = [30, -25, 20, -30, 20, -30, 30, -25];
  /** S by the definition with equal complex references r: (Z - r* ) (Z + r)^-1 for two like ports, from even and odd. */
  const fromT = (r: Complex): number[] => {
    const gamma = (re: number, im: number): Complex => {
      return div([re - r[0], im + r[1]], [re + r[0], im + r[1]]);
    };
    const [even, odd] = [gamma(50, -55), gamma(10, 5)];
    const own = [(even[0] + odd[0]) / 2, (even[1] + odd[1]) / 2];
    const over = [(even[0] - odd[0]) / 2, (even[1] - odd[1]) / 2];
    return [...own, ...over, ...over, ...own];
  };

  test.each([[real(50)], [[35, 20]]] as [Complex][])('a T of impedances comes back from its S on %j', (r) => {
    const s = array([1, 2, 2, 2], fromT(r));
    immittanceMatrix(s, [r, r], 'Z')!.data.forEach((v, i) => expect(v).toBeCloseTo(z[i], 9));
    const y = immittanceMatrix(s, [r, r], 'Y')!.data;
    // Y Z = 1.
    const [re, im] = [y[0] * z[0] - y[1] * z[1] + y[2] * z[4] - y[3] * z[5], y[0] * z[1] + y[1] * z[0] + y[2] * z[5] + y[3] * z[4]];
    expect(re).toBeCloseTo(1, 9);
    expect(im).toBeCloseTo(0, 9);
  });

  test('it is the same whatever the references, and NaN where it does not exist', () => {
    const s = array([1, 2, 2, 2], fromT(real(50)));
    const other = renormalised(s, [real(50), real(50)], [real(75), [10, -8]])!;
    immittanceMatrix(other, [real(75), [10, -8]], 'Z')!.data.forEach((v, i) => expect(v).toBeCloseTo(z[i], 8));
    // A through connection has no Z.
    expect(immittanceMatrix(array([1, 2, 2, 2], [0, 0, 1, 0, 1, 0, 0, 0]), [real(50), real(50)], 'Z')!.data[0]).toBeNaN();
    expect(immittanceMatrix(s, [real(50), null], 'Z')).toBeNull();
  });
});

describe('reference planes', () => {
  test('a length of line taken away from both ends leaves what was between', () => {
    // A mismatch seen through 7 mm and 3 mm of lossy line.
    const [alpha, beta] = [2.1, 310];
    const inner = array([1, 2, 2, 2], [0.2, 0.1, 0.6, -0.5, 0.6, -0.5, -0.15, 0.22]);
    const outer = shifted(inner, [-7e-3, -3e-3], () => [alpha, beta], [0, 1]);
    expect(abs([outer.data[0], outer.data[1]])).toBeCloseTo(Math.hypot(0.2, 0.1) * Math.exp(-2 * alpha * 7e-3), 12);
    expect(Math.atan2(outer.data[1], outer.data[0])).toBeCloseTo(Math.atan2(0.1, 0.2) - 2 * beta * 7e-3 + 2 * Math.PI, 9);
    shifted(outer, [7e-3, 3e-3], () => [alpha, beta], [0, 1]).data.forEach((v, i) => expect(v).toBeCloseTo(inner.data[i], 12));
    expect(shifted(inner, [0, 0], () => [NaN, NaN], [0, 1])).toBe(inner);
  });

  test('columns go by the channel that was excited', () => {
    // Only channel 1 was excited: its column stands first.
    const s = array([1, 2, 1, 2], [1, 0, 1, 0]);
    const { data } = shifted(s, [0, 1e-3], () => [0, Math.PI / 2 / 1e-3], [1]);
    expect([data[0], data[1], data[2], data[3]].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([0, 1, -1, 0]);
  });
});

describe('curves of lines', () => {
  test('group delay of a line is its length over the speed, also over many turns and unequal steps; of a resonator its closed form', () => {
    const delay = 2.5e-9;
    const f = Array.from({ length: 60 }, (_, i) => 1e9 + 1.5e8 * i + 4e7 * Math.sin(i));
    const line = f.map((x): Complex => [Math.cos(-2 * Math.PI * x * delay), Math.sin(-2 * Math.PI * x * delay)]);
    groupDelay(f, line).forEach((t) => expect(t).toBeCloseTo(delay, 18));
    // 1 / (1 + 2 j Q (f - f0) / f0) has the delay (Q / (pi f0)) / (1 + (2 Q d)^2).
    const [f0, q] = [2e9, 40];
    const g = Array.from({ length: 801 }, (_, i) => 1.9e9 + 2.5e5 * i);
    const r = g.map((x): Complex => {
      const d = (2 * q * (x - f0)) / f0;
      return [1 / (1 + d * d), -d / (1 + d * d)];
    });
    const closed = (x: number): number => q / (Math.PI * f0) / (1 + ((2 * q * (x - f0)) / f0) ** 2);
    groupDelay(g, r).forEach((t, i) => expect(Math.abs(t / closed(g[i]) - 1)).toBeLessThan(i % 800 ? 1e-4 : 2e-4));
  });

  test('unwrapping, standing wave ratio', () => {
    const turn = Array.from({ length: 50 }, (_, i) => -0.9 * i);
    const wrapped = turn.map((p) => Math.atan2(Math.sin(p), Math.cos(p)));
    unwrapped(wrapped).forEach((p, i) => expect(p).toBeCloseTo(turn[i], 9));
    expect(standingWaveRatio(reflectionOf(real(2)))).toBeCloseTo(2, 12);
    expect(standingWaveRatio(reflectionOf(real(1 / 3)))).toBeCloseTo(3, 12);
    expect(standingWaveRatio(real(-1))).toBe(Infinity);
  });

  test('active reflection of two coupled elements, even and odd', () => {
    const s = array([1, 2, 2, 2], [0.1, 0.2, 0.3, -0.1, 0.3, -0.1, 0.1, 0.2]);
    const both = (second: number): IncidentWave[] => [{ column: 0, amplitude: [1, 0] }, { column: 1, amplitude: [second, 0] }]; // prettier-ignore
    expect(activeReflection(s, 0, both(1), 0)[0]).toEqual([0.4, 0.1]);
    const odd = activeReflection(s, 1, both(-1), 1)[0];
    expect(odd[0]).toBeCloseTo(-0.2, 12);
    expect(odd[1]).toBeCloseTo(0.3, 12);
    expect(activeReflection(s, 0, [{ column: 1, amplitude: [1, 0] }], 0)[0][0]).toBeNaN();
  });
});

describe('the Smith chart', () => {
  test('circles hold the reflections of what they stand for', () => {
    for (const r of [0, 0.3, 1, 4])
      for (const x of [-3, -0.5, 0.2, 2]) {
        const g = reflectionOf([r, x]);
        const c = resistanceCircle(r);
        expect(Math.hypot(g[0] - c.x, g[1] - c.y)).toBeCloseTo(c.radius, 12);
        const b = reactanceCircle(x);
        expect(Math.hypot(g[0] - b.x, g[1] - b.y)).toBeCloseTo(b.radius, 12);
        expect(crossing(r, x)).toEqual(g);
        // Back again by the definition of the impedance.
        if (r > 0) expect(impedance(g, real(1))[1]).toBeCloseTo(x, 9);
      }
    expect(ratioCircle(2).radius).toBeCloseTo(1 / 3, 12);
  });
});
