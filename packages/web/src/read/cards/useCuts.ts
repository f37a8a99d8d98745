import type { CutCard as CutCardData } from '@jadebell/core/document';
import { frameOfCard, pathOf, patternTitle, readCut } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { traceStyle } from '../../charts/traces.ts';
import { useDark } from '../../ui/useDark.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useFarFields } from './useFarField.ts';

/** Places of a whole turn at which a cut is read. */
export const cutPoints = 720;

/** Far fields of the shown runs along the path of a card: one cut for each run and part; null until they are there. */
export function useCuts(card: CutCardData) {
  const dark = useDark();
  const runs = useCardRuns();
  const { fars, error } = useFarFields(useMemo(() => runs.map((r) => r.run), [runs]));
  const cuts = useMemo(() => {
    if (!fars) return null;
    const frame = frameOfCard(card.frame);
    const parts = [card.part, ...(card.also && card.also !== card.part ? [card.also] : [])];
    return fars.flatMap(({ run, source, sampler }) => {
      const shown = runs.find((r) => r.run.id === run.id);
      if (!shown) return [];
      return parts.map((part, k) => {
        const reading = { quantity: card.quantity, part, reference: card.reference };
        const { values, figures } = readCut(source, sampler, pathOf(card, run.meta!), frame, reading, cutPoints);
        const title = patternTitle(source, reading);
        const shift = card.normalised && figures ? figures.peak : 0;
        const style = traceStyle(runs.length > 1 ? shown.tint : k + 1, dark);
        return {
          shown,
          source,
          title,
          part,
          figures,
          values: shift ? values.map((v) => v - shift) : values,
          name: [runs.length > 1 ? shown.label : '', parts.length > 1 || runs.length === 1 ? title.label : ''].filter(Boolean).join(', '),
          color: style.color,
          dash: runs.length > 1 && k ? '5 3' : style.dash,
        };
      });
    });
  }, [fars, card, runs, dark]);
  return { runs, cuts, error };
}

/** One line of a cut. */
export type ReadCut = NonNullable<ReturnType<typeof useCuts>['cuts']>[number];
