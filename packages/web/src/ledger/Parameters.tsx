import { Add, Delete, Tune } from '../kit/icons.tsx';
import { type Parameter, parametersUsed, type Problem } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { Button, ButtonBase } from '@mui/material';
import { memo, useMemo, useState } from 'react';
import { freeName, removeEntry } from '../project/edits.ts';
import { problemsAt, useModel, useProblemsOf } from '../project/model.ts';
import { showDialog } from '../ui/dialogs.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { ParameterName, useParameterRename } from './parameterName.tsx';
import { ParameterPaste } from './ParameterPaste.tsx';
import { ParameterTable } from './ParameterTable.tsx';
import { Message } from '../kit/Message.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Field } from '../kit/Field.tsx';
import { IconTool } from '../kit/IconTool.tsx';

/** A number with at most a unit needs no value beside it. */
const plain = /^\s*[-+]?[\d.]+(e[-+]?\d+)?\s*[A-Za-z]*\s*$/i;

/** How many parameters a group may have before it begins folded. */
const many = 12;

/** The parameters that open the ledger, in groups that fold, or as a table. */
export const Parameters = memo(function Parameters() {
  const document = useProject((s) => s.document)!;
  const { parameters } = document;
  const problems = useModel((s) => s.view.problems);
  const [table, setTable] = useState(false);
  const [pasting, setPasting] = useState(false);
  const groups = [...new Set(parameters.map((g) => g.group ?? ''))].sort((a, b) => Number(a !== '') - Number(b !== ''));
  const used = useMemo(() => parametersUsed(document), [document]);
  return (
    <section aria-label="Parameters">
      <Head any={parameters.length > 0} table={table} onTable={setTable} onPaste={setPasting} />
      {!parameters.length && <p className="quiet pad">Name the dimensions that you will want to change, then use the names in the lines below.</p>}
      {table && parameters.length > 0 ? (
        <ParameterTable parameters={parameters} used={used} />
      ) : (
        groups.map((group) => (
          <Group key={group} title={group} parameters={parameters.filter((g) => (g.group ?? '') === group)} used={used} problems={problems} />
        ))
      )}
      {pasting && <ParameterPaste onClose={() => setPasting(false)} />}
    </section>
  );
});

interface HeadProps {
  any: boolean;
  table: boolean;
  onTable(table: boolean): void;
  onPaste(pasting: true): void;
}

/** Apart, as the rest is drawn anew with every value. */
const Head = memo(function Head({ any, table, onTable, onPaste }: HeadProps) {
  const { edit } = useProject.getState();
  return (
    <header>
      <h2>Parameters</h2>
      <span className="grow" />
      {any && (
        <Tool aria-pressed={table} onClick={() => onTable(!table)}>
          Table
        </Tool>
      )}
      <Tool onClick={() => onPaste(true)}>Paste</Tool>
      <Tool onClick={() => showDialog('calculator')}>Calculator</Tool>
      <Button
        startIcon={<Add />}
        onClick={() =>
          edit('add parameter', (d) => ({ ...d, parameters: [...d.parameters, { name: freeName(d, 'parameters', 'size'), expression: '10 mm' }] }))
        }
      >
        Add parameter
      </Button>
    </header>
  );
});

interface GroupProps {
  title: string;
  parameters: Parameter[];
  used: ReadonlySet<string>;
  problems: Problem[];
}

function Group({ title, parameters, used, problems }: GroupProps) {
  const failing = parameters.some((g) => problemsAt(problems, 'parameters', g.name).length);
  const [open, setOpen] = useState(!title || parameters.length <= many || failing);
  return (
    <div>
      {title && (
        <ButtonBase className="group-title" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? '▾' : '▸'} {title}
          {!open && <span className="mono">{parameters.map((g) => g.name).join(' ')}</span>}
        </ButtonBase>
      )}
      {open && parameters.map((g) => <ParameterRow key={g.name} parameter={g} unused={!used.has(g.name)} />)}
    </div>
  );
}

const ParameterRow = memo(function ParameterRow({ parameter, unused }: { parameter: Parameter; unused: boolean }) {
  const { edit } = useProject.getState();
  const problems = useProblemsOf('parameters', parameter.name);
  const value = useModel((s) => s.view.summary[parameter.name]);
  const [fault, rename] = useParameterRename(parameter.name);
  const set = (label: string, change: (g: Parameter) => Parameter): void =>
    edit(label, (d) => ({ ...d, parameters: d.parameters.map((g) => (g.name === parameter.name ? change(g) : g)) }));
  const dialable = value && value.si !== 0;
  const computed = value ? formatSI(value.si, value.measure) : null;
  const toggleDial = (): void =>
    set('dial', (g) => {
      const { dial, ...rest } = g;
      if (dial) return rest;
      const measure = value?.measure ?? 'number';
      const ends = [0.5, 1.5].map((f) => f * (value?.si ?? 1)).sort((a, b) => a - b);
      return { ...rest, dial: { min: formatSI(ends[0], measure, 3), max: formatSI(ends[1], measure, 3) } };
    });
  return (
    <>
      <div className="parameter">
        <ParameterName name={parameter.name} onRename={rename} />
        <span className="row" style={{ gap: 4, flexWrap: 'wrap' }}>
          ={' '}
          <Chip
            label={`value of ${parameter.name}`}
            quantity="any"
            value={parameter.expression}
            problems={problems}
            onChange={(expression) => set(`value ${parameter.name}`, (g) => ({ ...g, expression }))}
          />
          {computed && !plain.test(parameter.expression) && <span className="quiet mono">{computed}</span>}
          {unused && (
            <span className="unused" title="No line, port or setting uses this parameter">
              unused
            </span>
          )}
        </span>
        <Field
          look="plain"
          label={`note on ${parameter.name}`}
          placeholder="note"
          value={parameter.note ?? ''}
          onChange={(note) => set(`note ${parameter.name}`, ({ note: _, ...g }) => (note ? { ...g, note } : g))}
        />
        <span className="tools" style={parameter.dial ? { opacity: 1 } : undefined}>
          <IconTool
            label={`Dial for ${parameter.name}`}
            hint={parameter.dial ? 'Take the dial down' : 'Put up as a dial'}
            icon={<Tune />}
            aria-pressed={!!parameter.dial}
            disabled={!dialable && !parameter.dial}
            color={parameter.dial ? 'primary' : 'default'}
            onClick={toggleDial}
          />
          <IconTool
            label={`Remove parameter ${parameter.name}`}
            hint="Remove"
            icon={<Delete />}
            onClick={() => edit('remove parameter', (d) => removeEntry(d, 'parameters', parameter.name))}
          />
        </span>
      </div>
      {(fault || problems.length > 0) && (
        <Message tone={!fault && problems.every((p) => p.severity === 'warning') ? 'warn' : 'bad'} style={{ padding: '0 14px 2px' }}>
          {fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}
        </Message>
      )}
    </>
  );
});
