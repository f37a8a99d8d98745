// oxlint-disable-next-line no-restricted-imports -- the test runs in Node and reads what is shipped
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { stages } from '../ui/stages.ts';
import { chaptersOf, documents, search } from './chapters.ts';

const read = (file: string): string => readFileSync(new URL(`../../../../docs/${file}`, import.meta.url), 'utf8');
const chapters = Object.keys(documents).flatMap((file) => chaptersOf(file, read(file)));

test('documents are cut at headings, not in code; pictures, which are not shipped, are left out', () => {
  const cut = chaptersOf('a.md', '# A\n\none\n\n## B\n\n```\n# no heading\n```\n![picture](b.png)\ntwo\n');
  expect(cut.map((c) => [c.title, c.level])).toEqual([['A', 1], ['B', 2]]); // prettier-ignore
  expect(cut[1].text).toContain('# no heading');
  expect(cut[1].text).not.toContain('picture');
});
test('every stage has its page', () => {
  for (const { title } of stages) expect(chapters.find((c) => c.file === 'user-guide.md' && c.title === title)?.text.length).toBeGreaterThan(100);
});
test('all words have to be there; those whose title has them come first, with the words around', () => {
  const found = search(chapters, 'Design FUNCTIONS');
  expect(found.length).toBeGreaterThan(2);
  expect(found.every(({ chapter }) => /design/i.test(chapter.title + chapter.text))).toBe(true);
  expect(found[0].chapter.title.toLowerCase()).toMatch(/design|functions/);
  const [first] = search(chaptersOf('a.md', `# A\n${'x '.repeat(100)}**needle** y`), 'needle');
  expect(first.piece).toMatch(/^….*needle y$/);
  expect(search(chapters, 'no such words here at all')).toEqual([]);
  expect(search(chapters, '  ')).toEqual([]);
});
