import { describe, expect, test } from '@jest/globals';
import type { ModeFigures } from '@jadebell/core/solvers/sections';
import { crossover, curveKinds, lossText, quantitiesOf, sectionScale } from './display.ts';

const figures = (change: Partial<ModeFigures>): ModeFigures => ({
  kind: 'hybrid',
  name: 'quasi-TE0',
  index: [1.7, 0],
  beta: 6e6,
  alpha: 0,
  wall: 0,
  propagates: true,
  groupIndex: 2,
  cutoff: null,
  waveImpedance: [200, 0],
  line: null,
  area: 1e-12,
  alongFirst: 1,
  confinement: [],
  quarterTurn: null,
  residual: 0,
  ...change,
});

describe('what is drawn of a mode', () => {
  // E = (1, 2j, 3j), H = (4j, 5, 6) along x, y and the guide.
  const node = Float32Array.of(0, 0, 0, 0, 1, 0, 0, 2, 0, 3, 0, 4, 5, 0, 6, 0);
  const at = 4;
  const q = quantitiesOf('xyz');
  test('sizes count all parts', () => {
    expect(q.e.of(node, at)).toBeCloseTo(Math.sqrt(1 + 4 + 9));
    expect(q.h.of(node, at)).toBeCloseTo(Math.sqrt(16 + 25 + 36));
  });
  test('power flow is half the real part of E x conj(H) along the guide', () => {
    // Re(1 * 5 - 2j * conj(4j)) / 2 = (5 - 8) / 2, shown without sign.
    expect(q.power.of(node, at)).toBeCloseTo(1.5);
  });
  test('parts across are taken in phase, those along the guide in quadrature', () => {
    expect([q.ex, q.ey, q.ew, q.hx, q.hy, q.hw].map((k) => k.of(node, at))).toEqual([1, 0, 3, 0, 5, 0]);
    expect(quantitiesOf('zxy').ew.label).toBe('E along y');
  });
});

describe('figures in words', () => {
  test('the crossover length is pi over the difference of the phase constants', () => {
    expect(crossover(figures({ beta: 6e6 }), figures({ beta: 5.9e6 }))).toBeCloseTo(Math.PI / 1e5, 12);
  });
  test('losses take the unit that suits them', () => {
    expect(lossText(0)).toBe('0 dB/m');
    expect(lossText(1 / (20 * Math.LOG10E))).toBe('1.00 dB/m');
    expect(lossText(5000 / (20 * Math.LOG10E))).toBe('50.0 dB/cm');
    expect(lossText(2e6 / (20 * Math.LOG10E))).toBe('2.00 dB/µm');
  });
  test('lines give the impedance of their conductor, others that of the wave', () => {
    expect(curveKinds.impedance.of(figures({}))).toBe(200);
    expect(curveKinds.impedance.of(figures({ line: { powerVoltage: 51, powerCurrent: 50, voltageCurrent: 50.5 } }))).toBe(50);
    expect(curveKinds.loss.of(figures({ alpha: 2 }))).toBeCloseTo(17.37, 2);
  });
});

test('colours end below a few high nodes at metal, whose largest value is told beside them', () => {
  const field = Float32Array.from({ length: 1000 }, (_, n) => (n === 500 ? -40 : 1 + (n % 7) / 10));
  expect(sectionScale(field, 40)).toEqual({ top: expect.closeTo(1.6 * 1.6, 5), most: 40 });
  expect(sectionScale(field.slice(0, 400), 1.6)).toEqual({ top: 1.6, most: 1.6 });
  expect(sectionScale(new Float32Array(9), 0)).toEqual({ top: 1, most: 0 });
});
