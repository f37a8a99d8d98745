import { writeCsv } from '@jadebell/core/csv';
import { formatSI } from '@jadebell/core/format';
import { useMemo, useState } from 'react';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { FieldPlane } from '../charts/FieldPlane.tsx';
import { LineChartBox } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { ChoiceChip } from '../ledger/ChoiceChip.tsx';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import type { ViewBody } from '../workers/protocol.ts';

type FieldBox = NonNullable<NonNullable<Run['meta']>['fieldBoxes']>[number];
interface Props {
  run: Run;
  stem: string;
  box: FieldBox;
  frequency: number;
  bodies: readonly ViewBody[];
}
const units = { E: 'V/m', H: 'A/m' } as const;

/** Fields in a box: a cut through it, or where it is flat all of it: a plane, a line, or figures at a point. */
export function BoxCard({ run, stem, box, frequency, bodies }: Props) {
  const [x, y, z] = [
    useArray(run.id, `box:${box.name}:x`).data,
    useArray(run.id, `box:${box.name}:y`).data,
    useArray(run.id, `box:${box.name}:z`).data,
  ];
  const axes = useMemo(() => (x && y && z ? [x.data, y.data, z.data] : null), [x, y, z]);
  const fields = [...(box.electric ? (['E'] as const) : []), ...(box.magnetic ? (['H'] as const) : [])];
  const width = 6 * fields.length;
  const size = axes ? axes.reduce((n, a) => n * a.length, width) : 0;
  const values = useArray(size ? run.id : null, `box:${box.name}`, { from: frequency * size, count: size }).data;
  const [chosen, setChosen] = useState<'E' | 'H'>(fields[0]);
  const [across, setAcross] = useState<number | null>(null);
  const [slice, setSlice] = useState<number | null>(null);
  const about = `run ${run.number}, ${formatSI(run.meta!.recordAt[frequency], 'frequency')}`;
  const shown = { axes, values: values?.data ?? null, width, first: fields.indexOf(chosen) * 6 };
  const long = axes ? [0, 1, 2].filter((a) => axes[a].length > 1) : [];
  const normal = long.length === 3 ? (across ?? 2) : ([0, 1, 2].find((a) => !long.includes(a)) ?? 2);
  const most = axes ? axes[normal].length - 1 : 0;
  const at = Math.min(slice ?? most >> 1, most);
  const csv = (): void => {
    if (!axes || !values) return;
    const count = size / width;
    const index = (n: number): number[] => [
      n % axes[0].length,
      Math.floor(n / axes[0].length) % axes[1].length,
      Math.floor(n / axes[0].length / axes[1].length),
    ];
    const place = (a: number): Float64Array => Float64Array.from({ length: count }, (_, n) => axes[a][index(n)[a]]);
    const columns = fields.flatMap((field) =>
      [...'xyz'].flatMap((c) => ['real', 'imaginary'].map((part) => `${field}${c} ${part} (${units[field]})`)),
    );
    download(
      `${stem}-${box.name}.csv`,
      writeCsv([
        ...[0, 1, 2].map((a) => ({ title: `${'xyz'[a]} (m)`, values: place(a) })),
        ...columns.map((title, c) => ({ title, values: Float64Array.from({ length: count }, (_, n) => values.data[n * width + c]) })),
      ]),
      'text/csv',
    );
  };
  const tools = (
    <>
      {fields.length > 1 && (
        <ChoiceChip label="field" value={chosen} options={fields.map((f) => ({ value: f, label: f }))} onChange={(f) => setChosen(f as 'E' | 'H')} />
      )}
      {long.length === 3 && axes && (
        <>
          <ChoiceChip
            label="cut across"
            value={String(normal)}
            options={[0, 1, 2].map((a) => ({ value: String(a), label: `across ${'xyz'[a]}` }))}
            onChange={(a) => {
              setAcross(Number(a));
              setSlice(null);
            }}
          />
          <input
            type="range"
            aria-label="Place of the cut"
            aria-valuetext={formatSI(axes[normal][at], 'length', 4)}
            min={0}
            max={most}
            value={at}
            style={{ width: 76 }}
            onChange={(e) => setSlice(Number(e.target.value))}
          />
        </>
      )}
    </>
  );
  const where = long.length > 1 && axes ? `|${chosen}|, ${'xyz'[normal]} = ${formatSI(axes[normal][at], 'length', 4)}, ` : '';
  return (
    <Card
      title={`Fields in ${box.name}`}
      about={`${where}${about}`}
      file={`${stem}-${box.name}`}
      flush={long.length > 1}
      tools={tools}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      {!shown.axes || !shown.values ? (
        <p className="quiet pad">Reading the fields …</p>
      ) : long.length > 1 ? (
        <Cut {...{ ...shown, axes: shown.axes, values: shown.values, normal, at, bodies, symbol: chosen }} />
      ) : long.length === 1 ? (
        <Along {...{ ...shown, axes: shown.axes, values: shown.values, axis: long[0], symbol: chosen }} />
      ) : (
        <PointFigures values={shown.values} fields={fields} />
      )}
    </Card>
  );
}

interface Shown {
  axes: readonly ArrayLike<number>[];
  values: ArrayLike<number>;
  /** Values at a place, and the first of those that are shown. */
  width: number;
  first: number;
  symbol: 'E' | 'H';
}

function Cut({ axes, values, width, first, normal, at, bodies, symbol }: Shown & { normal: number; at: number; bodies: readonly ViewBody[] }) {
  const [u, v] = useMemo((): [number, number] => [0, 1, 2].filter((a) => a !== normal) as [number, number], [normal]);
  const field = useMemo(() => {
    const [nu, nv] = [axes[u].length, axes[v].length];
    const step = [1, axes[0].length, axes[0].length * axes[1].length];
    const out = new Float32Array(nu * nv * 6);
    for (let j = 0; j < nv; j++)
      for (let i = 0; i < nu; i++) {
        const from = (i * step[u] + j * step[v] + at * step[normal]) * width + first;
        for (let c = 0; c < 6; c++) out[(j * nu + i) * 6 + c] = values[from + c];
      }
    return out;
  }, [axes, values, width, first, u, v, normal, at]);
  const plane = useMemo((): [number, number] => [u, v], [u, v]);
  return <FieldPlane u={axes[u]} v={axes[v]} field={field} axes={plane} bodies={bodies} unit={units[symbol]} symbol={symbol} />;
}

function Along({ axes, values, width, first, axis, symbol }: Shown & { axis: number }) {
  const dark = useDark();
  const size = (c: number): Float64Array =>
    Float64Array.from({ length: axes[axis].length }, (_, i) => Math.hypot(values[i * width + first + 2 * c], values[i * width + first + 2 * c + 1]));
  return (
    <LineChartBox
      x={{ label: 'xyz'[axis], unit: 'length', values: axes[axis] }}
      y={{ label: `size of the field (${units[symbol]})` }}
      traces={[0, 1, 2].map((c) => ({ name: `|${symbol}${'xyz'[c]}|`, ...traceStyle(c + 1, dark), values: size(c) }))}
    />
  );
}

function PointFigures({ values, fields }: { values: ArrayLike<number>; fields: readonly ('E' | 'H')[] }) {
  return (
    <table className="figures">
      <tbody>
        {fields.flatMap((field, f) =>
          [0, 1, 2].map((c) => {
            const [re, im] = [values[6 * f + 2 * c], values[6 * f + 2 * c + 1]];
            return (
              <tr key={`${field}${c}`}>
                <td>{`${field}${'xyz'[c]}`}</td>
                <td className="mono">{`${Math.hypot(re, im).toPrecision(4)} ${units[field]}`}</td>
                <td className="mono">{`${((180 * Math.atan2(im, re)) / Math.PI).toFixed(1)}°`}</td>
              </tr>
            );
          }),
        )}
      </tbody>
    </table>
  );
}
