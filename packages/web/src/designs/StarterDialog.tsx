import { evaluateExpression, evaluateParameters } from '@jadebell/core/expressions';
import { emptyProject, type Project } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { type Starter, starterGroups, starters } from '@jadebell/core/starters';
import { Button, Dialog, DialogActions, DialogTitle } from '@mui/material';
import { SettingRow } from '../kit/SettingRow.tsx';
import { useMemo, useState } from 'react';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { Pick } from '../kit/Pick.tsx';
import { DesignPicture } from './DesignPicture.tsx';
import { Message } from '../kit/Message.tsx';
import { TwoPanes } from '../kit/TwoPanes.ts';
import { SettingList } from '../kit/SettingList.ts';

/** Why an input cannot be taken, or null. */
function inputFault(kind: string, text: string): string | null {
  if (kind === 'material') return null;
  const result = evaluateExpression(text || ' ', kind as 'length', evaluateParameters(emptyProject('t')), { part: 'parameters' });
  if ('problem' in result) return `${result.problem.message} ${result.problem.fix}`;
  return result.si > 0 ? null : 'Give a value above zero.';
}

const groups = starterGroups.map((title) => ({
  title,
  items: starters.filter((s) => s.group === title).map((s) => ({ value: s.kind as string, label: s.title })),
}));

/** Chooses a starter and what it is sized for. */
export default function StarterDialog({ onStart, onClose }: { onStart(project: Project): void; onClose(): void }) {
  const [kind, setKind] = useState<string>('patch-inset');
  const [values, setValues] = useState<Record<string, string>>({});
  const starter = starters.find((s) => s.kind === kind)!;
  const valueOf = (s: Starter, name: string): string => values[`${s.kind} ${name}`] ?? s.inputs.find((i) => i.name === name)!.otherwise;
  const faults = starter.inputs.map((i) => inputFault(i.kind, valueOf(starter, i.name)));
  const start = (): void => onStart(starter.build(Object.fromEntries(starter.inputs.map((i) => [i.name, valueOf(starter, i.name)]))));
  const sound = faults.every((f) => f === null);
  const asked = JSON.stringify(starter.inputs.map((i) => [i.name, sound ? valueOf(starter, i.name) : i.otherwise]));
  // What stands in the picture: as it is asked, or while that is at fault as it is offered.
  const drawn = useMemo(() => starter.build(Object.fromEntries(JSON.parse(asked) as [string, string][])), [starter, asked]);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="starter-title">
      <DialogTitle id="starter-title" sx={{ fontSize: 17 }}>
        Start from a design
      </DialogTitle>
      <TwoPanes style={{ height: 520 }}>
        <nav aria-label="Starters" className="pane-list">
          <Pick label="Designs" groups={groups} value={kind} onChange={setKind} />
        </nav>
        <section className="pane" aria-label={starter.title}>
          <h3 style={{ fontSize: 15 }}>{starter.title}</h3>
          <p>{starter.about}.</p>
          <SettingList style={{ padding: 0, marginTop: 12 }}>
            {starter.inputs.map((input, i) => (
              <SettingRow key={input.name} title={input.label}>
                {input.kind === 'material' ? (
                  <Choice
                    look="chip"
                    label={input.label}
                    value={valueOf(starter, input.name)}
                    options={plainOptions(
                      library
                        .filter(
                          (m) => m.kind === 'dielectric' && (starter.group === 'Optical' ? m.group === 'Optical' : m.permittivity !== undefined),
                        )
                        .map((m) => m.name),
                    )}
                    onChange={(v) => setValues({ ...values, [`${starter.kind} ${input.name}`]: v })}
                  />
                ) : (
                  <Field
                    mono
                    label={input.label}
                    failing={faults[i] !== null}
                    value={valueOf(starter, input.name)}
                    onChange={(v) => setValues({ ...values, [`${starter.kind} ${input.name}`]: v })}
                  />
                )}
                {faults[i] && <Message>{faults[i]}</Message>}
              </SettingRow>
            ))}
          </SettingList>
          <p className="quiet" style={{ marginTop: 14 }}>
            {drawn.note}
          </p>
          <DesignPicture project={drawn} title={starter.title} />
        </section>
      </TwoPanes>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!sound} onClick={start}>
          Start
        </Button>
      </DialogActions>
    </Dialog>
  );
}
