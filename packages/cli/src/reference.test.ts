import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { reference } from './reference.ts';

/** Words alone: the file is formatted after it is made. */
const words = (text: string): string[] => text.replaceAll(/[\s|\-\\]+/g, ' ').split(' ').filter(Boolean); // prettier-ignore

test('docs/reference.md says what the definitions say; npm run reference writes it', () => {
  expect(words(readFileSync(new URL('../../../docs/reference.md', import.meta.url), 'utf8'))).toEqual(words(reference()));
});
