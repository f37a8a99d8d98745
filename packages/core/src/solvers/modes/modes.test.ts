import { describe, expect, test } from '@jest/globals';
import { arnoldi } from '../../numerics/arnoldi.ts';
import { Fronts, type SparseRows } from '../../numerics/fronts.ts';
import { conductorsOf, homogeneousModes } from './homogeneous.ts';
import { modeOperator, shifted, unknownsOf } from './operator.ts';
import { emptySection, type Section } from './section.ts';
import { solveSection } from './solveSection.ts';

const even = (length: number, cells: number): Float64Array => Float64Array.from({ length: cells + 1 }, (_, i) => (length * i) / cells);
const times = (m: SparseRows, x: Float64Array): Float64Array => {
  const y = new Float64Array(x.length);
  for (let r = 0; r < x.length; r++) for (let e = m.start[r]; e < m.start[r + 1]; e++) y[r] += m.re[e] * x[m.column[e]];
  return y;
};
/** Makes a block of nodes metal. */
function fill(s: Section, i0: number, i1: number, j0: number, j1: number): void {
  const w = s.u.length;
  for (let j = j0; j <= j1; j++)
    for (let i = i0; i <= i1; i++) {
      const n = j * w + i;
      s.ew[n] = 0;
      if (i < i1) s.eu[n] = 0;
      if (j < j1) s.ev[n] = 0;
    }
}

describe('direct solution on a grid', () => {
  test.each([
    [7, 5],
    [23, 31],
    [40, 12],
  ])('%d x %d cells: what was multiplied comes back', (nu, nv) => {
    const s = emptySection(even(nu, nu), even(nv, nv), 2.5);
    const unknowns = unknownsOf(s);
    const matrix = modeOperator(s, 0.4, unknowns);
    const re = matrix.re.slice();
    for (let r = 0; r < unknowns.count; r++) for (let e = matrix.start[r]; e < matrix.start[r + 1]; e++) if (matrix.column[e] === r) re[e] -= 1.3;
    const moved = { ...matrix, re };
    const x = Float64Array.from({ length: unknowns.count }, (_, i) => Math.sin(7 * i) + 0.2);
    const y = times(moved, x);
    new Fronts(moved, unknowns.points).solve(y);
    expect(Math.max(...y.map((v, i) => Math.abs(v - x[i])))).toBeLessThan(1e-9);
  });
});

describe('direct solution of a complex system', () => {
  test('what was multiplied comes back, without the compiled kernels', () => {
    const s = emptySection(even(17, 17), even(11, 11), 2.5);
    s.loss = { u: s.eu.map((e) => 0.3 * e), v: s.ev.map((e) => 0.2 * e), w: s.ew.map((e) => 0.1 * e) };
    s.absorb = { thickness: [3, 0, 0, 4], strength: [2, 0, 0, 3] };
    const unknowns = unknownsOf(s);
    const matrix = shifted(modeOperator(s, 0.4, unknowns), 1.3, -0.2);
    const [re, im] = [Math.sin, Math.cos].map((f) => Float64Array.from({ length: unknowns.count }, (_, i) => f(5 * i)));
    const y = new Float64Array(2 * unknowns.count);
    for (let r = 0; r < unknowns.count; r++)
      for (let e = matrix.start[r]; e < matrix.start[r + 1]; e++) {
        const c = matrix.column[e];
        y[2 * r] += matrix.re[e] * re[c] - matrix.im![e] * im[c];
        y[2 * r + 1] += matrix.re[e] * im[c] + matrix.im![e] * re[c];
      }
    new Fronts(matrix, unknowns.points).solve(y);
    for (let i = 0; i < unknowns.count; i++) {
      expect(y[2 * i]).toBeCloseTo(re[i], 8);
      expect(y[2 * i + 1]).toBeCloseTo(im[i], 8);
    }
  });
});

describe('eigenvalues by Arnoldi', () => {
  test('of a complex matrix, nearest to a complex shift', () => {
    const values = [[1, 1], [2, -1], [2.5, 0.2], [4, 4], [7, -2], [9, 0]]; // prettier-ignore
    const [sr, si] = [2, 0];
    const near = arnoldi(6, sr, 2, (x) => values.forEach(([a, b], i) => {
      const [p, q] = [a - sr, b - si];
      const d = p * p + q * q;
      [x[2 * i], x[2 * i + 1]] = [(x[2 * i] * p + x[2 * i + 1] * q) / d, (x[2 * i + 1] * p - x[2 * i] * q) / d];
    }), { complex: true, shiftIm: si }); // prettier-ignore
    expect(near.map((p) => [p.re.toFixed(6), p.im.toFixed(6)])).toEqual([['2.500000', '0.200000'], ['2.000000', '-1.000000']]); // prettier-ignore
  });
  test('those nearest to the shift, a double one twice, and a complex pair', () => {
    const values = [1, 2, 2, 3.5, 7, 9, 11, 14, 20, 30];
    const near = arnoldi(10, 0.5, 4, (x) => x.forEach((v, i) => (x[i] = v / (values[i] - 0.5))));
    expect(near.map((p) => p.re.toFixed(6))).toEqual(['1.000000', '2.000000', '2.000000', '3.500000']);
    // A rotation has the eigenvalues 1 + j and 1 - j.
    const turned = arnoldi(4, 0, 1, (x) => {
      const [a, b] = [x[0], x[1]];
      x[0] = (a + b) / 2;
      x[1] = (b - a) / 2;
      x[2] /= 50;
      x[3] /= 60;
    });
    expect(turned[0].re).toBeCloseTo(1, 9);
    expect(Math.abs(turned[0].im)).toBeCloseTo(1, 9);
    expect(turned[0].vectorIm).not.toBeNull();
  });
});

describe('sections', () => {
  test('the full operator and the potentials agree, above and below cutoff', () => {
    const s = emptySection(even(20e-3, 20), even(8e-3, 8), 2.2);
    const k0 = 260;
    const pure = homogeneousModes(s, 3).map((m) => 2.2 * k0 * k0 - m.kc2);
    const full = solveSection(s, k0, { count: 3, near: 2.25 * k0 * k0 });
    full.forEach((m, i) => expect(m.beta2 / pure[i]).toBeCloseTo(1, 6));
    expect(full[0].kind).toBe('TE');
  });

  test('modes of one cutoff are told apart by the direction of E', () => {
    const [, second, third] = homogeneousModes(emptySection(even(20e-3, 20), even(10e-3, 10)), 3);
    const along = (e: Float64Array): number => e.reduce((t, x) => t + x * x, 0);
    // TE20 first, with E along v; then TE01 with E along u.
    expect(along(second.e.u) / along(second.e.v)).toBeLessThan(1e-6);
    expect(along(third.e.v) / along(third.e.u)).toBeLessThan(1e-6);
  });

  test('fields of different modes are orthogonal in power, and H follows E', () => {
    const s = emptySection(even(20e-3, 16), even(9e-3, 9));
    for (let n = 0; n < s.eu.length; n++)
      if (Math.floor(n / 17) < 4) for (const list of [s.eu, s.ev, s.ew]) if (list[n] > 0) list[n] = 3; // prettier-ignore
    const modes = solveSection(s, 400, { count: 4 });
    const [du, dv] = [20e-3 / 16, 1e-3];
    const cross = (a: number, b: number): number => {
      let sum = 0;
      for (let n = 0; n < s.eu.length; n++) sum += (modes[a].e.u[n] * modes[b].h.v[n] - modes[a].e.v[n] * modes[b].h.u[n]) * du * dv;
      return sum;
    };
    for (let a = 0; a < 4; a++)
      for (let b = 0; b < 4; b++) {
        if (a === b) expect(cross(a, a) / modes[a].flux).toBeCloseTo(1, 6);
        else expect(Math.abs(cross(a, b)) / Math.sqrt(Math.abs(modes[a].flux * modes[b].flux))).toBeLessThan(1e-6);
      }
    expect(modes[0].kind).toBe('hybrid');
  });

  test('each conductor beyond the first adds a TEM mode, with beta = k', () => {
    const s = emptySection(even(24e-3, 24), even(10e-3, 10), 4);
    fill(s, 4, 8, 4, 6);
    fill(s, 14, 18, 4, 6);
    expect(conductorsOf(s).count).toBe(3);
    const modes = solveSection(s, 50, { count: 3 });
    expect(modes.map((m) => m.kind)).toEqual(['TEM', 'TEM', 'TE']);
    expect(modes[0].beta2).toBeCloseTo(4 * 2500, 6);
    // E of a TEM mode over H is the wave impedance of the medium.
    expect(modes[0].flux / Math.sqrt(modes[0].beta2)).toBeCloseTo(2, 6);
  });

  test('parallel plates between magnetic walls: a TEM wave of even field', () => {
    const [mode] = solveSection(emptySection(even(6e-3, 6), even(2e-3, 4), 1, ['magnetic', 'magnetic', 'electric', 'electric']), 100, { count: 1 });
    expect(mode.kind).toBe('TEM');
    const inside = [...mode.e.v].filter((x) => x !== 0);
    expect(Math.max(...inside) / Math.min(...inside)).toBeCloseTo(1, 9);
  });
});
