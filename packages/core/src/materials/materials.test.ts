import { describe, expect, test } from '@jest/globals';
import { emptyProject, materialSchema } from '../document/index.ts';
import { c0 } from '../numerics/constants.ts';
import { conductorAt, curvesOf, findMaterial, indexAt, library, materialCurves, materialSummary, permittivityAt } from './index.ts';

const named = (name: string) => findMaterial(emptyProject('t'), name)!;
const index = (name: string, micrometres: number): number => indexAt(named(name), c0 / (micrometres * 1e-6)).n;

// Values tabled in the papers that the formulas come from, or in textbooks where the paper has none.
test.each<[string, number, number]>([
  ['Fused silica (optical)', 0.5893, 1.45841],
  ['Fused silica (optical)', 1.55, 1.44402],
  ['Silicon (optical)', 1.55, 3.4777],
  ['Silicon nitride (optical)', 1.55, 1.9963],
  ['Indium phosphide (optical)', 1.55, 3.1649],
  ['Sapphire, ordinary ray', 0.5893, 1.76816],
  ['Lithium niobate, ordinary ray', 1.55, 2.2111],
])('%s at %d um has index %d', (name, w, n) => {
  expect(Math.abs(index(name, w) - n)).toBeLessThan(2e-4);
});

describe('figures', () => {
  test('water relaxes: static permittivity low, loss greatest at the relaxation frequency', () => {
    const water = named('Fresh water, 25 C');
    expect(permittivityAt(water, 1e6).re).toBeCloseTo(78.36, 2);
    const peak = 1 / (2 * Math.PI * 8.27e-12);
    expect(permittivityAt(water, peak).loss).toBeCloseTo((78.36 - 5.2) / 2, 6);
    expect(permittivityAt(water, peak / 3).loss).toBeLessThan(permittivityAt(water, peak).loss);
  });

  test('copper: skin depth and surface resistance at 10 GHz (Pozar, example 1.2 and section 1.7)', () => {
    const { depth, resistance } = conductorAt(named('Copper'), 1e10);
    expect(depth).toBeCloseTo(6.6e-7, 9);
    expect(resistance).toBeCloseTo(0.0261, 4);
    expect(conductorAt(named('Perfect conductor'), 1e10)).toEqual({ resistance: 0, depth: 0 });
  });

  test('a metal in the infrared has a negative permittivity and loss, and is no plain dielectric', () => {
    const gold = named('Gold (infrared)');
    const { re, loss } = permittivityAt(gold, c0 / 10e-6);
    expect(re).toBeLessThan(-1000);
    expect(loss).toBeGreaterThan(0);
    expect(indexAt(gold, c0 / 10e-6).k).toBeGreaterThan(50);
  });
});

test('the library: names once, figures that the schema takes, a curve or a reason for each', () => {
  expect(new Set(library.map((m) => m.name)).size).toBe(library.length);
  for (const { group, ...m } of library) {
    expect(materialSchema.safeParse(m).error?.issues ?? []).toEqual([]);
    expect(group && materialSummary(m)).toBeTruthy();
    if (m.dispersion || m.atFrequency || m.conductivity) expect(m.source).toBeTruthy();
    for (const k of curvesOf(m)) expect(Number.isFinite(materialCurves[k].at(m, m.range ? Math.sqrt(m.range[0] * m.range[1]) : 1e10))).toBe(true);
  }
});
