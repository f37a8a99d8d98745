import { beforeAll, describe, expect, test } from '@jest/globals';
import { type FrontKernel, plainKernel, plainProducts, Fronts } from '@jadebell/core/numerics';
import { denseKernel, emptySection, guidedModes, type Section, modeOperator, shifted, unknownsOf } from '@jadebell/core/solvers/modes';
import { productKernel } from '@jadebell/core/solvers';
import { nodeHost } from './index.ts';

let kernel: FrontKernel;
beforeAll(async () => {
  kernel = await denseKernel((await nodeHost(1)).module);
});

const even = (length: number, cells: number): Float64Array => Float64Array.from({ length: cells + 1 }, (_, i) => (length * i) / cells);
/** A section of two media, with losses if asked for. */
function layered(nu: number, nv: number, lossy: boolean): Section {
  const s = emptySection(even(nu, nu), even(nv, nv), 2);
  for (const list of [s.eu, s.ev, s.ew]) for (let n = 0; n < list.length; n++) if (list[n] && n % (nu + 1) > nu / 3) list[n] = 3.5;
  if (lossy) s.loss = { u: s.eu.map((e) => 0.1 * e), v: s.ev.map((e) => 0.1 * e), w: s.ew.map((e) => 0.2 * e) };
  return s;
}

describe('the compiled products', () => {
  test.each([
    [4, 7, 8],
    [13, 1, 4],
    [1, 150, 48],
    [58, 31, 12],
  ])('%d x %d by %d: the same as without compiled code, whatever stood there before', async (m, k, n) => {
    const compiled = await productKernel((await nodeHost(1)).module);
    const [a, b] = [m * k, k * n].map((count, q) => Float64Array.from({ length: count }, (_, i) => Math.sin(7 * i + q)));
    const [x, y] = [compiled, plainProducts].map((kernel) => {
      const c = new Float64Array(m * n).fill(3);
      kernel.multiply(b, a, 1, 1, 4, c);
      kernel.multiply(a, b, m, k, n, c);
      return c;
    });
    const worst = x.reduce((most, v, i) => Math.max(most, Math.abs(v - y[i])), 0);
    expect(worst).toBeLessThan(1e-12 * k);
    expect(x.some((v) => v !== 0)).toBe(true);
  });
});

describe('the compiled direct solver', () => {
  test.each([
    [9, 7, false],
    [33, 18, false],
    [9, 7, true],
    [33, 18, true],
  ])('%d x %d cells, losses %s: the same as without compiled code', (nu, nv, lossy) => {
    const s = layered(nu, nv, lossy);
    const unknowns = unknownsOf(s);
    const matrix = shifted(modeOperator(s, 0.3, unknowns), 0.9, lossy ? -0.1 : 0);
    const right = Float64Array.from({ length: (lossy ? 2 : 1) * unknowns.count }, (_, i) => Math.sin(3 * i) + 0.1);
    const [a, b] = [kernel, plainKernel].map((k) => {
      const x = right.slice();
      new Fronts(matrix, unknowns.points, k).solve(x);
      return x;
    });
    const size = Math.max(...b.map(Math.abs));
    a.forEach((v, i) => expect(Math.abs(v - b[i]) / size).toBeLessThan(1e-10));
  });

  test('factors that a later matrix overwrote are refused, not used', () => {
    const s = layered(9, 7, false);
    const unknowns = unknownsOf(s);
    const matrix = shifted(modeOperator(s, 0.3, unknowns), 0.9);
    const first = new Fronts(matrix, unknowns.points, kernel);
    new Fronts(matrix, unknowns.points, kernel);
    expect(() => first.solve(new Float64Array(unknowns.count))).toThrow('overwritten');
  });

  test('modes are the same, also complex ones', () => {
    for (const lossy of [false, true]) {
      const s = layered(24, 16, lossy);
      const [a, b] = [kernel, plainKernel].map((k) => guidedModes(s, 0.5, { count: 3, kernel: k }));
      a.forEach((m, i) => {
        expect(m.beta[0]).toBeCloseTo(b[i].beta[0], 8);
        expect(m.beta[1]).toBeCloseTo(b[i].beta[1], 8);
        expect(m.power[0]).toBeCloseTo(b[i].power[0], 6);
      });
      if (lossy) expect(a[0].beta[1]).toBeLessThan(-1e-3);
    }
  });
});
