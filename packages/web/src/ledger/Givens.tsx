import type { Given, Problem } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/format';
import Add from '@mui/icons-material/Add';
import Delete from '@mui/icons-material/DeleteOutlined';
import Tune from '@mui/icons-material/Tune';
import { Button, IconButton, Tooltip } from '@mui/material';
import { useState } from 'react';
import { freeName, nameFault, removeEntry, renameGiven } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';

/** The parameters that open the ledger, in groups that fold. */
export function Givens() {
  const givens = useProject((s) => s.document?.givens) ?? [];
  const { view } = useModel();
  const edit = useProject((s) => s.edit);
  const groups = [...new Set(givens.map((g) => g.group ?? ''))];
  return (
    <section aria-label="Givens">
      <header>
        <h2>Givens</h2>
        <span className="grow" />
        <Button
          startIcon={<Add />}
          onClick={() => edit('add given', (d) => ({ ...d, givens: [...d.givens, { name: freeName(d, 'givens', 'size'), expression: '10 mm' }] }))}
        >
          Add given
        </Button>
      </header>
      {!givens.length && <p className="quiet pad">Name the dimensions that you will want to change, then use the names in the lines below.</p>}
      {groups.map((group) => (
        <Group key={group} title={group} givens={givens.filter((g) => (g.group ?? '') === group)} problems={view.problems} />
      ))}
    </section>
  );
}

function Group({ title, givens, problems }: { title: string; givens: Given[]; problems: Problem[] }) {
  const [open, setOpen] = useState(true);
  return (
    <div>
      {title && (
        <button type="button" className="group-title" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? '▾' : '▸'} {title}
          {!open && <span className="mono">{givens.map((g) => g.name).join(' ')}</span>}
        </button>
      )}
      {open && givens.map((g) => <GivenRow key={g.name} given={g} problems={problemsAt(problems, 'givens', g.name)} />)}
    </div>
  );
}

function GivenRow({ given, problems }: { given: Given; problems: Problem[] }) {
  const edit = useProject((s) => s.edit);
  const value = useModel((s) => s.view.summary[given.name]);
  const [fault, setFault] = useState<string | null>(null);
  const set = (label: string, change: (g: Given) => Given): void =>
    edit(label, (d) => ({ ...d, givens: d.givens.map((g) => (g.name === given.name ? change(g) : g)) }));
  const rename = (name: string): void => {
    const { document } = useProject.getState();
    if (!document || name === given.name) return setFault(null);
    const wrong = nameFault(document, 'givens', name);
    setFault(wrong);
    if (!wrong) edit('rename given', (d) => renameGiven(d, given.name, name));
  };
  const dialable = value && value.measure !== 'plain number';
  const computed = value ? formatSI(value.si, value.measure) : null;
  const toggleDial = (): void =>
    set('dial', (g) => {
      const { dial, ...rest } = g;
      if (dial) return rest;
      const measure = value?.measure ?? 'number';
      return { ...rest, dial: { min: formatSI((value?.si ?? 1) * 0.5, measure, 3), max: formatSI((value?.si ?? 1) * 1.5, measure, 3) } };
    });
  return (
    <>
      <div className="given">
        <input
          className="plain-input name-input"
          aria-label={`name of given ${given.name}`}
          defaultValue={given.name}
          key={given.name}
          spellCheck={false}
          onBlur={(e) => rename(e.target.value.trim())}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
        <span className="row" style={{ gap: 4, flexWrap: 'wrap' }}>
          ={' '}
          <Chip
            label={`value of ${given.name}`}
            quantity="any"
            value={given.expression}
            problems={problems}
            onChange={(expression) => set(`value ${given.name}`, (g) => ({ ...g, expression }))}
          />
          {computed && computed.replace(/\s/g, '') !== given.expression.replace(/\s/g, '') && <span className="quiet mono">{computed}</span>}
        </span>
        <input
          className="plain-input quiet"
          aria-label={`note on ${given.name}`}
          placeholder="note"
          value={given.note ?? ''}
          onChange={(e) => set(`note ${given.name}`, ({ note: _, ...g }) => (e.target.value ? { ...g, note: e.target.value } : g))}
        />
        <span className="tools" style={given.dial ? { opacity: 1 } : undefined}>
          <Tooltip title={given.dial ? 'Take the dial down' : 'Put up as a dial'}>
            <span>
              <IconButton
                aria-label={`Dial for ${given.name}`}
                aria-pressed={!!given.dial}
                disabled={!dialable && !given.dial}
                color={given.dial ? 'primary' : 'default'}
                onClick={toggleDial}
                sx={{ p: '2px', '& svg': { fontSize: 16 } }}
              >
                <Tune />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title="Remove">
            <IconButton
              aria-label={`Remove given ${given.name}`}
              onClick={() => edit('remove given', (d) => removeEntry(d, 'givens', given.name))}
              sx={{ p: '2px', '& svg': { fontSize: 16 } }}
            >
              <Delete />
            </IconButton>
          </Tooltip>
        </span>
      </div>
      {(fault || problems.length > 0) && (
        <div role="alert" className="fault" style={{ padding: '0 14px 2px' }}>
          {fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}
        </div>
      )}
    </>
  );
}
