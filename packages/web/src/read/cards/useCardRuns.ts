import { useContext, useMemo } from 'react';
import { CardContext } from '../../charts/CardContext.ts';
import type { ShownRun } from '../../lens/shown.ts';
import { useShown } from '../../lens/useShown.ts';
import { PinnableContext } from '../../lens/pinnable.ts';
import { shownRuns } from '../../lens/shown.ts';

/** The runs that a card shows: those of the lens, or its own if it is pinned to one. */
export function useCardRuns(): readonly ShownRun[] {
  const shown = useShown();
  const all = useContext(PinnableContext);
  const pinned = useContext(CardContext)?.card.pin?.run;
  return useMemo(() => {
    const own = pinned === undefined ? undefined : all.find((r) => r.number === pinned);
    return own ? shownRuns([{ run: own, title: '' }]) : shown;
  }, [shown, all, pinned]);
}
