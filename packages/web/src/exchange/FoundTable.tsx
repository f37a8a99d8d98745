import { formatSI } from '@jadebell/core/expressions/format';
import { type Column, DataTable } from '../kit/DataTable.tsx';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { Tick } from '../kit/Tick.tsx';
import { type Control, Controller } from 'react-hook-form';
import { Message } from '../kit/Message.tsx';
import { type FileUnit, type TakingValues, units } from './taking.ts';
import type { Found, FoundPart } from '../workers/exchange.protocol.ts';

const size = (part: FoundPart, unit: FileUnit | ''): string =>
  part.size.map((s) => (unit ? formatSI(s * units[unit], 'length', 4) : Number(s.toPrecision(4)))).join(' × ');

interface Props {
  found: Found;
  unit: FileUnit | '';
  control: Control<TakingValues>;
  materials: readonly string[];
}

/** Parts or layers of a file: which are taken, how large they are, of what they are. */
export function FoundTable({ found, unit, control, materials }: Props) {
  const outlines = found.parts[0]?.kind === 'outlines';
  const columns: Column<FoundPart>[] = [
    {
      title: 'take',
      cell: (p, i) => (
        <Controller
          control={control}
          name={`parts.${i}.taken`}
          render={({ field: { value, onChange } }) => <Tick silent label={`Take ${p.name}`} value={value} disabled={!p.closed} onChange={onChange} />}
        />
      ),
    },
    { title: outlines ? 'layer' : 'part', value: (p) => p.name },
    { title: 'size', value: (p) => Math.hypot(...p.size), mono: true, cell: (p) => size(p, unit) },
    {
      title: 'material',
      cell: (p, i) => (
        <Controller
          control={control}
          name={`parts.${i}.material`}
          render={({ field: { value, onChange } }) => (
            <Choice look="chip" label={`Material of ${p.name}`} value={value} options={plainOptions(materials)} onChange={onChange} />
          )}
        />
      ),
    },
    outlines
      ? {
          title: 'thickness',
          cell: (p, i) => (
            <Controller
              control={control}
              name={`parts.${i}.thickness`}
              render={({ field: { value, onChange }, fieldState: { error } }) => (
                <>
                  <Field mono width={80} label={`Thickness of ${p.name}`} failing={!!error} value={value} onChange={onChange} />
                  {error && <Message style={{ maxWidth: 220, whiteSpace: 'normal', textAlign: 'left' }}>{error.message}</Message>}
                </>
              )}
            />
          ),
        }
      : { title: 'triangles', value: (p) => p.count, cell: (p) => <span className="quiet">{p.count.toLocaleString('en')}</span> },
    { title: 'found', cell: (p) => <span className={p.closed ? 'quiet' : 'bad'}>{p.remarks.join(' ')}</span> },
  ];
  return (
    <div className="table-scroll">
      <DataTable label="Found in the file" columns={columns} rows={found.parts} keyOf={(p) => p.index} />
    </div>
  );
}
