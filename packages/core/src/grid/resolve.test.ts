import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Asked, isMetal, type LineConstraint, priorityOf } from './constraints.ts';
import { resolveConstraints } from './resolve.ts';

const kinds = ['port', 'sheet plane', 'metal face', 'dielectric face', 'current', 'recorder', 'thin layer'] as const;
const walls = (size = 1): LineConstraint[] => [0, 10].map((at) => ({ at, size, by: 'wall' }));
const asked = (lines: LineConstraint[], limits: Asked['limits'] = []): Asked => ({ lines: [...walls(), ...lines], limits });
const resolve = (lines: LineConstraint[], minCell = 0.1) => resolveConstraints(asked(lines), [0, 10], minCell);
const places = (lines: LineConstraint[], minCell = 0.1): number[] => resolve(lines, minCell).points.map((p) => p.at);

describe('lines that are asked for', () => {
  const line = fc.record({ at: fc.double({ min: 0, max: 10, noNaN: true }), size: fc.double({ min: 0.2, max: 1, noNaN: true }), by: fc.constantFrom(...kinds) }); // prettier-ignore
  test('those that stay are sorted, no closer than the smallest cell, and each that does not is told or stands where one does', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 30 }), (lines) => {
        const { points, dropped } = resolve(lines);
        for (let i = 1; i < points.length; i++) expect(points[i].at - points[i - 1].at).toBeGreaterThanOrEqual(0.0999);
        for (const { at } of lines) expect(points.some((p) => Math.abs(p.at - at) < 1e-6) || dropped.includes(at)).toBe(true);
        expect([points[0].at, points[points.length - 1].at]).toEqual([0, 10]);
      }),
    );
  });

  test('of two that are too close the one that matters more stays, whatever the order', () => {
    fc.assert(
      fc.property(line, line, fc.double({ min: 1, max: 9, noNaN: true }), fc.double({ min: 0.01, max: 0.09, noNaN: true }), (a, b, at, apart) => {
        const [p, q] = [
          { ...a, at },
          { ...b, at: at + apart },
        ];
        if (priorityOf(p) === priorityOf(q) || [p.by, q.by].includes('thin layer')) return;
        const wanted = priorityOf(p) > priorityOf(q) ? p.at : q.at;
        expect(places([p, q])).toEqual([0, wanted, 10]);
        expect(places([q, p])).toEqual([0, wanted, 10]);
      }),
    );
  });

  test('equal ones are one, with the smaller cell; a thin layer never makes a line; what lies outside asks for nothing', () => {
    const { points } = resolve([{ at: 4, size: 0.5, by: 'port' }, { at: 4, size: 0.3, by: 'recorder' }]); // prettier-ignore
    expect(points.map((p) => [p.at, p.size])).toEqual([[0, 1], [4, 0.3], [10, 1]]); // prettier-ignore
    expect(resolve([{ at: 5, size: 1, by: 'thin layer' }])).toMatchObject({ dropped: [5] });
    expect(places([{ at: 12, size: 1, by: 'metal face' }])).toEqual([0, 10]);
  });

  test('the edge of a sheet lies a third within the cell that spans it, on the side of the metal', () => {
    for (const outward of [1, -1] as const) {
      const { points, dropped } = resolve([{ at: 5, size: 0.6, by: 'sheet edge', outward, length: 3 }, { at: 5.1, size: 1, by: 'dielectric face' }]); // prettier-ignore
      const [low, high] = outward > 0 ? [4.8, 5.4] : [4.6, 5.2];
      expect(points.map((p) => p.at)).toEqual([0, expect.closeTo(low, 9), expect.closeTo(high, 9), 10]);
      // One cell spans the edge, and a face of a dielectric within it is met by averaging.
      expect(points.map((p) => !!p.whole)).toEqual([false, true, false, false]);
      expect(dropped).toEqual([5.1]);
    }
  });

  test('a gap between two edges takes its cells from the gap; behind a magnetic wall the image is the next metal', () => {
    const edges = (apart: number): LineConstraint[] => [{ at: 5, size: 1, by: 'sheet edge', outward: 1, length: 1 }, { at: 5 + apart, size: 1, by: 'sheet edge', outward: -1, length: 1 }]; // prettier-ignore
    const spans = (p: { at: number; whole?: boolean }[]): number[] => p.flatMap((x, i) => (x.whole ? [p[i + 1].at - x.at] : []));
    spans(resolve(edges(0.8), 0.01).points).forEach((size) => expect(size).toBeCloseTo(0.375 * 0.8, 9));
    const half = { lines: [{ at: 0, size: 1, by: 'wall' as const, mirror: true }, { at: 10, size: 1, by: 'wall' as const }, { at: 0.4, size: 1, by: 'sheet edge' as const, outward: -1 as const, length: 1 }], limits: [] }; // prettier-ignore
    spans(resolveConstraints(half, [0, 10], 0.01).points).forEach((size) => expect(size).toBeCloseTo(0.375 * 0.8, 9));
  });

  test('an edge at the end of the region, on a face of solid metal, or finer than the smallest cell is no edge', () => {
    const edge = { size: 0.6, by: 'sheet edge', outward: 1, length: 1 } as const;
    expect(places([{ ...edge, at: 10 }])).toEqual([0, 10]);
    expect(places([{ ...edge, at: 5 }, { at: 5, size: 0.6, by: 'metal face' }])).toEqual([0, 5, 10]); // prettier-ignore
    expect(places([{ ...edge, at: 5 }], 0.7)).toEqual([0, 5, 10]);
    expect([...walls(), { at: 1, size: 1, by: 'recorder' as const }].map(isMetal)).toEqual([true, true, false]);
  });
});
