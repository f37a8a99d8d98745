import physics from '../../../../docs/physics.md?raw';
import reference from '../../../../docs/reference.md?raw';
import guide from '../../../../docs/user-guide.md?raw';
import { chaptersOf } from './chapters.ts';

/** The guide as it ships with the program. */
export const chapters = [...chaptersOf('user-guide.md', guide), ...chaptersOf('physics.md', physics), ...chaptersOf('reference.md', reference)];
