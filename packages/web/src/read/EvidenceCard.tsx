import { formatSI } from '@jadebell/core/expressions/format';
import { evidenceRows } from '@jadebell/core/reading';
import { isOf } from '@jadebell/core/results';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Figures } from '../kit/Figures.tsx';
import { TableBody, TableRow, TableCell } from '@mui/material';
import { Scroll } from '../kit/Scroll.tsx';
import { PassesPicture } from './PassesPicture.tsx';

/** Where a result can be held against itself. */
export function EvidenceCard({ run, stem }: { run: Run; stem: string }) {
  const rows = evidenceRows(run.meta!);
  const inTime = isOf('fdtd', run.meta!) && run.meta!.excitations.length > 0;
  const { data: signal } = useArray(inTime ? run.id : null, 'signal');
  const { data: time } = useArray(inTime ? run.id : null, 'time');
  return (
    <Card title="Evidence" about={`run ${run.number}`} file={`${stem}-evidence`}>
      <Scroll label="Evidence">
        {run.meta!.evidence.passes && run.meta!.excitations.length > 0 && <PassesPicture run={run} />}
        <Figures>
          <TableBody>
            {rows.map(([what, value]) => (
              <TableRow key={what}>
                <TableCell>{what}</TableCell>
                <TableCell className="mono" style={{ whiteSpace: 'normal' }}>
                  {value}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Figures>
        {signal && time && (
          <p className="quiet" style={{ padding: '4px 8px' }}>
            Port signals of the first excitation recorded for {formatSI(time.data[time.data.length - 1] * 1e9, 'number', 3)} ns; last value{' '}
            {Math.abs(signal.data[signal.data.length - 1]).toExponential(1)}.
          </p>
        )}
      </Scroll>
    </Card>
  );
}
