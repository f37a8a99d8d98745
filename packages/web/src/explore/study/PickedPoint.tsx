import { formatSI } from '@jadebell/core/expressions/format';
import { pointText } from '@jadebell/core/exploring';
import { Button } from '@mui/material';
import { Link } from 'react-router';
import { Tool } from '../../kit/Tool.tsx';
import { keepAndShow, takeValues } from './edits.ts';
import { readText } from './figures.ts';
import type { PointsData, StudyRow } from './useStudyData.ts';

/** Digits to which values of a point are taken over. */
const digits = 12;

/** The point that is looked at: its values and figures, and what can be done with it. */
export function PickedPoint({ row, data, close }: { row: StudyRow; data: PointsData; close(): void }) {
  const { run } = row;
  const values = Object.fromEntries(data.moved.map((m) => [m.parameter, formatSI(row.values[m.parameter], m.measure, digits)]));
  return (
    <section className="state" aria-label="Picked point">
      <b>{pointText(row.values, data.moved)}</b>
      <span className="mono">{data.measures.map((m) => `${m.name} ${readText(row.reads.get(m.name))}`).join(', ')}</span>
      <span className="grow" />
      {run?.state === 'done' && (
        <Button component={Link} to={`/project/${run.projectId}/read?run=${run.id}`}>
          Read run {run.number}
        </Button>
      )}
      <Button onClick={() => takeValues(values)}>Take its values over</Button>
      <Button onClick={() => keepAndShow(values)}>Keep as variant</Button>
      <Tool onClick={close}>Close</Tool>
    </section>
  );
}
