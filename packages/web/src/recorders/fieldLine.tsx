import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { recorderKind, type Told } from '@jadebell/core/recorders';
import { frequenciesKept } from '@jadebell/core/results';
import { useArray } from '../api/hooks.ts';
import { Card } from '../charts/Card.tsx';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useSum } from '../lens/useSum.ts';
import { nearestRecorded, useFrequency } from '../lens/useFrequency.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import type { RecorderCardProps } from './cardProps.ts';

/** Size of the field's components along a line at the lens frequency. */
export function FieldLineCard({ run, stem, told: line }: RecorderCardProps<Told<'field-line'>>) {
  const frequency = nearestRecorded(frequenciesKept(run.meta!, line), useFrequency());
  const dark = useDark();
  const place = useArray(run.id, `line:${line.name}:at`).data;
  const count = place?.data.length ?? 0;
  const field = useSum(run, `line:${line.name}`, { from: frequency * count * 6, count: count * 6 }).data;
  const size = (c: number): Float64Array =>
    Float64Array.from({ length: count }, (_, i) => Math.hypot(field![6 * i + 2 * c], field![6 * i + 2 * c + 1]));
  const sizes = field && place ? [0, 1, 2].map(size) : null;
  const csv = (): void => {
    if (field && place) download(`${stem}-${line.name}.csv`, writeCsv(recorderKind(line).values!.columns(line, field, [place.data])), 'text/csv');
  };
  return (
    <Card
      title={`E along ${line.name}`}
      about={`run ${run.number}, ${formatSI(frequenciesKept(run.meta!, line)[frequency], 'frequency')}`}
      file={`${stem}-${line.name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
      waiting={!sizes}
    >
      {sizes && place ? (
        <Lines
          x={{ label: 'xyz'[line.axis], unit: 'length', values: place.data }}
          y={{ label: 'size of the field (V/m)' }}
          traces={sizes.map((values, c) => ({ name: `|E${'xyz'[c]}|`, ...traceStyle(c + 1, dark), values }))}
        />
      ) : (
        <p className="quiet pad">Reading the line …</p>
      )}
    </Card>
  );
}
