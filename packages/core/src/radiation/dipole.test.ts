import { describe, expect, test } from '@jest/globals';
import { c0, eta0 } from '../numerics/constants.ts';
import { addPointPattern, freePower, imageOf, patternPower, type PointCurrent, pointField, wireFarField, wireNearField } from './index.ts';

const frequency = 1.3e9;
const k = (2 * Math.PI * frequency) / c0;
const slanted = [0.3, -0.5, Math.sqrt(1 - 0.34)] as const;
const current = (of: PointCurrent['of']): PointCurrent => ({ of, at: [0.01, -0.02, 0.03], moment: slanted });
const fieldOf = (p: PointCurrent, at: readonly number[]): Float64Array => {
  const out = new Float64Array(12);
  pointField(p, frequency, at, out);
  return out;
};

describe('a point of current', () => {
  test('has the field of a short wire with the same moment, near and far', () => {
    const own = current('electric');
    const length = 1e-5;
    const segments = Float64Array.from([...own.at.map((x, a) => x - (length / 2) * slanted[a]), ...slanted, length, 1e-7]);
    const wire = { segments, currents: Float64Array.of(1 / length, 0, 1 / length, 0) };
    for (const reach of [0.004, 0.03, 0.4]) {
      const at = own.at.map((x, a) => x + reach * [0.6, 0.64, -0.48][a]);
      const [mine, its] = [fieldOf(own, at), new Float64Array(12)];
      wireNearField(wire, frequency, at, its);
      // A wire of no charges at its ends but those of its current: E of both parts.
      const off = Math.hypot(...mine.subarray(6).map((x, i) => x - its[6 + i])) / Math.hypot(...mine.subarray(6));
      process.stdout.write(`H at ${reach} m: off by ${off.toExponential(1)}\n`);
      expect(off).toBeLessThan(1e-4);
    }
  });

  test.each(['electric', 'magnetic'] as const)('solves Maxwell’s equations and carries its power: %s', (of) => {
    const own = current(of);
    // curl E = -j w mu0 H at a point, by differences.
    const at = [0.06, 0.05, -0.01];
    const h = 4e-6;
    const slope = (axis: number): Float64Array => {
      const [a, b] = [-1, 1].map((s) => fieldOf(own, at.map((x, i) => x + (i === axis ? s * h : 0)))); // prettier-ignore
      return a.map((x, i) => (b[i] - x) / (2 * h));
    };
    const d = [0, 1, 2].map(slope);
    const field = fieldOf(own, at);
    const size = Math.hypot(...field.subarray(6)) * k * eta0;
    for (let a = 0; a < 3; a++) {
      const [b, c] = [(a + 1) % 3, (a + 2) % 3];
      const curl = (from: number, n: number): number => d[b][from + 2 * c + n] - d[c][from + 2 * b + n];
      // -j k eta H, and curl H = j k / eta E.
      expect(Math.abs(curl(0, 0) - k * eta0 * field[6 + 2 * a + 1]) / size).toBeLessThan(1e-6);
      expect(Math.abs(curl(0, 1) + k * eta0 * field[6 + 2 * a]) / size).toBeLessThan(1e-6);
      expect(Math.abs(curl(6, 0) + (k / eta0) * field[2 * a + 1]) / (size / eta0 ** 2)).toBeLessThan(1e-6);
    }
    const pattern = { nTheta: 37, nPhi: 72, values: new Float64Array(4 * 37 * 72) };
    addPointPattern([own], 1, frequency, pattern);
    const { power, peak } = patternPower(pattern);
    expect(Math.abs(power / freePower(of, frequency) - 1)).toBeLessThan(1e-3);
    // The grid of directions has none quite across the moment.
    expect(Math.abs((4 * Math.PI * peak) / power - 1.5)).toBeLessThan(2e-3);
    // Far off the field is that of the pattern.
    const [t, f] = [11, 23];
    const [theta, phi] = [(Math.PI * t) / 36, (2 * Math.PI * f) / 72];
    const r = 400;
    const unit = [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
    const far = fieldOf(own, unit.map((x) => r * x)); // prettier-ignore
    const onTheta = [Math.cos(theta) * Math.cos(phi), Math.cos(theta) * Math.sin(phi), -Math.sin(theta)];
    const onPhi = [-Math.sin(phi), Math.cos(phi), 0];
    [onTheta, onPhi].forEach((e, n) => {
      const [re, im] = [0, 1].map((c) => r * e.reduce((s, x, a) => s + x * far[2 * a + c], 0));
      const [p, q] = [values(pattern, t, f)[2 * n], values(pattern, t, f)[2 * n + 1]];
      const turned = [p * Math.cos(k * r) + q * Math.sin(k * r), q * Math.cos(k * r) - p * Math.sin(k * r)];
      expect(Math.hypot(re - turned[0], im - turned[1]) / Math.hypot(...far.subarray(0, 6).map((x) => r * x))).toBeLessThan(2e-3);
    });
  });

  test('radiates as the short wire does', () => {
    const own = current('electric');
    const length = 1e-4;
    const segments = Float64Array.from([...own.at.map((x, a) => x - (length / 2) * slanted[a]), ...slanted, length, 1e-7]);
    const wire = wireFarField({ segments, currents: Float64Array.of(1 / length, 0, 1 / length, 0) }, frequency, 19, 36);
    const mine = { ...wire, values: new Float64Array(wire.values.length) };
    addPointPattern([own], 1, frequency, mine);
    const size = Math.max(...mine.values.map(Math.abs));
    mine.values.forEach((x, i) => expect(Math.abs(x - wire.values[i]) / size).toBeLessThan(1e-6));
  });

  test.each(['electric', 'magnetic'] as const)('has an image with which E along a perfect plane is nothing: %s', (of) => {
    const own = current(of);
    const image = imageOf(own, -0.05);
    for (const at of [
      [0.1, 0.02, -0.05],
      [-0.03, 0.07, -0.05],
    ]) {
      const [a, b] = [fieldOf(own, at), fieldOf(image, at)];
      for (let i = 0; i < 4; i++) expect(Math.abs(a[i] + b[i])).toBeLessThan(1e-9 * Math.hypot(...a.subarray(0, 6)));
    }
  });
});

const values = ({ nPhi, values: v }: { nPhi: number; values: Float64Array }, t: number, f: number): Float64Array =>
  v.subarray(4 * (t * nPhi + f), 4 * (t * nPhi + f) + 4);
