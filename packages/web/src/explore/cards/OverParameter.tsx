import { isSpread, type StudyCardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { writeCsv } from '@jadebell/core/formats/csv';
import { axisUnits, valueText } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import { PlotCursor } from '../../charts/plot/Marks.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { traceStyle } from '../../charts/traces.ts';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { figure, figureAxis, movedOf, parameterAxis, restText, unitsOfParameter } from '../study/figures.ts';
import type { PointsData, StudyRow } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import type { StudyCardProps } from './registry.tsx';

/** A line of a measure over a parameter, with the points that it goes through. */
interface Family {
  measure: string;
  rest: string;
  rows: StudyRow[];
}

/** Points of which all but one parameter agree, in the order of that one; where points are spread they are one cloud. */
function families(data: PointsData, over: string, measures: readonly string[]): Family[] {
  const solved = data.rows.filter((r) => r.run?.state === 'done');
  const lines = new Map<string, StudyRow[]>();
  for (const row of solved) {
    const rest = data.together === 'all' ? restText(row, data, [over]) : '';
    lines.set(rest, [...(lines.get(rest) ?? []), row]);
  }
  return measures.flatMap((measure) =>
    [...lines].map(([rest, rows]) => ({
      measure,
      rest,
      rows: rows.filter((r) => Number.isFinite(figure(r, measure))).sort((a, b) => a.values[over] - b.values[over]),
    })),
  );
}

/** One or several measures over a parameter; a line for each value of the others. */
export function OverParameter({ card, data, picked, pick, change, last }: StudyCardProps<StudyCardOf<'over'>>) {
  const dark = useDark();
  const over = movedOf(data, card.over, -1);
  const known = card.measures.filter((name) => data.measures.some((m) => m.name === name));
  const shown = known.length ? known : data.measures.slice(0, 1).map((m) => m.name);
  const key = shown.join();
  const lines = useMemo(() => (over ? families(data, over.parameter, key ? key.split(',') : []) : []), [data, over, key]);
  const traces = useMemo(
    () =>
      lines.map(({ measure, rest, rows }, n): PlotTrace => ({
        name: [shown.length > 1 || !rest ? measure : '', rest].filter(Boolean).join(', '),
        ...traceStyle(n + 1, dark),
        x: rows.map((r) => r.values[over!.parameter]),
        y: rows.map((r) => figure(r, measure)),
        axis: 'left',
        points: true,
        loose: isSpread(data.together),
      })),
    [lines, dark, shown.length, over, data.together],
  );
  if (!over) return null;
  const units = new Set(shown.map((name) => data.measures.find((m) => m.name === name)?.unit ?? ''));
  const unit = units.size === 1 ? [...units][0] : '';
  const title = card.title ?? `${shown.join(', ') || 'Measures'} over ${over.parameter}`;
  const x = parameterAxis(card.x, over.parameter, over.measure, traces.flatMap((t) => Array.from(t.x))); // prettier-ignore
  const y = figureAxis(card.y, units.size === 1 ? shown.join(', ') : 'value', unit, traces.flatMap((t) => Array.from(t.y))); // prettier-ignore
  const rowAt = (trace: PlotTrace, at: number): StudyRow | undefined =>
    lines[traces.indexOf(trace)]?.rows.find((r) => r.values[over.parameter] === at);
  const at = data.rows.find((r) => r.digest === picked)?.values[over.parameter];
  const csv = (): void => {
    const rows = data.rows.filter((r) => r.run?.state === 'done');
    const columns = [
      ...data.moved.map((m) => ({ title: m.parameter, values: rows.map((r) => r.values[m.parameter]) })),
      ...shown.map((name) => ({ title: name, values: rows.map((r) => figure(r, name)) })),
    ];
    download(`${data.name}-${over.parameter}.csv`, writeCsv(columns), 'text/csv');
  };
  return (
    <Card
      title={title}
      file={`${data.name}-over`}
      exports={[{ label: 'Points (CSV)', act: csv }]}
      tools={
        <>
          <MeasureChoice {...{ data, shown }} change={(measures) => change({ ...card, measures })} />
          {data.moved.length > 1 && (
            <Choice
              look="tool"
              label="Over which parameter"
              value={over.parameter}
              shows={`over ${over.parameter}`}
              options={plainOptions(data.moved.map((m) => m.parameter))}
              onChange={(p) => change({ ...card, over: p })}
            />
          )}
          <AxisTools
            card={title}
            title={card.title}
            setTitle={(t) => change({ ...card, title: t })}
            sides={[
              { word: 'across', settings: card.x, size: x.size, units: unitsOfParameter(over.measure), change: (s) => change({ ...card, x: s }) },
              { word: 'up', settings: card.y, size: y.size, units: axisUnits(unit), change: (s) => change({ ...card, y: s }) },
            ]}
          />
          {last}
        </>
      }
    >
      {traces.some((t) => t.x.length) ? (
        <Plot
          label={title}
          x={x}
          left={y}
          traces={traces}
          tell={(t, _, v) => valueText(v, data.measures.find((m) => m.name === lines[traces.indexOf(t)]?.measure)?.unit ?? '')}
          tellX={(v) => formatSI(v, over.measure)}
          onPick={(t, v) => pick(rowAt(t, v)?.digest ?? null)}
          onZoom={(range) => change({ ...card, x: { ...card.x, min: range?.min, max: range?.max } })}
        >
          {at !== undefined && <PlotCursor x={at} />}
        </Plot>
      ) : (
        <p className="quiet pad">{data.measures.length ? 'No point has this figure yet.' : 'Say above what is read from each point.'}</p>
      )}
    </Card>
  );
}

/** Which measures are drawn: one, or all that share a unit with it. */
function MeasureChoice({ data, shown, change }: { data: PointsData; shown: readonly string[]; change(measures: string[]): void }) {
  if (data.measures.length < 2) return null;
  const own = data.measures.find((m) => m.name === shown[0]);
  const alike = data.measures.filter((m) => m.unit === own?.unit).map((m) => m.name);
  const together = alike.length > 1 ? [{ value: alike.join(), label: alike.join(', ') }] : [];
  return (
    <Choice
      look="tool"
      label="Measures shown"
      value={shown.join()}
      options={[...plainOptions(data.measures.map((m) => m.name)), ...together]}
      onChange={(v) => change(v.split(','))}
    />
  );
}
