import type { CurvesCard } from '@jadebell/core/document';
import { arraysOf, type Drawing, drawTraces, quantities } from '@jadebell/core/reading';
import { useMemo } from 'react';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { traceStyle } from '../../charts/traces.ts';
import { useProject } from '../../project/store.ts';
import { useDark } from '../../ui/useDark.ts';
import { useFrequency } from '../../lens/useFrequency.ts';
import { type ShownReading, useReadings } from '../../lens/useReadings.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useMixedFigures } from './useFarField.ts';

const noData: [] = [];

/** The curves of a card, with their names and colours. */
export function useDrawing(card: CurvesCard): { drawing: Drawing; traces: PlotTrace[]; readings: ShownReading[]; error?: Error; loading: boolean } {
  const runs = useCardRuns();
  const dark = useDark();
  const data = useProject((s) => s.document?.data) ?? noData;
  const { readings, loading, error } = useReadings(runs, ({ run }) => arraysOf(card, run.meta!));
  const figures = useMixedFigures(
    useMemo(() => runs.map((r) => r.run), [runs]),
    card.traces.some((t) => quantities[t.quantity]?.group === 'antenna'),
  );
  const overParameter = card.over !== 'own' && card.over !== 'wavelength';
  // Only curves over a parameter depend on the frequency: the others are not drawn anew when it moves.
  const looked = useFrequency(overParameter);
  const frequency = overParameter ? looked : null;
  const drawing = useMemo(() => {
    const named = readings.map((r) => ({
      ...r,
      label: r.shown.label,
      figures: figures.get(r.shown.run.id),
      parameter: (name: string) => r.shown.run.parameters.find((g) => g.name === name)?.si ?? null,
    }));
    const at = frequency ?? (named[0] ? (named[0].frequency[named[0].frequency.length >> 1] ?? null) : null);
    return drawTraces(card, named, data, at);
  }, [readings, card, data, frequency, figures]);
  const traces = useMemo(() => {
    const several = runs.length > 1;
    return drawing.drawn.map((d): PlotTrace => {
      const reading = readings[d.run];
      const byRun = d.run >= 0 && several;
      // With one run the traces differ in colour; with several the runs do, and the traces in dashes.
      const style = traceStyle(byRun ? reading.shown.tint : d.run < 0 && drawing.over !== 'parameter' ? d.trace + 5 : d.trace + 1, dark);
      const dash = reading?.bare ? '1 3' : byRun ? (card.traces.length > 1 ? traceStyle(d.trace + 1, dark).dash : style.dash) : style.dash;
      const name = [
        byRun ? reading.shown.label + (reading.shown.differs ? ` (${reading.shown.differs})` : '') : '',
        several && card.traces.length === 1 && byRun ? '' : d.name,
      ]
        .filter(Boolean)
        .join(', ');
      return {
        name: reading?.bare ? `${name} without gaps` : name,
        color: style.color,
        dash,
        x: d.x,
        y: d.y,
        axis: d.axis,
        points: drawing.over === 'parameter' || d.x.length <= 6,
      };
    });
  }, [drawing, readings, runs.length, dark, card.traces.length]);
  return { drawing, traces, readings, error, loading };
}
