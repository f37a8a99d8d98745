import { describe, expect, test } from '@jest/globals';
import { c0, eta0 } from '../../numerics/constants.ts';
import { emptySection, type Section, solveSection } from '../modes/index.ts';
import { inhomogeneousModes } from './inhomogeneousModes.ts';
import type { Dispersion, PortMode } from './modeTypes.ts';

const even = (length: number, cells: number): Float64Array => Float64Array.from({ length: cells + 1 }, (_, i) => (length * i) / cells);
const kOf = (f: number): number => (2 * Math.PI * f) / c0;
/** A mode of the continuous line: what the port makes of beta^2 and the admittance. */
const plain = (beta2: number, y: (b: number) => number): Dispersion => {
  const b = Math.sqrt(Math.abs(beta2));
  return beta2 > 0 ? { beta: [b, 0], admittance: [y(b), 0], propagates: true } : { beta: [0, -b], admittance: [0, y(b)], propagates: false };
};
const modesOf = (section: (f: number) => Section, from: number, to: number, count = 1): PortMode[] =>
  inhomogeneousModes(section, { from, to }, count, kOf, plain);

/** A guide of 20 x 10 mm whose lower so many of ten layers have a permittivity of 2.5. */
const layered = (layers: number): Section => {
  const s = emptySection(even(20e-3, 20), even(10e-3, 10));
  const w = s.u.length;
  for (let n = 0; n < s.eu.length; n++) {
    const j = Math.floor(n / w);
    const [on, between] = [j < layers ? 2.5 : j === layers ? 1.75 : 1, j < layers ? 2.5 : 1];
    s.eu[n] *= on;
    s.ew[n] *= on;
    s.ev[n] *= between;
  }
  return s;
};

describe('modes of a port on several media', () => {
  test('filled with one, they are those of that medium: phase, cutoff, wave admittance', () => {
    const [mode] = modesOf(() => layered(11), 6e9, 8e9);
    // The guide of 20 cells: pi / a becomes 2 sin(pi / 40) / h.
    const kc = (2 / 1e-3) * Math.sin(Math.PI / 40);
    for (const f of [6e9, 6.7e9, 8e9]) {
      const { beta, propagates } = mode.at(f);
      expect(propagates).toBe(true);
      expect(beta[0]).toBeCloseTo(Math.sqrt(2.5 * kOf(f) ** 2 - kc ** 2), 5);
    }
    // H over E of TE10 is beta / k, and the flux is beta times that.
    const shape = mode.shape!;
    const flux = (f: number): number => mode.at(f).beta[0] ** 2 / kOf(f);
    expect(shape.flux(8e9) / shape.flux(6e9)).toBeCloseTo(flux(8e9) / flux(6e9), 6);
    expect(mode.impedance).toBeNull();
  });

  test('between the frequencies they were solved at they are what the solution there would be', () => {
    const [from, to] = [7e9, 12e9];
    const ports = modesOf(() => layered(4), from, to, 2);
    for (const f of [7.4e9, 8.9e9, 11.1e9]) {
      const direct = solveSection(layered(4), kOf(f), { count: 2 });
      ports.forEach((port, m) => {
        const { beta } = port.at(f);
        const beta2 = beta[0] ** 2 - beta[1] ** 2;
        expect(Math.abs(beta2 - direct[m].beta2) / kOf(f) ** 2).toBeLessThan(2e-6);
      });
    }
    // The field moves into the dielectric as frequency rises: the profiles differ, and their shares add up to one.
    const { shares } = ports[0].shape!;
    for (const f of [from, 9.3e9, to]) expect(shares(f).e.reduce((s, x) => s + x, 0)).toBeCloseTo(1, 9);
  });

  test('below cutoff the phase constant is -j alpha and the admittance imaginary', () => {
    const [mode] = modesOf(() => layered(4), 4e9, 12e9);
    const [low, high] = [4.2e9, 11e9].map((f) => mode.at(f));
    expect(low.propagates).toBe(false);
    expect(low.beta[0]).toBe(0);
    expect(low.beta[1]).toBeLessThan(0);
    expect(low.admittance[0]).toBe(0);
    expect(Math.sign(low.admittance[1])).toBe(Math.sign(mode.shape!.flux(4.2e9)));
    expect(high.propagates).toBe(true);
    expect(high.admittance[0]).toBeGreaterThan(0);
  });

  test('on two conductors with a filling their impedance is that of the line', () => {
    // Plates 4 cells apart, 24 wide, between magnetic walls: a parallel-plate line without fringing, eta d / (w sqrt(er)).
    const s = emptySection(even(24e-3, 24), even(4e-3, 4), 2.5, ['magnetic', 'magnetic', 'electric', 'electric']);
    const [mode] = modesOf(() => s, 1e9, 1.2e9);
    expect(mode.at(1.1e9).beta[0] / kOf(1.1e9)).toBeCloseTo(Math.sqrt(2.5), 6);
    expect(mode.impedance!).toBeCloseTo((eta0 * 4) / 24 / Math.sqrt(2.5), 3);
  });
});
