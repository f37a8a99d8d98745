import { abs, type Complex, div } from '../numerics/complex.ts';
import { describe, expect, test } from '@jest/globals';
import { impedance } from '../results/derive.ts';
import { readReference, referredTo, renormalised } from './renormalise.ts';

const real = (re: number): Complex => [re, 0];
const both = (z: Complex): Complex[] => [z, z];
/** Power-wave reflection of a load. */
const gamma = (z: Complex, ref: Complex): Complex => div([z[0] - ref[0], z[1] + ref[1]], [z[0] + ref[0], z[1] + ref[1]]);
const s = (shape: number[], values: number[]) => ({ shape, data: Float64Array.from(values) });

describe('S on other reference impedances', () => {
  test('a load of one port has the reflection of its definition, also for a complex reference', () => {
    const load: Complex = [30, 45];
    for (const to of [
      [75, 0],
      [20, -35],
    ] satisfies Complex[]) {
      const got = renormalised(s([1, 1, 1, 2], gamma(load, [50, 0])), [real(50)], [to])!.data;
      const want = gamma(load, to);
      expect(got[0]).toBeCloseTo(want[0], 12);
      expect(got[1]).toBeCloseTo(want[1], 12);
    }
    // The conjugate of the load is matched.
    const matched = renormalised(s([1, 1, 1, 2], gamma(load, [50, 0])), [real(50)], [[30, -45]])!.data;
    expect(abs([matched[0], matched[1]])).toBeLessThan(1e-12);
  });

  test('a series resistor between two ports, from unlike to like references', () => {
    // Z = 100 ohm in series, ports of 50 and 75 ohm, by the Z-free formulas for power waves.
    const series = (z1: number, z2: number): number[] => {
      const sum = 100 + z1 + z2;
      return [(100 + z2 - z1) / sum, 0, (2 * Math.sqrt(z1 * z2)) / sum, 0, (2 * Math.sqrt(z1 * z2)) / sum, 0, (100 + z1 - z2) / sum, 0];
    };
    const got = renormalised(s([1, 2, 2, 2], series(50, 75)), [real(50), real(75)], both(real(60)))!.data;
    series(60, 60).forEach((v, i) => expect(got[i]).toBeCloseTo(v, 12));
  });

  test('power is kept, modes without impedance stay, and back again is the same', () => {
    const c = Math.cos(0.7);
    const lossless = [0, Math.sin(0.7), c, 0, c, 0, 0, Math.sin(0.7)];
    const there = renormalised(s([1, 2, 2, 2], lossless), [real(50), null], both([20, 30]))!;
    for (const j of [0, 1]) expect([0, 1].reduce((p, i) => p + there.data[2 * (2 * i + j)] ** 2 + there.data[2 * (2 * i + j) + 1] ** 2, 0)).toBeCloseTo(1, 12); // prettier-ignore
    const once = renormalised(s([1, 2, 2, 2], lossless), [real(50), real(75)], both(real(20)))!;
    const back = renormalised(renormalised(once, [real(20), real(20)], both(real(50)))!, [real(50), real(50)], both(real(20)))!;
    back.data.forEach((v, i) => expect(v).toBeCloseTo(once.data[i], 12));
  });

  test('each channel may come from and go to a complex reference of its own', () => {
    const load: Complex = [30, 45];
    const [one, two]: Complex[] = [
      [12, -120],
      [80, 33],
    ];
    const g = gamma(load, one);
    const referred = renormalised(s([1, 2, 2, 2], [...g, 0, 0, 0, 0, ...gamma(load, [50, 0])]), [one, real(50)], [two, one])!.data;
    const want = [gamma(load, two), gamma(load, one)];
    [referred[0], referred[1]].forEach((v, k) => expect(v).toBeCloseTo(want[0][k], 12));
    [referred[6], referred[7]].forEach((v, k) => expect(v).toBeCloseTo(want[1][k], 12));
    // The load itself comes back from its reflection.
    const z = impedance(g, one);
    expect(z[0]).toBeCloseTo(30, 10);
    expect(z[1]).toBeCloseTo(45, 10);
  });

  test('what cannot be referred is told by null', () => {
    expect(renormalised(s([1, 2, 1, 2], [0, 0, 1, 0]), [real(50), real(50)], both(real(50)))).toBeNull();
    expect(renormalised(s([1, 1, 1, 2], [0, 0]), [real(50)], [[0, 5]])).toBeNull();
    const ports = [{ name: 'a', resistance: 50 }, { name: 'b', resistance: 50 }]; // prettier-ignore
    expect(referredTo(s([1, 2, 1, 2], [0, 0, 1, 0]), { ports, excitations: [0] }, [75, 0])).toBeNull();
  });

  test('references are read as engineers write them', () => {
    expect(readReference('50')).toEqual([50, 0]);
    expect(readReference(' 75 ohm')).toEqual([75, 0]);
    expect(readReference('50 - 20j')).toEqual([50, -20]);
    expect(readReference('12.5+j30 ohm')).toEqual([12.5, 30]);
    for (const bad of ['', 'own', '-50', '0', '50 - 20', 'j20']) expect(readReference(bad)).toBeNull();
  });
});
