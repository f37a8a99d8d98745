import { allExpressions, type Given, type Problem } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/format';
import { namesUsed } from '@jadebell/core/uses';
import Add from '@mui/icons-material/Add';
import Delete from '@mui/icons-material/DeleteOutlined';
import Tune from '@mui/icons-material/Tune';
import { Button, IconButton, Tooltip } from '@mui/material';
import { useMemo, useState } from 'react';
import { freeName, removeEntry } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useDialogs } from '../frame/dialogs.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { GivenName, useGivenRename } from './givenName.tsx';
import { GivensPaste } from './GivensPaste.tsx';
import { GivensTable } from './GivensTable.tsx';

/** A number with at most a unit needs no value beside it. */
const plain = /^\s*[-+]?[\d.]+(e[-+]?\d+)?\s*[A-Za-z]*\s*$/i;

/** How many givens a group may have before it begins folded. */
const many = 12;

/** The parameters that open the ledger, in groups that fold, or as a table. */
export function Givens() {
  const document = useProject((s) => s.document)!;
  const { givens } = document;
  const problems = useModel((s) => s.view.problems);
  const edit = useProject((s) => s.edit);
  const [table, setTable] = useState(false);
  const [pasting, setPasting] = useState(false);
  const groups = [...new Set(givens.map((g) => g.group ?? ''))].sort((a, b) => Number(a !== '') - Number(b !== ''));
  const used = useMemo(() => new Set(allExpressions(document).flatMap(namesUsed)), [document]);
  return (
    <section aria-label="Givens">
      <header>
        <h2>Givens</h2>
        <span className="grow" />
        {givens.length > 0 && (
          <button type="button" className="tool" aria-pressed={table} onClick={() => setTable(!table)}>
            Table
          </button>
        )}
        <button type="button" className="tool" onClick={() => setPasting(true)}>
          Paste
        </button>
        <button type="button" className="tool" onClick={() => useDialogs.getState().show('calculator')}>
          Calculator
        </button>
        <Button
          startIcon={<Add />}
          onClick={() => edit('add given', (d) => ({ ...d, givens: [...d.givens, { name: freeName(d, 'givens', 'size'), expression: '10 mm' }] }))}
        >
          Add given
        </Button>
      </header>
      {!givens.length && <p className="quiet pad">Name the dimensions that you will want to change, then use the names in the lines below.</p>}
      {table && givens.length > 0 ? (
        <GivensTable givens={givens} used={used} />
      ) : (
        groups.map((group) => (
          <Group key={group} title={group} givens={givens.filter((g) => (g.group ?? '') === group)} used={used} problems={problems} />
        ))
      )}
      {pasting && <GivensPaste onClose={() => setPasting(false)} />}
    </section>
  );
}

interface GroupProps {
  title: string;
  givens: Given[];
  used: ReadonlySet<string>;
  problems: Problem[];
}

function Group({ title, givens, used, problems }: GroupProps) {
  const failing = givens.some((g) => problemsAt(problems, 'givens', g.name).length);
  const [open, setOpen] = useState(!title || givens.length <= many || failing);
  return (
    <div>
      {title && (
        <button type="button" className="group-title" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? '▾' : '▸'} {title}
          {!open && <span className="mono">{givens.map((g) => g.name).join(' ')}</span>}
        </button>
      )}
      {open && givens.map((g) => <GivenRow key={g.name} given={g} unused={!used.has(g.name)} problems={problemsAt(problems, 'givens', g.name)} />)}
    </div>
  );
}

function GivenRow({ given, unused, problems }: { given: Given; unused: boolean; problems: Problem[] }) {
  const edit = useProject((s) => s.edit);
  const value = useModel((s) => s.view.summary[given.name]);
  const [fault, rename] = useGivenRename(given.name);
  const set = (label: string, change: (g: Given) => Given): void =>
    edit(label, (d) => ({ ...d, givens: d.givens.map((g) => (g.name === given.name ? change(g) : g)) }));
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
      <div className="given">
        <GivenName name={given.name} onRename={rename} />
        <span className="row" style={{ gap: 4, flexWrap: 'wrap' }}>
          ={' '}
          <Chip
            label={`value of ${given.name}`}
            quantity="any"
            value={given.expression}
            problems={problems}
            onChange={(expression) => set(`value ${given.name}`, (g) => ({ ...g, expression }))}
          />
          {computed && !plain.test(given.expression) && <span className="quiet mono">{computed}</span>}
          {unused && (
            <span className="unused" title="No line, port or setting uses this given">
              unused
            </span>
          )}
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
        <div
          role="alert"
          className={`fault${!fault && problems.every((p) => p.severity === 'warning') ? ' caution' : ''}`}
          style={{ padding: '0 14px 2px' }}
        >
          {fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}
        </div>
      )}
    </>
  );
}
