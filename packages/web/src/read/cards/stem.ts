import { useProject } from '../../project/store.ts';
import type { ShownRun } from '../../lens/shown.ts';

const plain = (text: string): string => text.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-').replaceAll(/^-|-$/g, ''); // prettier-ignore

/** Stem of a card's files: project, run, card. */
export const stemOf = (shown: ShownRun | undefined, title: string): string =>
  [plain(useProject.getState().document?.title ?? 'project'), shown ? `run${shown.run.number}` : '', plain(title)].filter(Boolean).join('-');
