import type { StudyCardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { writeCsv } from '@jadebell/core/formats/csv';
import { Link } from 'react-router';
import { Card } from '../../charts/Card.tsx';
import { type Column, DataTable } from '../../kit/DataTable.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { useState } from 'react';
import { download } from '../../ui/download.ts';
import { figure, readText } from '../study/figures.ts';
import { order } from '../study/figures.ts';
import type { StudyRow } from '../study/useStudyData.ts';
import type { StudyCardProps } from './registry.tsx';

const words: Record<NonNullable<StudyRow['run']>['state'], string> = {
  queued: 'waits',
  running: 'under way',
  done: 'solved',
  stopped: 'stopped',
  failed: 'failed',
  interrupted: 'interrupted',
};

/** Rows that are drawn unless all are asked for. */
const few = 200;

/** All points with their values, figures and runs. */
export function PointTable({ card, data, picked, pick, last }: StudyCardProps<StudyCardOf<'table'>>) {
  const [all, setAll] = useState(false);
  const columns: Column<StudyRow>[] = [
    // Of a search the order of trying is among its values.
    ...(data.moved[0]?.parameter === order ? [] : [{ title: 'point', value: (r: StudyRow) => r.at + 1 }]),
    ...data.moved.map((m) => ({
      title: m.parameter,
      value: (r: StudyRow) => r.values[m.parameter],
      mono: true,
      cell: (r: StudyRow) => formatSI(r.values[m.parameter], m.measure),
    })),
    ...data.measures.map((m) => ({
      title: m.name,
      value: (r: StudyRow) => figure(r, m.name),
      mono: true,
      cell: (r: StudyRow) => {
        const read = r.reads.get(m.name);
        return <span title={read?.why}>{readText(read)}</span>;
      },
    })),
    {
      title: 'run',
      value: (r) => r.run?.state,
      cell: ({ run }) =>
        run?.state === 'done' ? (
          <Link to={`/project/${run.projectId}/read?run=${run.id}`}>run {run.number}</Link>
        ) : (
          <span className={run?.state === 'failed' ? 'bad' : 'quiet'}>{run ? words[run.state] : 'not solved'}</span>
        ),
    },
  ];
  const rows = all ? data.rows : data.rows.slice(0, few);
  const csv = (): void =>
    download(
      `${data.name}.csv`,
      writeCsv([
        ...data.moved.map((m) => ({ title: `${m.parameter} (SI)`, values: data.rows.map((r) => r.values[m.parameter]) })),
        ...data.measures.map((m) => ({ title: m.unit ? `${m.name} (${m.unit})` : m.name, values: data.rows.map((r) => figure(r, m.name)) })),
      ]),
      'text/csv',
    );
  return (
    <Card title={card.title ?? 'Points'} file={`${data.name}-points`} exports={[{ label: 'Table (CSV)', act: csv }]} tools={last}>
      <div className="scroll">
        <DataTable
          label="Points of the study"
          columns={columns}
          rows={rows}
          keyOf={(r) => r.at}
          rowProps={(r) => ({
            onClick: () => pick(r.digest),
            'aria-selected': r.digest === picked,
            className: r.digest === picked ? 'chosen' : undefined,
          })}
        />
        {data.rows.length > rows.length && <Tool onClick={() => setAll(true)}>Show all {data.rows.length.toLocaleString('en')}</Tool>}
      </div>
    </Card>
  );
}
