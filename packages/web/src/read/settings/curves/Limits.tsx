import type { CurvesCard } from '@jadebell/core/document';
import { Choice } from '../../../kit/Choice.tsx';
import { Part, Quantity, Row } from '../Fields.tsx';
import { add, freshPlace, measureOver, remove, set, without, type CurvesProps } from './common.tsx';

/** Lines that the curves are to stay above or below. */
export function Limits({ card, drawing, change }: CurvesProps) {
  const measure = measureOver(card);
  const freshLimit = (): CurvesCard['limits'][number] => {
    const { from, to, y } = freshPlace(drawing);
    return { from: { x: from, y }, to: { x: to, y }, side: 'below' };
  };
  return (
    <Part title="Limits" action={add('Add a limit', () => change({ limits: [...card.limits, freshLimit()] }))}>
      {card.limits.map((l, i) => {
        const end = (which: 'from' | 'to') => (
          <>
            <Quantity
              label={`Limit ${i + 1} ${which}`}
              value={l[which].x}
              measure={measure}
              onChange={(x) => change({ limits: set(card.limits, i, { [which]: { ...l[which], x: x ?? 0 } }) })}
            />
            <Quantity
              label={`Level of limit ${i + 1} ${which}`}
              width={56}
              value={l[which].y}
              measure="number"
              onChange={(y) => change({ limits: set(card.limits, i, { [which]: { ...l[which], y: y ?? 0 } }) })}
            />
          </>
        );
        return (
          <Row key={i} label={`${i + 1}`}>
            <Choice
              label={`Side of limit ${i + 1}`}
              value={l.side}
              options={[
                { value: 'below', label: 'stay below' },
                { value: 'above', label: 'stay above' },
              ]}
              onChange={(side) => change({ limits: set(card.limits, i, { side }) })}
            />
            from {end('from')} to {end('to')}
            {remove(`Remove limit ${i + 1}`, () => change({ limits: without(card.limits, i) }))}
          </Row>
        );
      })}
    </Part>
  );
}
