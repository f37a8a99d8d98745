import { writeCsv } from '@jadebell/core/csv';
import { formatSI } from '@jadebell/core/format';
import { frequenciesKept } from '@jadebell/core/results';
import { channelNames } from '@jadebell/core/s';
import { useSum } from './cards/useSum.ts';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { LineChartBox } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import { degrees, FiguresTable, rectangle } from './FiguresTable.tsx';

interface Props {
  run: Run;
  stem: string;
}

/** What each of the combined waves meets while all are there. */
export function CombinedCard({ run, stem }: Props) {
  const { combined = [], ports } = run.meta!;
  const names = channelNames(ports);
  const level = ([re, im]: readonly [number, number]): number => 20 * Math.log10(Math.hypot(re, im));
  return (
    <FiguresTable
      run={run}
      title="Waves together"
      about="active reflection"
      file={`${stem}-waves`}
      heads={['wave', 'amplitude', 'phase']}
      rows={combined.map((w) => ({
        heads: [names[w.channel], w.amplitude.toFixed(3), degrees(w.phase)],
        texts: w.reflection.map((r) => `${level(r).toFixed(2)} dB`),
      }))}
      columns={combined.map((w) => ({ title: `active reflection of ${names[w.channel]} (dB)`, values: w.reflection.map(level) }))}
    />
  );
}

export function FluxCard({ run, stem }: Props) {
  const { fluxes = [], wave } = run.meta!;
  return (
    <FiguresTable
      run={run}
      title="Power through rectangles"
      about={`for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-power`}
      heads={['rectangle']}
      rows={fluxes.map((x) => ({ of: x, heads: [rectangle(x)], texts: x.power.map((p) => formatSI(p, 'power', 4)) }))}
      columns={fluxes.map((x) => ({ of: x, title: `${x.name} (W)`, values: x.power }))}
    />
  );
}

export function CurrentCard({ run, stem }: Props) {
  const { currents = [], wave } = run.meta!;
  return (
    <FiguresTable
      run={run}
      title="Current through rectangles"
      about={`peak, for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-current`}
      heads={['rectangle']}
      rows={currents.map((c) => ({
        of: c,
        heads: [rectangle(c)],
        texts: c.current.map(([re, im]) => `${(1e3 * Math.hypot(re, im)).toPrecision(4)} mA, ${degrees(Math.atan2(im, re))}`),
      }))}
      columns={currents.flatMap((c) =>
        ['real', 'imaginary'].map((part, i) => ({ of: c, title: `${c.name} ${part} (A)`, values: c.current.map((v) => v[i]) })),
      )}
    />
  );
}

type FieldLine = NonNullable<NonNullable<Run['meta']>['fieldLines']>[number];

/** Size of the field's components along a line at the lens frequency. */
export function LineCard({ run, stem, line, frequency }: Props & { line: FieldLine; frequency: number }) {
  const dark = useDark();
  const place = useArray(run.id, `line:${line.name}:at`).data;
  const count = place?.data.length ?? 0;
  const field = useSum(run, `line:${line.name}`, { from: frequency * count * 6, count: count * 6 }).data;
  const size = (c: number): Float64Array =>
    Float64Array.from({ length: count }, (_, i) => Math.hypot(field![6 * i + 2 * c], field![6 * i + 2 * c + 1]));
  const sizes = field && place ? [0, 1, 2].map(size) : null;
  const csv = (): void => {
    if (sizes && place)
      download(
        `${stem}-${line.name}.csv`,
        writeCsv([
          { title: `${'xyz'[line.axis]} (m)`, values: place.data },
          ...sizes.map((values, c) => ({ title: `|E${'xyz'[c]}| (V/m)`, values })),
        ]),
        'text/csv',
      );
  };
  return (
    <Card
      title={`E along ${line.name}`}
      about={`run ${run.number}, ${formatSI(frequenciesKept(run.meta!, line)[frequency], 'frequency')}`}
      file={`${stem}-${line.name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      {sizes && place ? (
        <LineChartBox
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

export function SignalCard({ run, stem, name, at }: Props & { name: string; at: readonly number[] }) {
  const dark = useDark();
  const field = useArray(run.id, `point:${name}`).data;
  const time = useArray(run.id, `point:${name}:time`).data;
  const part = (c: number): Float64Array => Float64Array.from({ length: time!.data.length }, (_, i) => field!.data[3 * i + c]);
  const parts = field && time ? [0, 1, 2].map(part) : null;
  const csv = (): void => {
    if (parts && time)
      download(
        `${stem}-${name}.csv`,
        writeCsv([{ title: 'time (s)', values: time.data }, ...parts.map((values, c) => ({ title: `E${'xyz'[c]} (V/m)`, values }))]),
        'text/csv',
      );
  };
  return (
    <Card
      title={`E at ${name}`}
      about={`run ${run.number}, ${at.map((x) => formatSI(x, 'length', 3)).join(', ')}`}
      file={`${stem}-${name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      {parts && time ? (
        <LineChartBox
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
