import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gridLines, maxRatio } from './lines.ts';

const ratios = (x: Float64Array): number => {
  let worst = 1;
  for (let i = 2; i < x.length; i++) {
    const r = (x[i] - x[i - 1]) / (x[i - 1] - x[i - 2]);
    worst = Math.max(worst, r, 1 / r);
  }
  return worst;
};

describe('grid lines', () => {
  test('hold every hard point, obey the ratio and the limits, for any points', () => {
    const point = fc.record({ at: fc.integer({ min: 0, max: 1000 }), size: fc.integer({ min: 2, max: 60 }) });
    fc.assert(
      fc.property(fc.uniqueArray(point, { minLength: 2, maxLength: 8, selector: (p) => p.at }), fc.integer({ min: 5, max: 80 }), (raw, limit) => {
        const points = raw.sort((a, b) => a.at - b.at);
        const x = gridLines(points, [{ from: points[0].at, to: points.at(-1)!.at, size: limit }]);
        for (const p of points) expect(Math.min(...Array.from(x, (v) => Math.abs(v - p.at)))).toBeLessThan(1e-9);
        for (let i = 1; i < x.length; i++) expect(x[i] - x[i - 1]).toBeGreaterThan(0);
        for (let i = 1; i < x.length; i++) expect(x[i] - x[i - 1]).toBeLessThanOrEqual(limit * (1 + 1e-6));
        expect(ratios(x)).toBeLessThanOrEqual(maxRatio * (1 + 1e-6));
      }),
      { numRuns: 200 },
    );
  });

  test('are uniform where one size is asked for', () => {
    const x = gridLines([{ at: 0, size: 1 }, { at: 10, size: 1 }], [{ from: 0, to: 10, size: 1 }]); // prettier-ignore
    expect(x).toHaveLength(11);
    expect(ratios(x)).toBeCloseTo(1, 9);
  });
});
