import type { Accepts } from './chips.ts';

/** What a line makes. */
export type Makes = 'solid' | 'sheet' | 'curve' | 'frame' | 'group';

const fits: Readonly<Record<Accepts, { words: string; takes(made: Makes): boolean }>> = {
  body: { words: 'a solid or a sheet', takes: (m) => m === 'solid' || m === 'sheet' || m === 'group' },
  metal: { words: 'a body of metal', takes: (m) => m === 'solid' || m === 'sheet' },
  solid: { words: 'a solid', takes: (m) => m === 'solid' },
  sheet: { words: 'a sheet', takes: (m) => m === 'sheet' },
  curve: { words: 'a curve', takes: (m) => m === 'curve' },
  frame: { words: 'a frame', takes: (m) => m === 'frame' },
  any: { words: 'an earlier line', takes: () => true },
};

/** Whether a reference may point at what a line makes: the one answer, for the evaluation of a model and for what the interface offers. */
export const referenceFits = (accepts: Accepts, made: Makes): boolean => fits[accepts].takes(made);
/** What a reference wants, in words. */
export const wantedBy = (accepts: Accepts): string => fits[accepts].words;
