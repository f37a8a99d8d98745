import { type Column, type Problem } from '@jadebell/core/document';
import { parseTable } from '@jadebell/core/formats/table';
import { useState } from 'react';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { Tool } from '../kit/Tool.tsx';
import { ChipFace } from '../kit/ChipFace.tsx';

interface Props {
  path: string;
  label: string;
  columns: Column[];
  least: number;
  /** What more than one row are called. */
  several?: string;
  /** What stands for no row. */
  none?: string;
  rows: string[][];
  problems: Problem[];
  onChange(rows: string[][]): void;
}

const units: Record<string, string> = { length: 'mm', angle: 'deg', frequency: 'GHz' };
/** A cell of a pasted table: a plain number gets the unit that is usual for its column. */
const withUnit = (text: string, quantity: string): string =>
  /^[-+]?[\d.]+(e[-+]?\d+)?$/i.test(text) && units[quantity] ? `${text} ${units[quantity]}` : text;

/** Rows of expressions: folded to their number, opened as a table; takes rows pasted from a spreadsheet. */
export function ListEditor({ path, label, columns, least, several = `${label}s`, none, rows, problems, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const own = problems.filter((p) => p.place.chip?.startsWith(`${path}.`));
  const band = useProject((s) => s.document?.solve.from) ?? '1 GHz';
  const first = (quantity: string): string => (quantity === 'frequency' ? band : quantity === 'number' ? '0' : `0 ${units[quantity] ?? ''}`.trim());
  const fresh = (): string[] => columns.map((c, i) => rows.at(-1)?.[i] ?? first(c.quantity));
  const take = (text: string): boolean => {
    const table = parseTable(text).filter((r) => r.length >= columns.length && r.slice(0, columns.length).every((c) => c !== ''));
    // A heading has no digit in it.
    const body = table.filter((r) => r.slice(0, columns.length).some((c) => /\d/.test(c)));
    if (body.length < 2 || body.length < least) return false;
    onChange(body.map((r) => columns.map((c, i) => withUnit(r[i], c.quantity))));
    return true;
  };
  return (
    <span className="list-editor">
      <ChipFace failing={own.length > 0} aria-expanded={open} onClick={() => setOpen(!open)}>
        {!rows.length && none ? none : `${rows.length} ${rows.length === 1 ? label : several}`}
      </ChipFace>
      {open && (
        <span
          className="list-rows"
          role="group"
          aria-label={`${several} of ${path}`}
          onPaste={(e) => {
            if (take(e.clipboardData.getData('text'))) {
              e.preventDefault();
              e.stopPropagation();
            }
          }}
        >
          {rows.map((row, i) => (
            <span key={i} className="list-row">
              <span className="quiet mono">{i + 1}</span>
              {columns.map((c, k) => (
                <Chip
                  key={k}
                  label={columns.length > 1 ? `${label} ${i + 1} ${c.label}` : `${label} ${i + 1}`}
                  quantity={c.quantity}
                  value={row[k] ?? ''}
                  problems={own.filter((p) => p.place.chip === `${path}.${i}.${k}`)}
                  onChange={(v) => onChange(rows.map((r, n) => (n === i ? columns.map((_, m) => (m === k ? v : (r[m] ?? '0'))) : r)))}
                />
              ))}
              <span className="list-tools">
                <Tool
                  bare
                  aria-label={`Insert after ${label} ${i + 1}`}
                  onClick={() => onChange([...rows.slice(0, i + 1), [...row], ...rows.slice(i + 1)])}
                >
                  +
                </Tool>
                <Tool
                  bare
                  aria-label={`Remove ${label} ${i + 1}`}
                  disabled={rows.length <= least}
                  onClick={() => onChange(rows.filter((_, n) => n !== i))}
                >
                  ×
                </Tool>
              </span>
            </span>
          ))}
          <span className="row" style={{ gap: 6 }}>
            <Tool onClick={() => onChange([...rows, fresh()])}>Add {label}</Tool>
            <span className="quiet">paste {columns.length > 1 ? `rows of ${columns.map((c) => c.label).join(', ')}` : 'a column'} here</span>
          </span>
        </span>
      )}
    </span>
  );
}
