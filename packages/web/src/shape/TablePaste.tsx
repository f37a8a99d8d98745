import { type Line, shapeGroups, shapeOf, shapes } from '@jadebell/core/document';
import { parseTable } from '@jadebell/core/formats/table';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TableRow, TableCell, TableHead, TableBody } from '@mui/material';
import { useMemo, useState } from 'react';
import { useProject } from '../project/store.ts';
import { Figures } from '../kit/Figures.tsx';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { columnChips, guessColumn, headedTable, mostRows, tableLines } from './tableLines.ts';

const lengthUnits = ['mm', 'um', 'nm', 'cm', 'm', 'mil', 'inch'];

/** Makes one line of a kind per row of a pasted table. */
export function TablePaste({ text: given, onClose }: { text: string; onClose(): void }) {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const picked = useProject((s) => s.picked);
  const model = document.lines.find((l) => l.name === picked && l.kind !== 'section');
  const [text, setText] = useState(given);
  const [kind, setKind] = useState(model?.kind ?? 'box');
  const [unit, setUnit] = useState('mm');
  const [columns, setColumns] = useState<Record<string, number>>({});
  const rows = useMemo(() => (text.trim() ? parseTable(text) : []), [text]);
  const template = useMemo((): Line => (model?.kind === kind ? model : shapes.find((s) => s.kind === kind)!.fresh('row')), [model, kind]);
  const values = [{ key: 'name', label: 'name' }, ...columnChips(template).map((c) => ({ key: c.path, label: c.label }))];
  const { headed, headings, body } = headedTable(rows);
  const columnOf = (key: string): number => {
    const label = values.find((v) => v.key === key)!.label;
    return columns[key] ?? (headed ? guessColumn(headings, label) : -1);
  };
  const tooMany = body.length > mostRows;
  const make = (): void => {
    edit('paste table', (d) => ({ ...d, lines: [...d.lines, ...tableLines(body, template, columnOf, unit, d)] }));
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle sx={{ fontSize: 17 }}>One line for each row</DialogTitle>
      <DialogContent>
        <Field
          look="table"
          mono
          label="Table"
          rows={6}
          placeholder={'name\textent along x\tposition x\nstub1\t3 mm\t0 mm'}
          value={text}
          onChange={setText}
        />
        <div className="row" style={{ gap: 10, margin: '8px 0' }}>
          <span>
            Lines of the kind{' '}
            <Choice
              look="chip"
              label="Kind of line"
              value={kind}
              options={shapeGroups
                .filter((g) => g !== 'Order')
                .flatMap((g) => [{ heading: g }, ...shapes.filter((s) => s.group === g).map((s) => ({ value: s.kind, label: s.title }))])}
              onChange={(k) => setKind(k as Line['kind'])}
            />
          </span>
          <span>
            numbers without a unit are{' '}
            <Choice look="chip" label="Unit of plain numbers" value={unit} options={plainOptions(lengthUnits)} onChange={setUnit} />
          </span>
        </div>
        {rows.length > 0 && (
          <ColumnTable
            values={values}
            headings={headings}
            first={body[0]}
            columnOf={columnOf}
            onChange={(key, c) => setColumns({ ...columns, [key]: c })}
          />
        )}
        <p className={tooMany ? 'bad' : 'quiet'} style={{ marginTop: 8 }}>
          {tooMany
            ? `The table has ${body.length} rows; at most ${mostRows} lines can be made at once.`
            : rows.length
              ? `${body.length} rows; the other values are those of ${model?.kind === kind ? `the picked line, ${model.name}` : `a new ${shapeOf(template).title.toLowerCase()}`}.`
              : 'Copy rows from a spreadsheet and paste them here. A first row of headings is matched to the values by name.'}
        </p>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!body.length || tooMany || values.every((v) => columnOf(v.key) < 0)} onClick={make}>
          Make {body.length} {body.length === 1 ? 'line' : 'lines'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface ColumnTableProps {
  values: readonly { key: string; label: string }[];
  headings: readonly string[];
  first: string[] | undefined;
  columnOf(key: string): number;
  onChange(key: string, column: number): void;
}

/** Which column gives which value, with what stands there in the first row. */
function ColumnTable({ values, headings, first, columnOf, onChange }: ColumnTableProps) {
  return (
    <Figures>
      <TableHead>
        <TableRow>
          <TableCell>value</TableCell>
          <TableCell>column</TableCell>
          <TableCell>first row</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {values.map(({ key, label }) => (
          <TableRow key={key}>
            <TableCell>{label}</TableCell>
            <TableCell>
              <Choice
                look="chip"
                label={`column for ${label}`}
                value={columnOf(key)}
                options={[{ value: -1, label: key === 'name' ? 'numbered' : 'as it is' }, ...headings.map((h, i) => ({ value: i, label: h }))]}
                onChange={(c) => onChange(key, c)}
              />
            </TableCell>
            <TableCell className="mono quiet">{first?.[columnOf(key)] ?? ''}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Figures>
  );
}
