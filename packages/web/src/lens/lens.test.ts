/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { readLens, useLens } from './lens.ts';

beforeEach(() => localStorage.clear());

test('the lens is where it was left, project by project', () => {
  useLens.getState().open('p');
  useLens.getState().set({ frequency: 868e6, references: { chip: '50-20j' }, plane: { axis: 1, at: 0.002 } });
  useLens.getState().open('q');
  expect(useLens.getState().frequency).toBeNull();
  useLens.getState().open('p');
  expect(useLens.getState()).toMatchObject({
    frequency: 868e6,
    references: { chip: '50-20j' },
    plane: { axis: 1, at: 0.002 },
    playing: null,
    lost: [],
  });
});

test('of a damaged one what can be read stays, and what cannot is told', () => {
  const { lens, lost } = readLens(JSON.stringify({ frequency: 1e9, gaps: 'some', plane: { axis: 7, at: 0 }, shifts: { a: '3 mm' }, other: 1 }));
  expect(lens).toEqual({ frequency: 1e9 });
  expect(lost).toEqual(['gaps', 'planes of ports', 'plane']);
  for (const text of ['{"run":', '7', 'null']) expect(readLens(text)).toEqual({ lens: {}, lost: ['all of it'] });
  expect(readLens(null)).toEqual({ lens: {}, lost: [] });
  localStorage.setItem('jadebell.lens.r', '{"phase":"half"}');
  useLens.getState().open('r');
  expect(useLens.getState()).toMatchObject({ phase: 0, lost: ['phase'] });
});
