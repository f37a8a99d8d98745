import { writeCsv } from '@jadebell/core/csv';
import { formatSI } from '@jadebell/core/format';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { download } from '../ui/download.ts';

type Column = Parameters<typeof writeCsv>[0][number];

/** Figures at each recorded frequency: the first cells of a row say what it is of. */
export function FiguresTable(props: { run: Run; title: string; about: string; file: string; heads: string[]; rows: string[][]; columns: Column[] }) {
  const { run, title, about, file, heads, rows, columns } = props;
  const { recordAt } = run.meta!;
  const csv = (): void => download(`${file}.csv`, writeCsv([{ title: 'frequency (Hz)', values: recordAt }, ...columns]), 'text/csv');
  return (
    <Card title={title} about={`run ${run.number}, ${about}`} file={file} exports={[{ label: 'Values (CSV)', act: csv }]}>
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              {[...heads, ...recordAt.map((f) => formatSI(f, 'frequency'))].map((h) => (
                <th key={h}>{h}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.slice(0, heads.length).join(' ')}>
                {row.map((text, i) => (
                  <td key={i} className={i ? 'mono' : undefined}>
                    {text}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Card>
  );
}

/** A phase as text. */
export const degrees = (radians: number): string => `${((180 * radians) / Math.PI).toFixed(1)}°`;
/** A rectangle of a recorder as text. */
export const rectangle = ({ name, normal, at }: { name: string; normal: number; at: number }): string =>
  `${name}, ${'xyz'[normal]} = ${formatSI(at, 'length', 4)}`;
