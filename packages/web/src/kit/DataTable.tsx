import { TableBody, TableCell, TableHead, TableRow, TableSortLabel } from '@mui/material';
import { type CSSProperties, type ReactNode, useState } from 'react';
import { Figures } from './Figures.tsx';

type Value = string | number | null | undefined;

export interface Column<Row> {
  title: string;
  /** By which its rows are sorted; without it they are not. */
  value?(row: Row): Value;
  /** What stands in a cell; without it the value. */
  cell?(row: Row, index: number): ReactNode;
  mono?: boolean;
  style?: CSSProperties;
}

interface Order {
  column: string;
  down: boolean;
}

const missing = (v: Value): boolean => v === null || v === undefined || v === '' || Number.isNaN(v);
const compare = (a: Value, b: Value): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b), 'en', { numeric: true });

/** Rows in the order of a column, upwards or downwards; what has no value there comes last in both. */
export function sorted<Row>(rows: readonly Row[], value: (row: Row) => Value, down: boolean): Row[] {
  return rows.toSorted((p, q) => {
    const [a, b] = [value(p), value(q)];
    if (missing(a) || missing(b)) return Number(missing(a)) - Number(missing(b));
    return down ? compare(b, a) : compare(a, b);
  });
}

interface Props<Row> {
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  keyOf(row: Row, index: number): string | number;
  label?: string;
  /** What a row is apart from the others: chosen, of another colour. */
  rowProps?(row: Row): { className?: string; onClick?(): void; 'aria-selected'?: boolean };
}

/** Rows of alike things: sorted by a click on a head, back in their own order by a third. */
export function DataTable<Row>({ columns, rows, keyOf, label, rowProps }: Props<Row>) {
  const [order, setOrder] = useState<Order | null>(null);
  const by = columns.find((c) => c.title === order?.column)?.value;
  const own = rows.map((row, index) => ({ row, index }));
  const shown = by ? sorted(own, ({ row }) => by(row), order!.down) : own;
  const turn = (column: string): void => setOrder((old) => (old?.column !== column ? { column, down: false } : old.down ? null : { column, down: true })); // prettier-ignore
  return (
    <Figures aria-label={label}>
      <TableHead>
        <TableRow>
          {columns.map((c, n) => {
            const active = order?.column === c.title && !!by;
            const direction = active && order.down ? 'desc' : 'asc';
            return (
              <TableCell key={n} style={c.style} sortDirection={active ? direction : false}>
                {c.value && rows.length > 1 ? (
                  <TableSortLabel {...{ active, direction }} onClick={() => turn(c.title)}>
                    {c.title}
                  </TableSortLabel>
                ) : (
                  c.title
                )}
              </TableCell>
            );
          })}
        </TableRow>
      </TableHead>
      <TableBody>
        {shown.map(({ row, index }) => (
          <TableRow key={keyOf(row, index)} {...rowProps?.(row)}>
            {columns.map((c, n) => (
              <TableCell key={n} className={c.mono ? 'mono' : undefined}>
                {c.cell ? c.cell(row, index) : c.value?.(row)}
              </TableCell>
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Figures>
  );
}
