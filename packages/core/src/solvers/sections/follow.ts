import type { GuidedMode, Section } from '../modes/index.ts';
import { overlap } from './solveModes.ts';

/**
 * Puts the modes of one frequency in the order of those of another, so that a mode keeps its number: the pairs of largest overlap
 * first. Gives for each old mode the place of its follower, or -1 where none has more than `least` in common with it.
 */
export function followers(section: Section, before: readonly GuidedMode[], after: readonly GuidedMode[], least = 0.3): number[] {
  const pairs = before.flatMap((a, i) => after.map((b, j) => ({ i, j, share: overlap(section, a, b) }))).sort((p, q) => q.share - p.share);
  const out = before.map(() => -1);
  const taken = new Set<number>();
  for (const { i, j, share } of pairs) {
    if (share < least || out[i] >= 0 || taken.has(j)) continue;
    out[i] = j;
    taken.add(j);
  }
  return out;
}
