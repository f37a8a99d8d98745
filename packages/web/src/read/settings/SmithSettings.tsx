import { termsOfS } from '@jadebell/core/cards';
import type { SmithCard } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { Choice } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { PortsTable } from '../../lens/PortsTable.tsx';
import { add, remove } from './curves/common.tsx';
import { Part, Quantity, Row } from './Fields.tsx';

interface Props {
  card: SmithCard;
  meta: ResultMeta;
  change(next: Partial<SmithCard>): void;
}

/** What a Smith chart shows. */
export function SmithSettings({ card, meta, change }: Props) {
  const terms = termsOfS(meta);
  const reflections = terms.filter((t) => t.to === meta.excitations[t.from]);
  const shown = card.terms.length ? card.terms : terms.slice(0, 1).map((t) => t.key);
  return (
    <>
      <Part title="Reflections">
        <div className="row" style={{ flexWrap: 'wrap' }}>
          {[...reflections, ...terms.filter((t) => !reflections.includes(t))].slice(0, 40).map((t) => (
            <Tick
              key={t.key}
              label={t.label}
              value={shown.includes(t.key)}
              onChange={(on) => change({ terms: on ? [...shown, t.key] : shown.filter((k) => k !== t.key) })}
            />
          ))}
        </div>
      </Part>
      <Part title="Ports, for all cards">
        <PortsTable meta={meta} />
      </Part>
      <Part title="Lines">
        <Row label="grid">
          <Choice
            label="Lines of the chart"
            value={card.grid}
            options={[
              { value: 'impedance', label: 'impedance' },
              { value: 'admittance', label: 'admittance' },
              { value: 'both', label: 'both' },
            ]}
            onChange={(grid) => change({ grid })}
          />
        </Row>
        <Row label="standing wave ratios">
          <TypedField
            label="Circles of standing wave ratio"
            width={120}
            value={card.ratios.join(', ')}
            placeholder="1.5, 2, 3"
            check={(t) =>
              t
                .split(/[,; ]+/)
                .filter(Boolean)
                .every((v) => Number(v) >= 1 && Number(v) <= 100) && t.split(/[,; ]+/).filter(Boolean).length <= 10
                ? null
                : 'up to ten numbers from 1 to 100'
            }
            onChange={(t) =>
              change({
                ratios: t
                  .split(/[,; ]+/)
                  .filter(Boolean)
                  .map(Number),
              })
            }
          />
        </Row>
      </Part>
      <Part title="Markers" action={add('Add a marker', () => change({ markers: [...card.markers, meta.recordAt[0] ?? 1e9] }))}>
        {card.markers.map((f, i) => (
          <Row key={i} label={`${i + 1}`}>
            <Quantity
              label={`Frequency of marker ${i + 1}`}
              width={110}
              value={f}
              measure="frequency"
              onChange={(v) => change({ markers: card.markers.map((m, k) => (k === i ? (v ?? m) : m)) })}
            />
            {remove(`Remove marker ${i + 1}`, () => change({ markers: card.markers.filter((_, k) => k !== i) }))}
          </Row>
        ))}
      </Part>
    </>
  );
}
