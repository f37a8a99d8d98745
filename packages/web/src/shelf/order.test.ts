import { expect, test } from '@jest/globals';
import type { ProjectSummary } from '../api/types.ts';
import { onShelf } from './order.ts';

const project = (title: string, updatedAt: string, runs: number, more: Partial<ProjectSummary> = {}): ProjectSummary => ({ id: title, title, updatedAt, runs, revision: 1, folder: '', ...more }); // prettier-ignore
const shelf = [
  project('Tag 10', '2026-01-03', 1),
  project('Tag 9', '2026-01-01', 5, { note: 'bent arms of copper' }),
  project('Horn', '2026-01-02', 0, { folder: 'Gauge' }),
  project('Guide', '2026-01-04', 2, { folder: 'Gauge' }),
];
const titles = (search: string, order: Parameters<typeof onShelf>[2]): string[][] =>
  onShelf(shelf, search, order).map((f) => [f.folder, ...f.projects.map((p) => p.title)]);

test('the shelf stands in its order, folder by folder, those in none first', () => {
  expect(titles('', 'changed')).toEqual([['', 'Tag 10', 'Tag 9'], ['Gauge', 'Guide', 'Horn']]); // prettier-ignore
  expect(titles('', 'title')).toEqual([['', 'Tag 9', 'Tag 10'], ['Gauge', 'Guide', 'Horn']]); // prettier-ignore
  expect(titles('', 'runs')[0]).toEqual(['', 'Tag 9', 'Tag 10']);
});
test('all words of a search have to be there, in title, note or folder', () => {
  expect(titles('COPPER tag', 'changed')).toEqual([['', 'Tag 9']]);
  expect(titles('gauge', 'title')).toEqual([['Gauge', 'Guide', 'Horn']]);
  expect(titles('copper horn', 'title')).toEqual([]);
});
