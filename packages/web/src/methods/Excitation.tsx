import { type Port, portKind } from '@jadebell/core/document';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { toggleExcitation, withFieldsOf, withAnotherWave, withWave } from '../project/excitation.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Message } from '../kit/Message.tsx';

const fieldOptions = [
  { value: 'first', label: 'the first alone' },
  { value: 'each', label: 'each by itself' },
  { value: 'together', label: 'waves together' },
];

/** Which ports are excited, and of what the recorded fields are. */
export function Excitation({ feeding }: { feeding: Port[] }) {
  const { ports, solve } = useProject((s) => s.document)!;
  const { excite, combine, keep } = solve;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  const excited = feeding.filter((p) => excite?.includes(p.name) ?? true);
  const several = feeding.length > 1 || feeding.some((p) => portKind(p).family === 'guided');
  if (feeding.some((p) => portKind(p).role === 'source'))
    return ports.some((p) => portKind(p).family === 'lumped' && portKind(p).role === 'port') ? (
      <p className="quiet pad">Excited from without, the structure has its lumped ports as loads.</p>
    ) : null;
  if (!several) return null;
  return (
    <div style={{ padding: '2px 14px 6px' }}>
      {feeding.length > 1 && (
        <div className="row" role="group" aria-label="Excited ports" style={{ gap: 4, flexWrap: 'wrap' }}>
          <span className="quiet">excite one after the other</span>
          {feeding.map((p) => (
            <Tool key={p.name} aria-pressed={excited.includes(p)} onClick={() => edit('excited ports', (d) => toggleExcitation(d, p.name))}>
              {p.name}
            </Tool>
          ))}
        </div>
      )}
      <div className="row" style={{ gap: 6 }}>
        <span className="quiet">fields are of</span>
        <Choice
          look="chip"
          label="fields are of"
          value={combine ? 'together' : (keep ?? 'first')}
          options={fieldOptions}
          onChange={(v) => edit('combined fields', (d) => withFieldsOf(d, v as 'first' | 'each' | 'together'))}
        />
        {combine && <Tool onClick={() => edit('add wave', withAnotherWave)}>Add wave</Tool>}
      </div>
      {combine?.map((wave, i) => {
        const port = feeding.find((p) => p.name === wave.port);
        const change = (next: Partial<typeof wave>): void => edit('wave', (d) => withWave(d, i, { ...wave, ...next }));
        return (
          <div key={i} role="group" aria-label={`wave ${i + 1}`}>
            <div className="row" style={{ gap: 4, flexWrap: 'wrap' }}>
              <Choice
                look="chip"
                label={`port of wave ${i + 1}`}
                value={wave.port}
                failing={!port}
                options={[...new Set([wave.port, ...excited.map((p) => p.name)])].map((name) => ({ value: name, label: name }))}
                onChange={(name) => change({ port: name, mode: 1 })}
              />
              {port && portKind(port).family === 'guided' && (
                <Choice
                  look="chip"
                  label={`mode of wave ${i + 1}`}
                  value={String(wave.mode)}
                  options={Array.from({ length: Math.max(9, wave.mode) }, (_, m) => ({ value: String(m + 1), label: `mode ${m + 1}` }))}
                  onChange={(m) => change({ mode: Number(m) })}
                />
              )}
              <span className="quiet">amplitude</span>
              <Chip
                label={`amplitude of wave ${i + 1}`}
                quantity="number"
                value={wave.amplitude}
                problems={problemsAt(problems, 'solve', undefined, `combine.${i}.amplitude`)}
                onChange={(amplitude) => change({ amplitude })}
              />
              <span className="quiet">phase</span>
              <Chip
                label={`phase of wave ${i + 1}`}
                quantity="angle"
                value={wave.phase}
                problems={problemsAt(problems, 'solve', undefined, `combine.${i}.phase`)}
                onChange={(phase) => change({ phase })}
              />
              <Tool bare aria-label={`Remove wave ${i + 1}`} onClick={() => edit('remove wave', (d) => withWave(d, i, null))}>
                ×
              </Tool>
            </div>
            {problemsAt(problems, 'solve', undefined, `combine.${i}`).map((p) => (
              <Message key={p.code}>
                {p.message} {p.fix}
              </Message>
            ))}
          </div>
        );
      })}
    </div>
  );
}
