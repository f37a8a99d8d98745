import { expect, test } from '@jest/globals';
import type { StudyRow } from '../study/useStudyData.ts';
import { equalLines } from './MapCells.tsx';
import { cellEnds, cellOf, type Grid, gridOf, shareOf, spanOf } from './shares.ts';

const rows = (points: readonly [x: number, y: number, value: number][]): StudyRow[] =>
  points.map(([x, y, value], at) => ({
    values: { x, y },
    digest: String(at),
    run: null,
    at,
    reads: new Map([['m', { name: 'm', value, unit: '' }]]),
  }));
const grid = (of: (i: number, j: number) => number, nx: number, ny: number): Grid =>
  gridOf(
    rows(Array.from({ length: nx * ny }, (_, n) => [n % nx, Math.floor(n / nx), of(n % nx, Math.floor(n / nx))])),
    'x',
    'y',
    (r) => r.reads.get('m')!.value!,
  );

test('points make a grid in the order of their values, with holes where there is none', () => {
  const { xs, ys, values, rows: of } = gridOf(rows([[2, 5, 7], [1, 4, 8], [2, 4, 9]]), 'x', 'y', (r) => r.reads.get('m')!.value!); // prettier-ignore
  expect([xs, ys]).toEqual([[1, 2], [4, 5]]); // prettier-ignore
  expect(Array.from(values)).toEqual([8, 9, NaN, 7]);
  expect(of.map((r) => r?.digest ?? null)).toEqual(['1', '2', null, '0']);
  // Points without a figure keep their places.
  const part = grid((i, j) => (i === 1 && j === 1 ? 5 : NaN), 3, 3);
  expect([part.xs, part.ys]).toEqual([[0, 1, 2], [0, 1, 2]]); // prettier-ignore
  expect(Array.from(part.values).filter(Number.isFinite)).toEqual([5]);
  expect(cellEnds([1, 2, 4])).toEqual([0.5, 1.5, 3, 5]);
  expect(cellOf([0.5, 1.5, 3, 5], 2.9)).toBe(1);
  expect([cellOf([0, 1], -1), cellOf([0, 1], 2)]).toEqual([-1, -1]);
  expect([shareOf(3, spanOf([1, NaN, 5])), shareOf(3, [3, 3])]).toEqual([0.5, 0.5]);
});

test('lines of equal values go where the values are between those of the cells, up to the border and not along it', () => {
  // A slope along x: lines across it.
  const slope = equalLines(grid((i) => i, 4, 3), [0, 3], 3); // prettier-ignore
  for (const line of slope) {
    const level = line[0][0];
    expect(line.every(([x]) => Math.abs(x - level) < 1e-9)).toBe(true);
    const ends = line.map(([, y]) => y);
    expect([Math.min(...ends) <= 0, Math.max(...ends) >= 2]).toEqual([true, true]);
  }
  // A high corner: lines cut it off from one side to the other.
  const corner = equalLines(grid((i, j) => (i === 3 && j === 3 ? 8 : 0), 4, 4), [0, 8], 4); // prettier-ignore
  expect(corner.length).toBeGreaterThan(2);
  for (const line of corner) {
    const inside = line.filter(([x, y]) => x <= 3 && y <= 3);
    expect(inside.length).toBeGreaterThan(1);
    expect(inside.every(([x, y]) => x > 2 && y > 2)).toBe(true);
  }
  expect(equalLines(grid((i) => (i ? i : NaN), 3, 3), [0, 2], 4)).toEqual([]); // prettier-ignore
  expect(equalLines(grid((i) => i, 3, 3), [0, 2], 0)).toEqual([]); // prettier-ignore
});
