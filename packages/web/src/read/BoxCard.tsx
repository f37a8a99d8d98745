import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { boxWidth } from '@jadebell/core/reading';
import { recorderKind, type Told } from '@jadebell/core/recorders';
import { frequenciesKept } from '@jadebell/core/results';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import { Figures } from '../kit/Figures.tsx';
import { TableBody, TableRow, TableCell } from '@mui/material';

interface Props {
  run: Run;
  stem: string;
  box: Told<'field-box'>;
  frequency: number;
}
const units = { E: 'V/m', H: 'A/m' } as const;

/** Fields of a box that is a line or a point: curves along it, or figures. */
export function BoxCard({ run, stem, box, frequency }: Props) {
  const dark = useDark();
  const [x, y, z] = [
    useArray(run.id, `box:${box.name}:x`).data,
    useArray(run.id, `box:${box.name}:y`).data,
    useArray(run.id, `box:${box.name}:z`).data,
  ];
  const axes = x && y && z ? [x.data, y.data, z.data] : null;
  const fields = [...(box.electric ? (['E'] as const) : []), ...(box.magnetic ? (['H'] as const) : [])];
  const components = box.only === undefined ? ([0, 1, 2] as const) : [box.only];
  const each = 2 * components.length;
  const width = boxWidth(box);
  const size = axes ? axes.reduce((n, a) => n * a.length, width) : 0;
  const values = useArray(size ? run.id : null, `box:${box.name}`, { from: frequency * size, count: size }).data?.data;
  const long = axes ? [0, 1, 2].filter((a) => axes[a].length > 1) : [];
  const count = size / (width || 1);
  const at = (n: number, f: number, c: number): number =>
    Math.hypot(values![n * width + each * f + 2 * c], values![n * width + each * f + 2 * c + 1]);
  const csv = (): void => {
    if (!axes || !values) return;
    download(`${stem}-${box.name}.csv`, writeCsv(recorderKind(box).values!.columns(box, values, axes)), 'text/csv');
  };
  return (
    <Card
      title={`Fields in ${box.name}`}
      about={`run ${run.number}, ${formatSI(frequenciesKept(run.meta!, box)[frequency], 'frequency')}`}
      file={`${stem}-${box.name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
      waiting={!axes || !values}
    >
      {!axes || !values ? (
        <p className="quiet pad">Reading the fields …</p>
      ) : long.length ? (
        <Lines
          x={{ label: 'xyz'[long[0]], unit: 'length', values: axes[long[0]] }}
          y={{ label: `size of the field (${fields.map((f) => units[f]).join(', ')})` }}
          traces={fields.flatMap((f, k) =>
            components.map((c, i) => ({
              name: `|${f}${'xyz'[c]}|`,
              ...traceStyle(3 * k + c + 1, dark),
              values: Float64Array.from({ length: count }, (_, n) => at(n, k, i)),
            })),
          )}
        />
      ) : (
        <Figures>
          <TableBody>
            {fields.flatMap((field, f) =>
              components.map((c, i) => (
                <TableRow key={`${field}${c}`}>
                  <TableCell>{`${field}${'xyz'[c]}`}</TableCell>
                  <TableCell className="mono">{`${at(0, f, i).toPrecision(4)} ${units[field]}`}</TableCell>
                  <TableCell className="mono">{`${((180 * Math.atan2(values[each * f + 2 * i + 1], values[each * f + 2 * i])) / Math.PI).toFixed(1)}°`}</TableCell>
                </TableRow>
              )),
            )}
          </TableBody>
        </Figures>
      )}
    </Card>
  );
}
