import { type Line, nameText, shapeGroups, shapeOf, shapes, withPath } from '@jadebell/core/document';
import { parseTable } from '@jadebell/core/formats/table';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TableRow, TableCell, TableHead, TableBody } from '@mui/material';
import { useMemo, useState } from 'react';
import { freeName } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import { Figures } from '../kit/Figures.tsx';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';

const plainNumber = /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i;
const lengthUnits = ['mm', 'um', 'nm', 'cm', 'm', 'mil', 'inch'];

/** Column of the table that a chip takes by its heading, or -1. */
const guess = (headings: readonly string[], label: string): number => {
  const plain = (t: string): string => t.toLowerCase().replaceAll(/[^a-z0-9]/g, '');
  const wanted = plain(label);
  const exact = headings.findIndex((h) => plain(h) === wanted);
  return exact >= 0 ? exact : headings.findIndex((h) => h && (wanted.endsWith(plain(h)) || plain(h).endsWith(wanted)) && plain(h).length > 0);
};

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
  const chips = shapeOf(template)
    .chips(template)
    .filter((c) => !/^points\./.test(c.path));
  const headed = rows.length > 1 && rows[0].every((c) => !/^[-+.]?\d/.test(c));
  const headings = headed ? rows[0] : (rows[0] ?? []).map((_, i) => `column ${i + 1}`);
  const body = headed ? rows.slice(1) : rows;
  const columnOf = (key: string, label: string): number => columns[key] ?? (headed ? guess(headings, label) : -1);
  const used = ['name', ...chips.map((c) => c.path)].filter((k) => columnOf(k, chips.find((c) => c.path === k)?.label ?? 'name') >= 0);
  const tooMany = body.length > 2000;

  const make = (): void => {
    edit('paste table', (d) => {
      const taken = new Set<string>();
      const lines = body.map((row): Line => {
        const at = columnOf('name', 'name');
        const wish = at >= 0 && nameText.safeParse(row[at]).success ? row[at] : kind.replaceAll('-', '_');
        const name = freeName(d, 'lines', wish, taken);
        taken.add(name);
        let line: Line = { ...template, name };
        for (const chip of chips) {
          const c = columnOf(chip.path, chip.label);
          const cell = c >= 0 ? row[c] : '';
          if (!cell) continue;
          const units: Record<string, string> = { length: unit, angle: 'deg' };
          line = withPath(line, chip.path, plainNumber.test(cell) && units[chip.quantity] ? `${cell} ${units[chip.quantity]}` : cell);
        }
        return line;
      });
      return { ...d, lines: [...d.lines, ...lines] };
    });
    onClose();
  };
  const chooser = (key: string, label: string) => (
    <TableRow key={key}>
      <TableCell>{label}</TableCell>
      <TableCell>
        <Choice
          look="chip"
          label={`column for ${label}`}
          value={columnOf(key, label)}
          options={[{ value: -1, label: key === 'name' ? 'numbered' : 'as it is' }, ...headings.map((h, i) => ({ value: i, label: h }))]}
          onChange={(c) => setColumns({ ...columns, [key]: c })}
        />
      </TableCell>
      <TableCell className="mono quiet">{columnOf(key, label) >= 0 ? (body[0]?.[columnOf(key, label)] ?? '') : ''}</TableCell>
    </TableRow>
  );
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
          <Figures>
            <TableHead>
              <TableRow>
                <TableCell>value</TableCell>
                <TableCell>column</TableCell>
                <TableCell>first row</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {chooser('name', 'name')}
              {chips.map((c) => chooser(c.path, c.label))}
            </TableBody>
          </Figures>
        )}
        <p className={tooMany ? 'bad' : 'quiet'} style={{ marginTop: 8 }}>
          {tooMany
            ? `The table has ${body.length} rows; at most 2000 lines can be made at once.`
            : rows.length
              ? `${body.length} rows; the other values are those of ${model?.kind === kind ? `the picked line, ${model.name}` : `a new ${shapeOf(template).title.toLowerCase()}`}.`
              : 'Copy rows from a spreadsheet and paste them here. A first row of headings is matched to the values by name.'}
        </p>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!body.length || tooMany || !used.length} onClick={make}>
          Make {body.length} {body.length === 1 ? 'line' : 'lines'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
