import type { CurvesCard } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { useDrawing } from '../cards/useDrawing.ts';
import { Axes } from './curves/Axes.tsx';
import { Curves } from './curves/Curves.tsx';
import { Figures } from './curves/Figures.tsx';
import { Limits } from './curves/Limits.tsx';
import { Markers } from './curves/Markers.tsx';
import { Notes } from './curves/Notes.tsx';

interface Props {
  card: CurvesCard;
  meta: ResultMeta;
  change(next: Partial<CurvesCard>): void;
}

/** What a card of curves shows: traces, axes, markers, limits, bandwidth, statistics, notes. */
export function CurvesSettings({ card, meta, change }: Props) {
  const { drawing } = useDrawing(card);
  const given = { card, drawing, change };
  return (
    <>
      <Curves {...given} meta={meta} />
      <Axes {...given} />
      <Markers {...given} />
      <Limits {...given} />
      <Figures {...given} />
      <Notes {...given} />
    </>
  );
}
