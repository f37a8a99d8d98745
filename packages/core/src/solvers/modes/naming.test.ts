import { describe, expect, test } from '@jest/globals';
import { guidedModes } from './guided.ts';
import { modeNames, modeToName } from './naming.ts';
import { emptySection, type Section } from './section.ts';

const even = (length: number, cells: number, from = 0): Float64Array =>
  Float64Array.from({ length: cells + 1 }, (_, i) => from + (length * i) / cells);
const names = (s: Section, k0: number, count: number, mirrored?: [boolean, boolean]): string[] => modeNames(s, guidedModes(s, k0, { count }).map(modeToName), mirrored); // prettier-ignore
/** Fills what is near to the middle: with metal outside of the radius, or with a permittivity inside. */
function paint(s: Section, inside: (x: number, y: number) => boolean, value: number): void {
  const w = s.u.length;
  const mid = (x: Float64Array, i: number): number => (x[i] + x[Math.min(i + 1, x.length - 1)]) / 2;
  for (let j = 0; j < s.v.length; j++)
    for (let i = 0; i < w; i++) {
      const n = j * w + i;
      if (s.ew[n] && inside(s.u[i], s.v[j])) s.ew[n] = value;
      if (s.eu[n] && inside(mid(s.u, i), s.v[j])) s.eu[n] = value;
      if (s.ev[n] && inside(s.u[i], mid(s.v, j))) s.ev[n] = value;
    }
}

describe('modes of hollow guides', () => {
  test('of a rectangle by half waves, the first index along the longer side, whichever axis that is', () => {
    const wide = names(emptySection(even(22.86e-3, 18), even(10.16e-3, 9)), 600, 6);
    expect(wide.slice(0, 3)).toEqual(['TE10', 'TE20', 'TE01']);
    expect(wide.slice(3).sort()).toEqual(['TE11', 'TE30', 'TM11']);
    expect(names(emptySection(even(10.16e-3, 9), even(22.86e-3, 18)), 600, 3)).toEqual(['TE10', 'TE20', 'TE01']);
  });
  test('of half a rectangle cut by a plane of symmetry: magnetic ones keep odd indices, electric ones even', () => {
    const walls = ['electric', 'magnetic', 'electric', 'electric'] as const;
    expect(names(emptySection(even(11.43e-3, 9), even(10.16e-3, 9), 1, walls), 600, 1, [true, false])).toEqual(['TE10']);
    expect(names(emptySection(even(11.43e-3, 9), even(10.16e-3, 9)), 600, 1, [true, false])).toEqual(['TE20']);
  });
  test('of a circle by its cutoffs', () => {
    const s = emptySection(even(24e-3, 120, -12e-3), even(24e-3, 120, -12e-3));
    paint(s, (x, y) => Math.hypot(x, y) > 10e-3, 0);
    expect(names(s, 600, 5)).toEqual(['TE11', 'TE11', 'TM01', 'TE21', 'TE21']);
  });
  test('of neither by kind and number', () => {
    const s = emptySection(even(20e-3, 20), even(20e-3, 20));
    paint(s, (x, y) => x > 10e-3 && y > 10e-3, 0);
    expect(names(s, 600, 3)).toEqual(['TE no. 1', 'TE no. 2', 'TM']);
  });
});

describe('lines', () => {
  /** A strip between the walls, below it a board. */
  const line = (board: number): Section => {
    const s = emptySection(even(8e-3, 16), even(4e-3, 16));
    paint(s, (_, y) => y < 1e-3, board);
    paint(s, (x, y) => Math.abs(y - 1e-3) < 1e-6 && Math.abs(x - 4e-3) < 1.1e-3, 0);
    return s;
  };
  test('TEM in one medium, quasi-TEM in several', () => {
    expect(names(line(1), 100, 1)).toEqual(['TEM']);
    expect(names(line(4), 100, 1)).toEqual(['quasi-TEM']);
  });
  test('coupled lines have two of them', () => {
    const s = emptySection(even(8e-3, 16), even(4e-3, 16));
    paint(s, (_, y) => y < 1e-3, 4);
    paint(s, (x, y) => Math.abs(y - 1e-3) < 1e-6 && Math.abs(x - 4e-3) > 0.6e-3 && Math.abs(x - 4e-3) < 2.1e-3, 0);
    expect(names(s, 100, 2)).toEqual(['quasi-TEM no. 1', 'quasi-TEM no. 2']);
  });
});

describe('dielectric guides', () => {
  test('a dielectric on one side of a metal guide is no core', () => {
    const s = emptySection(even(20e-3, 16), even(10e-3, 8));
    paint(s, (x) => x > 12e-3, 4);
    expect(names(s, 400, 1)).toEqual(['TE']);
  });
  test('a round core has HE11 twice, then TE01, HE21 twice and TM01', () => {
    const s = emptySection(even(4e-6, 48, -2e-6), even(4e-6, 48, -2e-6));
    paint(s, (x, y) => Math.hypot(x, y) < 1.02e-6, 2.25);
    const found = names(s, (2 * Math.PI) / 1.55e-6, 6);
    expect(found.slice(0, 2)).toEqual(['HE11', 'HE11']);
    expect(found.slice(2).sort()).toEqual(['HE21', 'HE21', 'TE01', 'TM01']);
  });
  test('a flat core has quasi-TE along its longer side and quasi-TM across', () => {
    const s = emptySection(even(3e-6, 30, -1.5e-6), even(2.4e-6, 24, -1.2e-6), 2.08);
    paint(s, (x, y) => Math.abs(x) < 0.61e-6 && Math.abs(y) < 0.31e-6, 4);
    expect(names(s, (2 * Math.PI) / 1.55e-6, 2)).toEqual(['quasi-TE0', 'quasi-TM0']);
  });
});
