import type { WiresCard } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { Part, Row, Span } from './Fields.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Tick } from '../../kit/Tick.tsx';

export function WiresSettings({ card, meta, change }: { card: WiresCard; meta: ResultMeta; change(next: Partial<WiresCard>): void }) {
  const names = (meta.wires ?? []).map((w) => w.name);
  return (
    <Part title="Current in wires">
      <Row label="shown">
        <Choice
          label="Shown"
          value={card.view}
          options={[
            { value: 'model', label: 'on the model' },
            { value: 'along', label: 'along each wire' },
          ]}
          onChange={(view) => change({ view })}
        />
        <Choice
          label="Moment"
          value={card.form}
          options={[
            { value: 'peak', label: 'size' },
            { value: 'instant', label: 'at the phase of the lens' },
            { value: 'phase', label: 'phase' },
          ]}
          onChange={(form) => change({ form })}
        />
      </Row>
      {card.view === 'model' ? (
        <Row label="scale">
          <Tick label="in dB" value={card.db} onChange={(db) => change({ db })} />
          {card.db && <Span value={card.span} otherwise={40} onChange={(span) => change({ span })} />}
        </Row>
      ) : (
        <Row label="wires">
          {names.slice(0, 64).map((name) => (
            <Tick
              key={name}
              label={name}
              value={card.of.includes(name)}
              onChange={(on) => change({ of: on ? [...card.of, name] : card.of.filter((n) => n !== name) })}
            />
          ))}
        </Row>
      )}
    </Part>
  );
}
