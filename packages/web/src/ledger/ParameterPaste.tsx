import { type Parameter, nameText } from '@jadebell/core/document';
import { parseTable } from '@jadebell/core/formats/table';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useState } from 'react';
import { useProject } from '../project/store.ts';
import { Field } from '../kit/Field.tsx';
import { Message } from '../kit/Message.tsx';

/** Parameters in a table of name, expression, note and group; what is wrong with the others, by row. */
function readParameters(text: string): { parameters: Parameter[]; wrong: string[] } {
  const parameters: Parameter[] = [];
  const wrong: string[] = [];
  parseTable(text).forEach(([name = '', expression = '', note = '', group = ''], i) => {
    if (/^name$/i.test(name)) return;
    if (!nameText.safeParse(name).success)
      wrong.push(`Row ${i + 1}: ‘${name}’ is no name; a name starts with a letter and has letters, digits and _ only.`);
    else if (!expression) wrong.push(`Row ${i + 1}: ${name} has no expression.`);
    else if (expression.length > 300) wrong.push(`Row ${i + 1}: the expression of ${name} is longer than 300 characters.`);
    else if (parameters.some((g) => g.name === name)) wrong.push(`Row ${i + 1}: ${name} stands twice in the table.`);
    else parameters.push({ name, expression, ...(note ? { note: note.slice(0, 500) } : {}), ...(group ? { group: group.slice(0, 60) } : {}) });
  });
  return { parameters, wrong };
}

/** Takes parameters from a table; those of a known name get the new value. */
export function ParameterPaste({ onClose }: { onClose(): void }) {
  const edit = useProject((s) => s.edit);
  const own = useProject((s) => s.document?.parameters) ?? [];
  const [text, setText] = useState('');
  const { parameters, wrong } = readParameters(text);
  const known = new Set(own.map((g) => g.name));
  const changed = parameters.filter((g) => known.has(g.name)).length;
  const take = (): void => {
    edit('paste parameters', (d) => ({
      ...d,
      parameters: [
        ...d.parameters.map((g) => ({ ...g, ...parameters.find((n) => n.name === g.name) })),
        ...parameters.filter((g) => !known.has(g.name)),
      ],
    }));
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle sx={{ fontSize: 17 }}>Parameters from a table</DialogTitle>
      <DialogContent>
        <Field
          autoFocus
          look="table"
          mono
          label="Table of parameters"
          rows={8}
          placeholder={'name\texpression\tnote\tgroup\nboard_h\t0.5 mm\tthickness of the board'}
          value={text}
          onChange={setText}
        />
        {wrong.slice(0, 6).map((w) => (
          <Message key={w}>{w}</Message>
        ))}
        <p className="quiet" style={{ marginTop: 8 }}>
          {text.trim()
            ? `${parameters.length - changed} new, ${changed} changed${wrong.length ? `, ${wrong.length} rows left out` : ''}.`
            : 'Paste rows of name, expression, note and group from a spreadsheet.'}
        </p>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!parameters.length} onClick={take}>
          Take {parameters.length}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
