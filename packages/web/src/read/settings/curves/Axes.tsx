import { Choice } from '../../../kit/Choice.tsx';
import { TypedField } from '../../../kit/Field.tsx';
import { Tick } from '../../../kit/Tick.tsx';
import { useProject } from '../../../project/store.ts';
import { Part, Quantity, Row } from '../Fields.tsx';
import { measureOver, unitsOf, type CurvesProps } from './common.tsx';

/** What the curves run over, and the ends, units and titles of the axes. */
export function Axes({ card, change }: CurvesProps) {
  const parameters = useProject((s) => s.document?.parameters) ?? [];
  const measure = measureOver(card);
  return (
    <Part title="Axes">
      <Row label="over">
        <Choice
          label="Curves over"
          value={card.over}
          options={[
            { value: 'own', label: 'frequency or time' },
            { value: 'wavelength', label: 'wavelength' },
            ...parameters.map((g) => ({ value: g.name, label: `${g.name}, over the runs` })),
          ]}
          onChange={(over) => change({ over, x: {} })}
        />
      </Row>
      {(['x', 'left', 'right'] as const).map((side) =>
        side === 'right' && !card.traces.some((t) => t.axis === 'right') ? null : (
          <Row key={side} label={side === 'x' ? 'across' : side}>
            <Quantity
              label={`${side} axis from`}
              optional
              value={card[side].min}
              measure={side === 'x' ? measure : 'number'}
              onChange={(min) => change({ [side]: { ...card[side], min } })}
            />
            to
            <Quantity
              label={`${side} axis to`}
              optional
              value={card[side].max}
              measure={side === 'x' ? measure : 'number'}
              onChange={(max) => change({ [side]: { ...card[side], max } })}
            />
            <Tick label="log" value={!!card[side].log} onChange={(log) => change({ [side]: { ...card[side], log } })} />
            {unitsOf(card, side).length > 1 && (
              <Choice
                label={`Unit of the ${side} axis`}
                value={card[side].unit ?? ''}
                options={[{ value: '', label: 'unit' }, ...unitsOf(card, side).map((u) => ({ value: u, label: u }))]}
                onChange={(unit) => change({ [side]: { ...card[side], unit: unit || undefined } })}
              />
            )}
            <TypedField
              label={`Title of the ${side} axis`}
              width={110}
              value={card[side].title ?? ''}
              placeholder="title"
              check={(v) => (v.length > 60 ? 'at most 60 characters' : null)}
              onChange={(title) => change({ [side]: { ...card[side], title: title || undefined } })}
            />
          </Row>
        ),
      )}
    </Part>
  );
}
