import { createContext, useContext } from 'react';
import { CardContext } from '../charts/CardContext.ts';
import { useLens } from './lens.ts';

/** Index of the recorded frequency that is nearest to one, hertz; of the middle one where none is looked at. */
export function nearestRecorded(recordAt: readonly number[], frequency: number | null): number {
  if (frequency === null) return Math.floor(recordAt.length / 2);
  let best = 0;
  recordAt.forEach((f, i) => {
    if (Math.abs(f - frequency) < Math.abs(recordAt[best] - frequency)) best = i;
  });
  return best;
}

/** The frequency that is looked at while none is chosen: the middle one. */
export const MiddleContext = createContext<number | null>(null);

/** The frequency that a card looks at, hertz: its own if it is pinned, else the lens's; null where there is none. What does not `follow` is not drawn anew as it moves. */
export function useFrequency(follow = true): number | null {
  const own = useContext(CardContext)?.card.pin?.frequency;
  const lens = useLens((s) => (follow ? s.frequency : null));
  const middle = useContext(MiddleContext);
  return own ?? lens ?? middle;
}

/** The phase that a card looks at, radians. */
export function usePhase(): number {
  const own = useContext(CardContext)?.card.pin?.phase;
  const lens = useLens((s) => s.phase);
  return own ?? lens;
}
