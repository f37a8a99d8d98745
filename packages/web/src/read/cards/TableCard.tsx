import { writeCsv } from '@jadebell/core/formats/csv';
import type { TableCard as TableCardData } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { figureColumns, quantities } from '@jadebell/core/reading';
import { channelKeys, channelNames } from '@jadebell/core/results';
import { DataGrid, type GridColDef } from '@mui/x-data-grid';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { download } from '../../ui/download.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { differingParameters, parameterText } from '../../lens/shown.ts';
import type { ShownRun } from '../../lens/shown.ts';
import { type ShownReading, useReadings } from '../../lens/useReadings.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { sizeOf } from '@jadebell/core/methods';
import { termsOfS } from '@jadebell/core/cards';
import { Choice } from '../../kit/Choice.tsx';

interface Column {
  title: string;
  values: ArrayLike<number | string>;
  digits?: number;
}
type What = TableCardData['what'];

const degrees = (re: number, im: number): number => (180 * Math.atan2(im, re)) / Math.PI;

/** What each table holds, from the readings of the shown runs. */
const tables: Record<What, { title: string; columns(readings: readonly ShownReading[], runs: readonly ShownRun[]): Column[] }> = {
  s: {
    title: 'S-parameters',
    columns: (readings) =>
      readings.slice(0, 1).flatMap((r) => [
        { title: 'frequency (Hz)', values: r.frequency, digits: 10 },
        ...termsOfS(r.meta).flatMap((t) => {
          const c = quantities.s.curve(r, t.key);
          if (!c?.im) return [];
          const { re, im } = c;
          const name = t.label === t.key ? t.key : `${t.key} (${t.label.slice(2)})`;
          return [
            { title: `|${name}|`, values: Float64Array.from(re, (x, i) => Math.hypot(x, im[i])) },
            { title: `${name} (dB)`, values: Float64Array.from(re, (x, i) => 20 * Math.log10(Math.hypot(x, im[i]))) },
            { title: `${name} (deg)`, values: Float64Array.from(re, (x, i) => degrees(x, im[i])) },
          ];
        }),
      ]),
  },
  modes: {
    title: 'Modes of the ports',
    columns: (readings) =>
      readings.slice(0, 1).flatMap((r) => [
        { title: 'frequency (Hz)', values: r.frequency, digits: 10 },
        ...channelKeys(r.meta.ports).flatMap((key, n) => {
          const name = channelNames(r.meta.ports)[n];
          if (r.meta.ports[n].mode === undefined) return [];
          const of = (quantity: string): ArrayLike<number> => quantities[quantity].curve(r, key)?.re ?? [];
          const beta = of('beta');
          return [
            { title: `${name}`, values: Array.from(beta, (b) => (b > 0 ? 'propagates' : 'cut off')) },
            { title: `${name} alpha (Np/m)`, values: of('alpha') },
            { title: `${name} beta (rad/m)`, values: beta },
            { title: `${name} index`, values: of('index') },
            { title: `${name} impedance (ohm)`, values: of('mode-impedance') },
          ];
        }),
      ]),
  },
  figures: {
    title: 'Figures of the far field',
    columns: (_, runs) =>
      runs.slice(0, 1).flatMap(({ run }) => {
        const figures = run.meta!.farField?.figures ?? run.meta!.scattered?.figures ?? [];
        return figureColumns(figures).map(({ key, ...column }) => ({ ...column, digits: key === 'frequency' ? 10 : 6 }));
      }),
  },
  runs: {
    title: 'Differences of runs',
    columns: (readings, runs) => {
      const parameters = differingParameters(runs.map((r) => r.run));
      const base = readings[0];
      const terms = base ? termsOfS(base.meta) : [];
      return [
        { title: 'run', values: runs.map((r) => r.label) },
        { title: 'accuracy', values: runs.map((r) => r.run.accuracy) },
        ...parameters.map((g) => ({ title: g, values: runs.map((r) => parameterText(r.run, g)) })),
        { title: 'cells or unknowns', values: runs.map((r) => sizeOf(r.run.meta!).count), digits: 12 },
        ...terms.slice(0, 8).map(({ key, label }) => ({
          title: `most |Δ${label}|`,
          values: runs.map(({ run }) => {
            const own = readings.find((r) => r.shown.run.id === run.id && !r.bare);
            return own && base ? largestDifference(base, own, key) : NaN;
          }),
        })),
        ...(['directivity', 'gain', 'totalEfficiency'] as const).flatMap((k) =>
          runs.some((r) => r.run.meta!.farField?.figures.length)
            ? [
                {
                  title: k === 'totalEfficiency' ? 'total efficiency, middle (%)' : `${k}, middle (dBi)`,
                  values: runs.map(({ run }) => middleFigure(run.meta!.farField?.figures, k)),
                },
              ]
            : [],
        ),
      ];
    },
  },
};

function middleFigure(
  figures: readonly { directivity: number; gain: number; totalEfficiency: number }[] | undefined,
  k: 'directivity' | 'gain' | 'totalEfficiency',
): number {
  const f = figures?.[figures.length >> 1];
  return f ? (k === 'totalEfficiency' ? 100 * f[k] : 10 * Math.log10(f[k])) : NaN;
}

/** Largest size of the difference of a term at the frequencies of the second that lie within the first's band. */
function largestDifference(a: ShownReading, b: ShownReading, key: string): number {
  const [p, q] = [quantities.s.curve(a, key), quantities.s.curve(b, key)];
  if (!p?.im || !q?.im) return NaN;
  let most = NaN;
  let k = 0;
  for (let i = 0; i < q.x.length; i++) {
    const x = q.x[i];
    while (k < p.x.length - 2 && p.x[k + 1] < x) k++;
    if (x < p.x[0] || x > p.x[p.x.length - 1] || p.x.length < 2) continue;
    const t = (x - p.x[k]) / (p.x[k + 1] - p.x[k]);
    const d = Math.hypot(q.re[i] - p.re[k] - t * (p.re[k + 1] - p.re[k]), q.im[i] - p.im[k] - t * (p.im[k + 1] - p.im[k]));
    if (!(d <= most)) most = d;
  }
  return most;
}

const beta = ['beta'];
const none: string[] = [];

/** A grid of numbers: S, modes, figures, or how runs differ; copied as a table for a spreadsheet. */
export function TableCard({ card }: { card: TableCardData }) {
  const board = useContext(CardContext)!;
  const runs = useCardRuns();
  const { readings, loading } = useReadings(runs, ({ run }) => (run.meta!.ports.some((p) => p.mode !== undefined) ? beta : none));
  const table = tables[card.what];
  const columns = useMemo(() => table.columns(readings, runs), [table, readings, runs]);
  const length = Math.max(0, ...columns.map((c) => c.values.length));
  const text = (c: Column, i: number): string => {
    const v = c.values[i];
    return typeof v === 'string'
      ? v
      : v === undefined || !Number.isFinite(v)
        ? ''
        : c.title.startsWith('frequency')
          ? formatSI(v, 'frequency', 7)
          : String(Number(v.toPrecision(c.digits ?? 6)));
  };
  const defs = useMemo(
    (): GridColDef[] =>
      columns.map((c, n) => ({
        field: String(n),
        headerName: c.title.replace(' (Hz)', ''),
        width: Math.max(96, 7.4 * c.title.length + 26),
        type: typeof c.values[0] === 'string' ? 'string' : 'number',
        valueFormatter: (_, row: { id: number }) => text(c, row.id),
        cellClassName: 'mono',
      })),
    [columns],
  );
  const rows = useMemo(
    () => Array.from({ length }, (_, i) => ({ id: i, ...Object.fromEntries(columns.map((c, n) => [n, c.values[i] ?? null])) })),
    [columns, length],
  );
  const stem = stemOf(runs[0], card.title ?? card.what);
  const tsv = (): void => {
    const lines = [
      columns.map((c) => c.title).join('\t'),
      ...Array.from({ length }, (_, i) => columns.map((c) => String(c.values[i] ?? '')).join('\t')),
    ];
    void navigator.clipboard.writeText(`${lines.join('\n')}\n`);
  };
  return (
    <Card
      title={card.title ?? table.title}
      about={card.what === 'runs' ? `against ${runs[0]?.label ?? ''}` : runs[0]?.label}
      file={stem}
      flush
      tools={
        <Choice
          label="Table of"
          value={card.what}
          options={Object.entries(tables).map(([value, t]) => ({ value: value as TableCardData['what'], label: t.title }))}
          onChange={(what) => board.change({ what } as Partial<TableCardData>)}
        />
      }
      exports={[
        { label: 'Copy as table', act: tsv },
        { label: 'Table (CSV)', act: () => download(`${stem}.csv`, writeCsv(columns as { title: string; values: ArrayLike<number> }[]), 'text/csv') },
      ]}
      waiting={loading}
    >
      {columns.length && length ? (
        <DataGrid
          rows={rows}
          columns={defs}
          density="compact"
          rowHeight={26}
          columnHeaderHeight={30}
          hideFooter
          disableColumnMenu
          disableRowSelectionOnClick
          sx={{
            border: 0,
            fontSize: 12.5,
            borderRadius: 0,
            '--DataGrid-containerBackground': 'var(--panel)',
            '--DataGrid-rowBorderColor': 'var(--line)',
          }}
        />
      ) : (
        <p className="quiet pad">The runs that are shown have nothing of that kind.</p>
      )}
    </Card>
  );
}
