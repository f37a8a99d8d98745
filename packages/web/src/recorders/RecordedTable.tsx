import { type AnyRecorderKind, recorderKind } from '@jadebell/core/recorders';
import { toldFor } from '@jadebell/core/results';
import type { Run } from '../api/types.ts';
import { FiguresTable } from '../charts/FiguresTable.tsx';

/** The table of all recorders of a kind, as the kind describes it. */
export function RecordedTable({ run, stem, kind }: { run: Run; stem: string; kind: AnyRecorderKind['kind'] }) {
  const { recorded } = run.meta!;
  const table = recorderKind({ kind }).table!;
  const rows = recorded.filter((r) => r.kind === kind).flatMap((told) => table.rows(told).map((row) => ({ of: told, ...row })));
  const per = `for ${toldFor(run.meta!)}`;
  return (
    <FiguresTable
      run={run}
      title={table.title}
      about={table.about ? `${table.about}, ${per}` : per}
      file={`${stem}-${table.file}`}
      heads={table.heads}
      rows={rows}
      columns={rows.flatMap((row) => row.columns.map((c) => ({ of: row.of, ...c })))}
    />
  );
}
