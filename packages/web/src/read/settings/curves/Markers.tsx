import type { Marker } from '@jadebell/core/document';
import { traceLetter } from '@jadebell/core/reading';
import { Choice } from '../../../kit/Choice.tsx';
import { Hint } from '../../../kit/Hint.tsx';
import { Mark } from '../../../kit/Tick.tsx';
import { Part, Quantity, Row } from '../Fields.tsx';
import { add, measureOver, remove, set, without, type CurvesProps } from './common.tsx';

/** Markers, at a place or where the curve has something. */
export function Markers({ card, change }: CurvesProps) {
  const measure = measureOver(card);
  const marker = (i: number, next: Partial<Marker>): void => change({ markers: set(card.markers, i, next) });
  const traceOptions = card.traces.map((t, i) => ({ value: String(i), label: `${traceLetter(i)}: ${t.name ?? (t.of || t.quantity)}` }));
  return (
    <Part
      title="Markers"
      action={add('Add a marker', () => change({ markers: [...card.markers, { kind: 'dip', trace: 0, nth: 1 }] }), !card.traces.length)}
    >
      {card.markers.map((m, i) => (
        <Row key={i} label={`${i + 1}`}>
          <Choice
            label={`Marker ${i + 1} follows`}
            value={m.kind}
            options={[
              { value: 'at', label: 'a place' },
              { value: 'peak', label: 'a peak' },
              { value: 'dip', label: 'a dip' },
              { value: 'level', label: 'a level' },
            ]}
            onChange={(kind) => marker(i, { kind })}
          />
          <Choice
            label={`Curve of marker ${i + 1}`}
            value={String(m.trace)}
            options={traceOptions}
            onChange={(t) => marker(i, { trace: Number(t) })}
          />
          {m.kind === 'at' && (
            <Quantity label={`Place of marker ${i + 1}`} value={m.x} measure={measure} optional onChange={(x) => marker(i, { x })} />
          )}
          {m.kind === 'level' && (
            <Quantity
              label={`Level of marker ${i + 1}`}
              value={m.level}
              measure="number"
              width={56}
              optional
              placeholder="0"
              onChange={(level) => marker(i, { level })}
            />
          )}
          {m.kind !== 'at' && (
            <Quantity
              label={`Which one marker ${i + 1} takes`}
              value={m.nth}
              measure="number"
              width={34}
              check={(v) => (Number.isInteger(v) && v >= 1 && v <= 50 ? null : '1 to 50')}
              onChange={(nth) => marker(i, { nth: nth ?? 1 })}
            />
          )}
          <Hint text="The other markers are told against this one">
            <Mark text="Δ" label={`Differences from marker ${i + 1}`} on={card.base === i} onChange={() => change({ base: i })} />
          </Hint>
          {remove(`Remove marker ${i + 1}`, () =>
            change({
              markers: without(card.markers, i),
              base: card.base === undefined || card.base === i ? undefined : card.base > i ? card.base - 1 : card.base,
            }),
          )}
        </Row>
      ))}
    </Part>
  );
}
