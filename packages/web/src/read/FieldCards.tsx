import { formatSI } from '@jadebell/core/format';
import type { ViewBody } from '../workers/protocol.ts';
import type { FieldPlaneInfo } from '@jadebell/core/results';
import { useMemo } from 'react';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { FieldPlane } from '../charts/FieldPlane.tsx';
import { writeCsv } from '@jadebell/core/csv';
import { download } from '../ui/download.ts';

interface Props {
  run: Run;
  at: number;
  bodies: readonly ViewBody[];
  stem: string;
}

/** A card for each recorded plane. */
export const FieldCards = ({ run, ...rest }: Props) =>
  run.meta!.fieldPlanes.map((plane) => <PlaneCard key={plane.name} plane={plane} run={run} {...rest} />);

function PlaneCard({ run, plane, at, bodies, stem }: Props & { plane: FieldPlaneInfo }) {
  const u = useArray(run.id, `plane:${plane.name}:u`).data;
  const v = useArray(run.id, `plane:${plane.name}:v`).data;
  const count = u && v ? u.shape[0] * v.shape[0] * 6 : 0;
  // Only the frequency that is shown is read.
  const field = useArray(count ? run.id : null, `plane:${plane.name}`, { from: at * count, count }).data;
  const axes = useMemo((): [number, number] => [plane.u, plane.v], [plane.u, plane.v]);
  const frequency = run.meta!.recordAt[at];
  const csv = (): void => {
    if (!u || !v || !field) return;
    const nu = u.data.length;
    const point = (axis: 0 | 1): Float64Array =>
      Float64Array.from({ length: nu * v.data.length }, (_, i) => (axis ? v.data[Math.floor(i / nu)] : u.data[i % nu]));
    const part = (c: number): Float64Array => Float64Array.from({ length: nu * v.data.length }, (_, i) => field.data[i * 6 + c]);
    const names = ['Ex real', 'Ex imaginary', 'Ey real', 'Ey imaginary', 'Ez real', 'Ez imaginary'].map((n) => `${n} (V/m)`);
    download(
      `${stem}-${plane.name}.csv`,
      writeCsv([
        { title: `${'xyz'[plane.u]} (m)`, values: point(0) },
        { title: `${'xyz'[plane.v]} (m)`, values: point(1) },
        ...names.map((title, c) => ({ title, values: part(c) })),
      ]),
      'text/csv',
    );
  };
  return (
    <Card
      title={`Field on ${plane.name}`}
      about={`|E|, ${'xyz'[plane.normal]} = ${formatSI(plane.at, 'length', 4)}, run ${run.number}, ${formatSI(frequency, 'frequency')}`}
      file={`${stem}-${plane.name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
      flush
    >
      {u && v && field ? (
        <FieldPlane u={u.data} v={v.data} field={field.data} axes={axes} bodies={bodies} unit="V/m" />
      ) : (
        <p className="quiet pad">Reading the field …</p>
      )}
    </Card>
  );
}
