import type { PatternCard as PatternCardData } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { patternTitle, readGrid } from '@jadebell/core/reading';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { Pattern3D } from '../../charts/Pattern3D.tsx';
import { CardContext } from '../../charts/CardContext.ts';
import { patternFiles } from './exports.ts';
import { partOptions, quantityOptions } from './patternOptions.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useFarField } from './useFarField.ts';
import { useModelBodies } from '../../lens/useModelBodies.ts';
import { Choice } from '../../kit/Choice.tsx';
import { Message } from '../../kit/Message.tsx';

/** The far field around the model. */
export function PatternCard({ card }: { card: PatternCardData }) {
  const board = useContext(CardContext)!;
  const [shown] = useCardRuns();
  const { far, error } = useFarField(shown?.run);
  const bodies = useModelBodies(shown?.run);
  const { quantity, part, reference } = card;
  const values = useMemo(() => far && readGrid(far.source, { quantity, part, reference }), [far, quantity, part, reference]);
  // Axial ratio and phase are colours on the shape of the whole field.
  const shape = useMemo(
    () => (far && (part === 'axial-ratio' || part === 'phase') ? readGrid(far.source, { quantity, part: 'total', reference }) : values),
    [far, values, quantity, part, reference],
  );
  const scatterer = !!shown?.run.meta!.wave;
  const kept = !!(shown?.run.meta!.farField ?? shown?.run.meta!.scattered);
  const title = far ? patternTitle(far.source, card) : null;
  return (
    <Card
      title={card.title ?? (scatterer ? 'Scattered field' : 'Pattern')}
      about={far && title ? `${title.label}, ${shown.label}, ${formatSI(far.source.frequency, 'frequency')}` : shown?.label}
      file={stemOf(shown, card.title ?? 'pattern')}
      flush
      tools={
        <>
          {!scatterer && (
            <Choice
              label="Pattern quantity"
              value={quantity}
              options={quantityOptions}
              onChange={(q) => board.change({ quantity: q } as Partial<PatternCardData>)}
            />
          )}
          <Choice label="Polarisation" value={part} options={partOptions} onChange={(p) => board.change({ part: p } as Partial<PatternCardData>)} />
        </>
      }
      exports={patternFiles(shown?.run)}
      waiting={!far && !error && kept}
    >
      {error ? (
        <Message className="pad">{error.message}</Message>
      ) : far && values && shape && title ? (
        <Pattern3D
          pattern={far.source.pattern}
          shape={shape}
          values={values}
          unit={title.unit}
          scale={title.level ? 'level' : part === 'phase' ? 'phase' : 'ratio'}
          floor={card.floor}
          linear={card.linear}
          bodies={bodies}
          around={card.model}
        />
      ) : (
        <p className="quiet pad">{kept ? 'Reading the far field …' : 'This run has no far field.'}</p>
      )}
    </Card>
  );
}
