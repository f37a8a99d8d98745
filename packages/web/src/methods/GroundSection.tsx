import { averageEarth, earths, type GroundChoice, type Quantity } from '@jadebell/core/document';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { Message } from '../kit/Message.tsx';
import { SettingList } from '../kit/SettingList.ts';

const options = [
  { value: 'none', label: 'none: empty space all around' },
  { value: 'perfect', label: 'a perfect plane without end' },
  { value: 'earth', label: 'real earth' },
];

/** What lies under the wires. */
export function GroundSection() {
  const { ground } = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  const change = (next: Partial<GroundChoice>): void => edit('ground', (d) => ({ ...d, ground: { ...d.ground!, ...next } }));
  const choose = (kind: string): void =>
    edit('ground', ({ ground: old, ...d }) =>
      kind === 'none' ? d : { ...d, ground: { ...old, kind: kind as GroundChoice['kind'], at: old?.at ?? '0 mm' } },
    );
  const chip = (key: 'at' | 'permittivity' | 'conductivity', label: string, quantity: Quantity, value: string) => (
    <Chip
      label={label}
      quantity={quantity}
      value={value}
      problems={problemsAt(problems, 'boundaries', undefined, `ground.${key}`)}
      onChange={(v) => change({ [key]: v })}
    />
  );
  return (
    <section aria-label="Ground">
      <header>
        <h2>Ground</h2>
      </header>
      <SettingList>
        <dt>ground</dt>
        <dd>
          <Choice look="chip" label="ground" value={ground?.kind ?? 'none'} options={options} onChange={choose} />
          {ground && <>at z = {chip('at', 'height of the ground', 'length', ground.at)}</>}
        </dd>
        {ground?.kind === 'earth' && (
          <>
            <dt>earth</dt>
            <dd>
              <Choice
                look="chip"
                label="kind of earth"
                value={earths.findIndex((e) => e.permittivity === ground.permittivity && e.conductivity === ground.conductivity)}
                options={[{ value: -1, label: 'by its figures' }, ...earths.map(({ title }, value) => ({ value, label: title }))]}
                onChange={(n) => n >= 0 && change({ permittivity: earths[n].permittivity, conductivity: earths[n].conductivity })}
              />
              permittivity {chip('permittivity', 'permittivity of the earth', 'number', ground.permittivity ?? averageEarth.permittivity)}
              conductivity {chip('conductivity', 'conductivity of the earth', 'conductivity', ground.conductivity ?? averageEarth.conductivity)}
            </dd>
          </>
        )}
      </SettingList>
      <p className="quiet pad">
        {ground?.kind === 'earth'
          ? 'Solved exactly, by Sommerfeld’s integrals. Kinds of earth are those of Recommendation ITU-R P.527 at low frequencies: above some 10 MHz soils conduct better, so give figures there. Wires stay above it; far fields, currents and voltages are told, no fields close by.'
          : 'Wires radiate into open space: there is no region to close. A wire whose end stands on a perfect plane is joined to it.'}
      </p>
      {problems
        .filter((p) => p.place.part === 'boundaries' && p.severity === 'error')
        .map((p) => (
          <Message key={p.code} style={{ padding: '0 14px' }}>
            {p.message} {p.fix}
          </Message>
        ))}
    </section>
  );
}
