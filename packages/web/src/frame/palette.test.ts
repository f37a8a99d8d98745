import { expect, test } from '@jest/globals';
import { found } from './Palette.tsx';

test('the palette finds words at the beginning of words first', () => {
  const titles = (text: string): string[] =>
    found([{ title: 'Add imported body: a body from a file' }, { title: 'Add port across a gap' }, { title: 'Run' }], text).map((c) => c.title);
  expect(titles('add port')).toEqual(['Add port across a gap', 'Add imported body: a body from a file']);
  expect(titles('')).toHaveLength(3);
  expect(titles('nothing')).toEqual([]);
});
