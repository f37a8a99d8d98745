import { TypedField } from '../../../kit/Field.tsx';
import { Part, Quantity, Row } from '../Fields.tsx';
import { add, freshPlace, measureOver, remove, set, without, type CurvesProps } from './common.tsx';

/** Words that stand on the curves. */
export function Notes({ card, drawing, change }: CurvesProps) {
  const measure = measureOver(card);
  return (
    <Part
      title="Notes"
      action={add('Add a note', () => change({ notes: [...card.notes, { x: freshPlace(drawing).from, y: freshPlace(drawing).y, text: 'note' }] }))}
    >
      {card.notes.map((n, i) => (
        <Row key={i} label={`${i + 1}`}>
          <TypedField
            label={`Text of note ${i + 1}`}
            width={130}
            value={n.text}
            check={(t) => (t.length > 200 ? 'at most 200 characters' : null)}
            onChange={(text) => change({ notes: set(card.notes, i, { text }) })}
          />
          at
          <Quantity
            label={`Place of note ${i + 1}`}
            value={n.x}
            measure={measure}
            onChange={(x) => change({ notes: set(card.notes, i, { x: x ?? 0 }) })}
          />
          <Quantity
            label={`Height of note ${i + 1}`}
            width={56}
            value={n.y}
            measure="number"
            onChange={(y) => change({ notes: set(card.notes, i, { y: y ?? 0 }) })}
          />
          {remove(`Remove note ${i + 1}`, () => change({ notes: without(card.notes, i) }))}
        </Row>
      ))}
    </Part>
  );
}
