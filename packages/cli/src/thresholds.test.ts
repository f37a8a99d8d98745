import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { furthest, movedBy, thresholdsOfCore, told } from './thresholds.ts';

const root = fileURLToPath(new URL('../../..', import.meta.url));

test('each number that solving holds fixed says what it is, and stands in the table of what it matters, with its value', () => {
  const table = readFileSync(join(root, 'docs', 'thresholds.md'), 'utf8').split('\n');
  const all = thresholdsOfCore(root);
  expect(all.length).toBeGreaterThan(80);
  expect(all.filter((t) => t.about.length < 15)).toEqual([]);
  const missing = all.filter((t) => !table.some((line) => line.startsWith(`| ${t.file} | ${t.name} | ${t.value} |`)));
  // npm run thresholds -- missing measures them.
  expect(missing.map((t) => `${t.file} ${t.name}`)).toEqual([]);
});

test('a whole number stays whole and is at least 1; of a ratio just above 1 what it has over 1 is moved', () => {
  expect([movedBy(10, 0.5), movedBy(3, 0.5), movedBy(1, 0.5), movedBy(1, 2)]).toEqual([5, 2, 1, 2]);
  expect([movedBy(1.4, 0.5), movedBy(1.4, 2)]).toEqual([expect.closeTo(1.2, 12), expect.closeTo(1.8, 12)]);
  expect([movedBy(1e-5, 0.5), movedBy(0.3, 2), movedBy(2.4, 2)]).toEqual([5e-6, 0.6, 4.8]);
});

test('of rows the one that moved most is told, and one that is new or has no number beats all', () => {
  const plain = [{ row: 'a', part: 0.2 }, { row: 'b', part: 0.5 }]; // prettier-ignore
  expect(furthest(plain, [{ row: 'a', part: 0.25 }, { row: 'b', part: 0.4 }])).toEqual({ row: 'b', part: expect.closeTo(0.1, 12) }); // prettier-ignore
  expect(furthest(plain, [{ row: 'c', part: 0.1 }, { row: 'a', part: 0.9 }]).part).toBeNaN(); // prettier-ignore
  expect(told(furthest(plain, plain))).toBe('nothing');
  expect(told({ row: 'b', part: 0.134 })).toBe('13 %, b');
  expect(told({ row: 'b', part: NaN })).toBe('no number, b');
});
