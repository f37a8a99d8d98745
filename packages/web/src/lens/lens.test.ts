/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { emptyProject } from '@jadebell/core/document';
import { useProject } from '../project/store.ts';
import { freshName, withCombination, withWave } from './combinations.ts';
import { readLens, useLens } from './lens.ts';

beforeEach(() => localStorage.clear());

test('the lens is where it was left, project by project', () => {
  useProject.setState({ id: 'p', document: emptyProject('p') });
  useLens.getState().open('p');
  useLens.getState().set({ frequency: 868e6, references: { chip: '50-20j' }, plane: { axis: 1, at: 0.002 } });
  useLens.getState().open('q');
  expect(useLens.getState()).toMatchObject({ frequency: null, references: {} });
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

test('what is looked at is kept with the project: it comes with it and goes back with undo', () => {
  const { set, open } = useLens.getState();
  useProject.setState({ id: 's', document: emptyProject('t'), past: [], future: [] });
  open('s');
  useProject.getState().edit('note', (d) => ({ ...d, note: 'n' }));
  set({ frequency: 2e9, references: { '': '75' } });
  expect(useProject.getState().document!.lens).toMatchObject({ references: { '': '75' }, combinations: [] });
  expect(localStorage.getItem('jadebell.lens.s')).not.toContain('75');
  set({ beside: [{ id: 'r', project: 's' }] });
  useProject.getState().undo();
  expect(useLens.getState()).toMatchObject({ beside: [], references: {}, frequency: 2e9 });
  useProject.getState().redo();
  expect(useLens.getState()).toMatchObject({ beside: [{ id: 'r' }], references: { '': '75' } });
  // Another person’s browser knows nothing of it.
  localStorage.clear();
  open('t');
  open('s');
  expect(useLens.getState()).toMatchObject({ references: { '': '75' }, frequency: null });
  // Of a project that says nothing yet, what this browser kept stands until something is changed.
  localStorage.setItem('jadebell.lens.u', '{"references":{"chip":"25"}}');
  useProject.setState({ id: 'u', document: null });
  open('u');
  useProject.setState({ document: emptyProject('u') });
  expect(useLens.getState().references).toEqual({ chip: '25' });
});

test('combinations of waves have names of their own', () => {
  const one = { name: 'together', waves: [{ channel: 'a', amplitude: 1, phase: 0 }] };
  expect(freshName([], ['a'])).toBe('together');
  expect(freshName([one], ['a', 'together 2'])).toBe('together 3');
  expect(withWave(one.waves, ['b', 'a'], 'b', { amplitude: 2 })).toEqual([{ channel: 'b', amplitude: 2, phase: 0 }, one.waves[0]]);
  expect(withWave(one.waves, ['b', 'a'], 'a', { amplitude: 0 })).toEqual([]);
  expect(withCombination([one], { ...one, name: 'even' }, 'together').map((c) => c.name)).toEqual(['even']);
  expect(withCombination([one], { ...one, name: 'odd' }).map((c) => c.name)).toEqual(['together', 'odd']);
});
