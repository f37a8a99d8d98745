import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { thresholdsOfCore } from './thresholds.ts';

const root = fileURLToPath(new URL('../../..', import.meta.url));

test('each number that solving holds fixed says what it is, and stands in the table of what it matters, with its value', () => {
  const table = readFileSync(join(root, 'docs', 'thresholds.md'), 'utf8').split('\n');
  const all = thresholdsOfCore(root);
  expect(all.length).toBeGreaterThan(80);
  expect(all.filter((t) => t.about.length < 15)).toEqual([]);
  const missing = all.filter((t) => !table.some((line) => line.startsWith(`| ${t.file} | ${t.name} | ${t.value} |`)));
  // npm run thresholds -- <a part of the file's or the number's name> measures what is missing.
  expect(missing.map((t) => `${t.file} ${t.name}`)).toEqual([]);
});
