import { formatSI } from '@jadebell/core/expressions/format';
import { complete, curveAround, type Formula, formulas, tryCompute } from '@jadebell/core/formulas';
import { Button, Dialog, DialogTitle } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { Chip } from '../ledger/Chip.tsx';
import { freeName } from '../project/edits.ts';
import { previewExpression } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { SettingRow } from '../kit/SettingRow.tsx';
import { useDark } from '../ui/useDark.ts';
import { Choice } from '../kit/Choice.tsx';
import { Pick } from '../kit/Pick.tsx';
import { Message } from '../kit/Message.tsx';
import { TwoPanes } from '../kit/TwoPanes.ts';
import { SettingList } from '../kit/SettingList.ts';

const groups = [...new Set(formulas.map((f) => f.family))].map((title) => ({
  title,
  items: formulas.filter((f) => f.family === title).map((f) => ({ value: f.name, label: f.title })),
}));

/** Values of expressions in SI as they are typed; null where one has none. */
function useValues(formula: Formula, texts: readonly string[]): (number | null)[] {
  const document = useProject((s) => s.document)!;
  const [values, setValues] = useState<(number | null)[]>([]);
  const key = texts.join('\n');
  useEffect(() => {
    let current = true;
    void Promise.all(formula.args.map((a, i) => previewExpression(texts[i] || '?', a.quantity))).then(
      (all) => current && setValues(all.map((p) => p.si)),
    );
    return () => {
      current = false;
    };
    // The texts are compared by their content.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [formula, key, document]);
  return values;
}

/** The design functions as a page: both ways, a curve around the point, and 'use as a parameter'. */
export function Calculator({ onClose }: { onClose(): void }) {
  const [name, setName] = useState('microstrip_width');
  const [texts, setTexts] = useState<Record<string, string>>({});
  const formula = formulas.find((f) => f.name === name)!;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="calculator-title">
      <DialogTitle id="calculator-title" sx={{ fontSize: 17 }}>
        Calculator
      </DialogTitle>
      <TwoPanes>
        <nav aria-label="Functions" className="pane-list">
          <Pick label="Functions" groups={groups} value={name} onChange={setName} />
        </nav>
        <Sheet key={name} formula={formula} texts={texts} onText={(arg, text) => setTexts((t) => ({ ...t, [arg]: text }))} onClose={onClose} />
      </TwoPanes>
    </Dialog>
  );
}

interface SheetProps {
  formula: Formula;
  texts: Record<string, string>;
  onText(arg: string, text: string): void;
  onClose(): void;
}

function Sheet({ formula, texts, onText, onClose }: SheetProps) {
  const edit = useProject((s) => s.edit);
  const dark = useDark();
  const used = formula.args.map((a) => texts[a.name] ?? a.example);
  const values = useValues(formula, used);
  const [vary, setVary] = useState(0);
  const whole = values.length === formula.args.length ? complete(formula, values) : null;
  const result = useMemo(() => (whole ? tryCompute(formula, whole) : null), [formula, whole]);
  const curve = useMemo(() => (whole && result && 'si' in result ? curveAround(formula, whole, vary) : null), [formula, whole, result, vary]);
  const call = `${formula.name}(${used.join(', ')})`;
  const style = traceStyle(1, dark);
  const take = (): void => {
    edit('parameter from the calculator', (d) => ({
      ...d,
      parameters: [...d.parameters, { name: freeName(d, 'parameters', formula.name), expression: call, note: formula.title.toLowerCase() }],
    }));
    onClose();
  };
  return (
    <section className="pane" aria-label={formula.title}>
      <h3 style={{ fontSize: 15 }}>{formula.title}</h3>
      <p className="quiet">{formula.about}.</p>
      <SettingList style={{ padding: 0 }}>
        {formula.args.map((a, i) => (
          <SettingRow key={a.name} title={`${a.about} (${a.name})`}>
            <Chip label={a.about} quantity={a.quantity} value={used[i]} onChange={(v) => onText(a.name, v)} />
          </SettingRow>
        ))}
      </SettingList>
      <p className="result mono" role="status">
        {result === null ? '…' : 'fault' in result ? <span className="bad">{result.fault}</span> : formatSI(result.si, formula.result, 5)}
      </p>
      {result && 'outside' in result && result.outside && (
        <Message tone="warn" role="note">
          {result.outside}
        </Message>
      )}
      {curve && curve.x.length > 2 && (
        <>
          <span className="quiet">
            over{' '}
            <Choice
              label="Curve over"
              value={vary}
              options={formula.args.map((a, i) => ({ value: i, label: a.about, disabled: !whole?.[i] }))}
              onChange={setVary}
            />
          </span>
          <div style={{ height: 190 }}>
            <Lines
              x={{ label: formula.args[vary].about, unit: formula.args[vary].quantity, values: curve.x }}
              y={{ label: formula.result, unit: formula.result }}
              traces={[{ name: formula.title, color: style.color, values: curve.y }]}
              cursor={whole![vary]}
            />
          </div>
        </>
      )}
      <div className="row" style={{ gap: 10, marginTop: 8 }}>
        <code className="mono">{call}</code>
        <span className="grow" />
        <Button variant="contained" disabled={!result || 'fault' in result} onClick={take}>
          Use as a parameter
        </Button>
      </div>
      <p className="quiet source">
        {formula.source}. Valid for {formula.range}.
      </p>
    </section>
  );
}
