import type { StudyCardOf } from '@jadebell/core/document';
import { writeCsv } from '@jadebell/core/formats/csv';
import { axisUnits, valueText } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { traceStyle } from '../../charts/traces.ts';
import { Message } from '../../kit/Message.tsx';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { figureAxis } from '../study/figures.ts';
import { AxisTools } from './AxisTools.tsx';
import { MeasurePick } from './MeasurePick.tsx';
import type { StudyCardProps } from './registry.tsx';
import { TooFew } from './TooFew.tsx';
import { useStudyTolerance } from './useStudyTolerance.ts';

/** How a measure is spread over all that may come, as a histogram; what breaks a goal is shaded. */
export function Spread({ card, data, change, last }: StudyCardProps<StudyCardOf<'histogram'>>) {
  const dark = useDark();
  const measure = data.measures.find((m) => m.name === card.measure) ?? data.measures[0];
  const { data: found, error } = useStudyTolerance(data);
  const figure = found?.figures.find((f) => f.measure === measure?.name);
  const spread = figure?.spread ?? null;
  const unit = figure?.unit ?? '';
  const steps = useMemo((): PlotTrace | null => {
    if (!spread) return null;
    const { from, to, shares } = spread.bars;
    const edge = (i: number): number => from + ((to - from) * i) / shares.length;
    // Each bar is as high between its edges as it is; the outline falls to nothing at both ends.
    return {
      name: measure?.name ?? '',
      ...traceStyle(1, dark),
      x: [from, ...shares.flatMap((_, i) => [edge(i), edge(i + 1)]), to],
      y: [0, ...shares.flatMap((s) => [100 * s, 100 * s]), 0],
      axis: 'left',
    };
  }, [spread, dark, measure?.name]);
  const title = card.title ?? `Spread of ${measure?.name ?? 'a measure'}`;
  const x = figureAxis(card.x, measure?.name ?? '', unit, steps ? Array.from(steps.x) : []);
  const goals = (found?.goals ?? []).filter((g) => g.measure === measure?.name);
  const broken = goals.flatMap((g) => [
    ...(g.low === null || !spread || g.low <= spread.bars.from ? [] : [{ from: spread.bars.from, to: Math.min(g.low, spread.bars.to) }]),
    ...(g.high === null || !spread || g.high >= spread.bars.to ? [] : [{ from: Math.max(g.high, spread.bars.from), to: spread.bars.to }]),
  ]);
  const shareAt = (v: number): string => {
    const { from, to, shares } = spread!.bars;
    const i = Math.min(shares.length - 1, Math.max(0, Math.floor(((v - from) / (to - from || 1)) * shares.length)));
    return `${(100 * shares[i]).toFixed(1)} %`;
  };
  const csv = (): void => {
    const { from, to, shares } = spread!.bars;
    const wide = (to - from) / shares.length;
    download(
      `${data.name}-spread.csv`,
      writeCsv([
        { title: `from (${unit || '1'})`, values: shares.map((_, i) => from + i * wide) },
        { title: `to (${unit || '1'})`, values: shares.map((_, i) => from + (i + 1) * wide) },
        { title: 'share', values: shares },
      ]),
      'text/csv',
    );
  };
  return (
    <Card
      title={title}
      about={spread ? `${valueText(spread.mean, unit)} ± ${valueText(spread.deviation, unit, 2)}` : undefined}
      file={`${data.name}-spread`}
      exports={spread ? [{ label: 'Table (CSV)', act: csv }] : []}
      waiting={!found}
      tools={
        <>
          <MeasurePick {...{ data, measure }} change={(m) => change({ ...card, measure: m })} />
          <AxisTools
            card={title}
            title={card.title}
            setTitle={(t) => change({ ...card, title: t })}
            sides={[{ word: 'across', settings: card.x, size: x.size, units: axisUnits(unit), change: (s) => change({ ...card, x: s }) }]}
          />
          {last}
        </>
      }
    >
      {error && <Message>{error.message}</Message>}
      {steps ? (
        <Plot
          label={title}
          x={x}
          left={{ label: 'of all (%)', min: 0, size: 1 }}
          traces={[steps]}
          ribbon={Array.from(steps.x, (v, i) => ({ x: v, sides: [0, steps.y[i]] as [number, number] }))}
          bands={broken}
          tell={(_, v) => shareAt(v)}
          tellX={(v) => valueText(v, unit)}
        />
      ) : (
        <TooFew {...{ data, measure, figure, waiting: !found && !error }} />
      )}
    </Card>
  );
}
