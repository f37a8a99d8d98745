import type { AtFrequencies } from '@jadebell/core/recorders';
import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { frequenciesKept } from '@jadebell/core/results';
import type { Run } from '../api/types.ts';
import { Card } from './Card.tsx';
import { download } from '../ui/download.ts';
import { type Column, DataTable } from '../kit/DataTable.tsx';
import { Scroll } from '../kit/Scroll.tsx';

/** What is told at the frequencies of a recorder; without one at all recorded. */
interface Told {
  of?: AtFrequencies;
}
interface Props {
  run: Run;
  title: string;
  about: string;
  file: string;
  heads: string[];
  /** The first cells of a row say what it is of, the others what it is at each of its frequencies. */
  rows: (Told & { heads: string[]; texts: string[] })[];
  columns: (Told & { title: string; values: ArrayLike<number> })[];
}

/** Figures at each frequency at which any of them was recorded. */
export function FiguresTable({ run, title, about, file, heads, rows, columns }: Props) {
  const meta = run.meta!;
  const lists = rows.map((r) => frequenciesKept(meta, r.of));
  const all = meta.recordAt.filter((f) => lists.some((own) => own.includes(f)));
  const shown: Column<Props['rows'][number]>[] = [
    ...heads.map((title, i): Column<Props['rows'][number]> => ({ title, value: (row) => row.heads[i], mono: i > 0 })),
    ...all.map((f): Column<Props['rows'][number]> => ({
      title: formatSI(f, 'frequency'),
      mono: true,
      cell: (row) => row.texts[frequenciesKept(meta, row.of).indexOf(f)] ?? '–',
    })),
  ];
  const csv = (): void =>
    download(
      `${file}.csv`,
      writeCsv([
        { title: 'frequency (Hz)', values: all },
        ...columns.map(({ of, title, values }) => {
          const own = frequenciesKept(meta, of);
          return { title, values: all.map((f) => values[own.indexOf(f)] ?? NaN) };
        }),
      ]),
      'text/csv',
    );
  return (
    <Card title={title} about={`run ${run.number}, ${about}`} file={file} exports={[{ label: 'Values (CSV)', act: csv }]}>
      <Scroll label={title}>
        <DataTable columns={shown} rows={rows} keyOf={(row) => row.heads.join(' ')} />
      </Scroll>
    </Card>
  );
}

/** A phase as text. */
export const degrees = (radians: number): string => `${((180 * radians) / Math.PI).toFixed(1)}°`;
