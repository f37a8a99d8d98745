import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { recorderKind, type Told } from '@jadebell/core/recorders';
import { useArray } from '../api/hooks.ts';
import { Card } from '../charts/Card.tsx';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import type { RecorderCardProps } from './cardProps.ts';

/** E over time at a point. */
export function SignalCard({ run, stem, told }: RecorderCardProps<Told<'signal'>>) {
  const { name, at } = told;
  const dark = useDark();
  const field = useArray(run.id, `point:${name}`).data;
  const time = useArray(run.id, `point:${name}:time`).data;
  const part = (c: number): Float64Array => Float64Array.from({ length: time!.data.length }, (_, i) => field!.data[3 * i + c]);
  const parts = field && time ? [0, 1, 2].map(part) : null;
  const csv = (): void => {
    if (field && time) download(`${stem}-${name}.csv`, writeCsv(recorderKind(told).values!.columns(told, field.data, [time.data])), 'text/csv');
  };
  return (
    <Card
      title={`E at ${name}`}
      about={`run ${run.number}, ${at.map((x) => formatSI(x, 'length', 3)).join(', ')}`}
      file={`${stem}-${name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
      waiting={!parts}
    >
      {parts && time ? (
        <Lines
          x={{ label: 'time', unit: 'time', values: time.data }}
          y={{ label: 'field (V/m)' }}
          traces={parts.map((values, c) => ({ name: `E${'xyz'[c]}`, ...traceStyle(c + 1, dark), values }))}
        />
      ) : (
        <p className="quiet pad">Reading the signal …</p>
      )}
    </Card>
  );
}
