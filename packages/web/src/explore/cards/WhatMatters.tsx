import type { StudyInfluence } from '@jadebell/api';
import type { StudyCardOf } from '@jadebell/core/document';
import { writeCsv } from '@jadebell/core/formats/csv';
import { valueText } from '@jadebell/core/reading';
import { LinearProgress } from '@mui/material';
import { useInfluence } from '../../api/hooks.ts';
import { Card } from '../../charts/Card.tsx';
import { type Column, DataTable } from '../../kit/DataTable.tsx';
import { Message } from '../../kit/Message.tsx';
import { download } from '../../ui/download.ts';
import { AxisTools } from './AxisTools.tsx';
import { MeasurePick } from './MeasurePick.tsx';
import type { StudyCardProps } from './registry.tsx';

type Row = NonNullable<StudyInfluence['influence']>['each'][number];

const percent = (share: number): string => `${Math.round(100 * Math.max(0, share))} %`;

const signed = (v: number, unit: string): string => `${v > 0 ? '+' : ''}${valueText(v, unit, 3)}`;

/** A share of the whole as a bar with its figure. */
const Bar = ({ label, share }: { label: string; share: number }) => (
  <span className="row" style={{ gap: 6, justifyContent: 'flex-end' }}>
    <LinearProgress
      variant="determinate"
      aria-label={label}
      value={Math.max(0, Math.min(100, 100 * share))}
      sx={{ width: 40, height: 6, borderRadius: 3 }}
    />
    <span className="mono" style={{ width: 40 }}>
      {percent(share)}
    </span>
  </span>
);

/** Which parameters make a measure what it is: their shares of its variance, and what one per cent of each does. */
export function WhatMatters({ card, data, change, last }: StudyCardProps<StudyCardOf<'influence'>>) {
  const measure = data.measures.find((m) => m.name === card.measure) ?? data.measures[0];
  const { data: found, error } = useInfluence(data.path, measure?.name ?? '', measure ? `${data.done} ${measure.name}` : '');
  const own = found?.influence;
  const unit = own?.unit ?? '';
  const title = card.title ?? `What ${measure?.name ?? 'it'} hangs on`;
  const columns: Column<Row>[] = [
    { title: 'parameter', value: (r) => r.parameter },
    { title: 'by itself', value: (r) => r.first, cell: (r) => <Bar label={`${r.parameter} by itself`} share={r.first} /> },
    { title: 'with others', value: (r) => r.total, cell: (r) => <Bar label={`${r.parameter} with others`} share={r.total} /> },
    {
      title: '1 % more',
      value: (r) => r.percent,
      mono: true,
      cell: (r) => (r.percent === null ? '–' : signed(r.percent, unit)),
    },
    { title: 'a deviation more', value: (r) => r.deviation, mono: true, cell: (r) => signed(r.deviation, unit) },
  ];
  const csv = (): void =>
    download(
      `${data.name}-influence.csv`,
      `parameter,${writeCsv([
        { title: 'first', values: own!.each.map((r) => r.first) },
        { title: 'total', values: own!.each.map((r) => r.total) },
        { title: `for 1 % more (${unit || '1'})`, values: own!.each.map((r) => r.percent ?? NaN) },
        { title: `for one deviation (${unit || '1'})`, values: own!.each.map((r) => r.deviation) },
      ])
        .split('\r\n')
        .map((line, n) => (n && line ? `${own!.each[n - 1].parameter},${line}` : line))
        .join('\r\n')}`,
      'text/csv',
    );
  return (
    <Card
      title={title}
      about={own ? `by ${found.points} points` : undefined}
      file={`${data.name}-influence`}
      exports={own ? [{ label: 'Table (CSV)', act: csv }] : []}
      waiting={!found}
      tools={
        <>
          <MeasurePick {...{ data, measure }} change={(m) => change({ ...card, measure: m })} />
          <AxisTools card={title} title={card.title} setTitle={(t) => change({ ...card, title: t })} sides={none} />
          {last}
        </>
      }
    >
      {error && <Message>{error.message}</Message>}
      {own ? (
        <div className="scroll">
          <DataTable label={title} columns={columns} rows={own.each} keyOf={(r) => r.parameter} />
          <p className="quiet" style={{ padding: '6px 8px' }}>
            Shares of the variance of {measure.name}, each parameter spread as it moves, by itself, by a Gaussian process through the points. It
            foretells a point that it does not know to {valueText(own.error, unit, 2)}; the points themselves spread by{' '}
            {valueText(own.spread, unit, 2)}.
          </p>
        </div>
      ) : (
        <p className="quiet pad">
          {!measure
            ? 'Say above what is read from each point.'
            : found
              ? `${found.points === 1 ? 'One point is' : `${found.points} points are`} too few: three for each parameter and one more are the least.`
              : 'Reckoning …'}
        </p>
      )}
    </Card>
  );
}

const none: readonly never[] = [];
