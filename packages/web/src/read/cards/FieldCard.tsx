import { recordedOf } from '@jadebell/core/results';
import type { FieldCard as FieldCardData } from '@jadebell/core/document';
import { formatSI, withPrefix } from '@jadebell/core/expressions/format';
import { type FieldSlice, fieldKinds, lackingFor, readArrows, readField, type RecordedField } from '@jadebell/core/reading';
import { useContext, useMemo, useState } from 'react';
import { Card } from '../../charts/Card.tsx';
import { FieldPicture, type PictureScale } from '../../charts/FieldPicture.tsx';
import { CardContext } from '../../charts/CardContext.ts';
import { BoardContext } from '../board/BoardContext.ts';
import { usePhase } from '../../lens/useFrequency.ts';
import { BoxCard } from '../BoxCard.tsx';
import { fieldFiles } from './fieldFiles.ts';
import { animationFiles } from './animationFiles.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useField } from './useField.ts';
import { usePictureScale, useSlice } from './useSlice.ts';
import { useModelBodies } from '../../lens/useModelBodies.ts';
import type { Axis } from '@jadebell/core/numerics';
import { Tool } from '../../kit/Tool.tsx';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { Range } from '../../kit/Range.tsx';
import { Message } from '../../kit/Message.tsx';

const partNames: Record<string, string> = { size: '', x: 'x', y: 'y', z: 'z', normal: 'across the plane', tangential: 'in the plane' };
const formNames: Record<string, string> = { peak: 'peak', instant: 'instant', phase: 'phase of', mean: 'mean' };

/** A recorded field on a plane. */
export function FieldCard({ card }: { card: FieldCardData }) {
  const [shown] = useCardRuns();
  const { field, missing, error } = useField(shown?.run, card.recorder);
  const title = card.title ?? `Field on ${card.recorder}`;
  if (!field)
    return (
      <Card title={title} about={shown?.label} file="field">
        {error ? (
          <Message className="pad">{error.message}</Message>
        ) : (
          <p className="quiet pad">
            {missing ? `Run ${shown.run.number} has no recorder ${card.recorder} that keeps a field.` : 'Reading the field …'}
          </p>
        )}
      </Card>
    );
  const box = recordedOf(shown.run.meta!, 'field-box').find((b) => b.name === card.recorder);
  if (box && field.volume.axes.filter((a) => a.length === 1).length > 1)
    return <BoxCard run={shown.run} stem={stemOf(shown, '')} box={box} frequency={field.at} />;
  return <Picture card={card} field={field} title={title} />;
}

function Picture({ card, field: recorded, title }: { card: FieldCardData; field: RecordedField; title: string }) {
  const { addCard } = useContext(BoardContext)!;
  const [shown] = useCardRuns();
  const bodies = useModelBodies(shown.run);
  const [drawing, setDrawing] = useState(false);
  const { field, slice, plainSlice, normal, index } = useSlice(card, recorded);
  const lacking = lackingFor(fieldKinds[card.quantity], recorded.volume, card.part);
  const { quantity, part, form } = card;
  const reading = useMemo(() => ({ quantity, part, form }), [quantity, part, form]);
  const scale = usePictureScale(card, slice);
  const { kind } = scale;
  const { unit } = fieldKinds[quantity];
  const tell = (v: number, digits = 4): string => (kind === 'cyclic' ? `${v.toFixed(1)}°` : withPrefix(v, unit, digits));
  const name =
    quantity === 'loss' ? 'power lost in media' : `${formNames[form]} ${part === 'size' ? `|${quantity}|` : `${quantity} ${partNames[part]}`}`;
  const place =
    field.flat === null && normal === null ? 'tilted cut' : `${'xyz'[normal!]} = ${formatSI(field.volume.axes[normal!][index], 'length', 4)}`;
  const axis = normal === null ? null : field.volume.axes[normal];
  const names: [string, string] =
    normal === null ? ['along', 'up'] : ([0, 1, 2].filter((a) => a !== normal).map((a) => 'xyz'[a]) as [string, string]);
  const stem = stemOf(shown, `${card.recorder}-${quantity}`);
  const onLine = (from: [number, number], to: [number, number]): void => {
    setDrawing(false);
    const inSpace = ([a, b]: [number, number]) =>
      slice.origin.map((o, i) => o + a * slice.along[i] + b * slice.across[i]) as [number, number, number];
    addCard({ kind: 'along', recorder: card.recorder, quantity, from: inSpace(from), to: inSpace(to), form });
  };
  return (
    <Card
      title={title}
      about={`${name}${recorded.volume.only === undefined ? '' : ` (${'xyz'[recorded.volume.only]} alone)`}, ${place}, ${shown.label}, ${formatSI(field.frequency, 'frequency')}`}
      file={stem}
      flush
      tools={
        <>
          <QuantityChoice recorded={recorded} quantity={quantity} />
          {field.flat === null && axis && <PlaceRange told={place} axis={axis} normal={normal!} index={index} />}
          <Tool aria-pressed={drawing} hint="Draw a line on the picture: the values along it become a card" onClick={() => setDrawing(!drawing)}>
            Line
          </Tool>
        </>
      }
      exports={[
        ...fieldFiles(shown.run, card.recorder, recorded, plainSlice, stem),
        ...animationFiles({ slice, reading, scale, smooth: card.smooth, stem, run: shown.run, card }),
      ]}
    >
      {lacking ? (
        <p className="quiet pad">
          {card.recorder} keeps no {lacking}. A box of fields with E and H and all components does; add one in Feed.
        </p>
      ) : (
        <Animated
          card={card}
          slice={slice}
          scale={scale}
          tell={tell}
          unit={unit}
          names={names}
          bodies={card.outlines ? bodies : null}
          onLine={drawing ? onLine : undefined}
        />
      )}
    </Card>
  );
}

/** Which of the quantities that the record gives is shown. */
function QuantityChoice({ recorded, quantity }: { recorded: RecordedField; quantity: FieldCardData['quantity'] }) {
  const board = useContext(CardContext)!;
  const given = (Object.keys(fieldKinds) as FieldCardData['quantity'][]).filter(
    (q) => !lackingFor(fieldKinds[q], recorded.volume) && (!fieldKinds[q].medium || recorded.kind === 'box'),
  );
  return (
    <Choice
      label="Field quantity"
      value={quantity}
      options={plainOptions(given)}
      onChange={(q) => board.change({ quantity: q } as Partial<FieldCardData>)}
    />
  );
}

/** Moves the plane through a box of fields. */
function PlaceRange({ told, axis, normal, index }: { told: string; axis: ArrayLike<number>; normal: Axis; index: number }) {
  const board = useContext(CardContext)!;
  return (
    <Range
      label="Place of the cut"
      told={told}
      min={0}
      max={axis.length - 1}
      value={index}
      width={76}
      onChange={(v) => board.change({ across: (['x', 'y', 'z'] as const)[normal], at: axis[v] } as Partial<FieldCardData>)}
    />
  );
}

type AnimatedProps = {
  card: FieldCardData;
  slice: FieldSlice;
  scale: PictureScale;
  tell(v: number, digits?: number): string;
  unit: string;
  names: [string, string];
  bodies: Parameters<typeof FieldPicture>[0]['bodies'];
  onLine?: Parameters<typeof FieldPicture>[0]['onLine'];
};

/** The part of the card that follows the phase. */
function Animated({ card, slice, scale, tell, unit, names, bodies, onLine }: AnimatedProps) {
  const { quantity, part, form, arrows } = card;
  const moving = form === 'instant' || (arrows !== 'none' && quantity !== 'S');
  const lens = usePhase();
  const phase = moving ? lens : 0;
  const count = slice.u.length * slice.v.length;
  const values = useMemo(
    () => readField(slice, { quantity, part, form }, phase, new Float64Array(count)),
    [slice, quantity, part, form, phase, count],
  );
  const flow = useMemo(
    () =>
      arrows === 'none'
        ? null
        : {
            vectors: readArrows(slice, quantity, form, phase, new Float64Array(2 * count)),
            kind: arrows,
            top: scale.kind === 'cyclic' ? 1 : scale.top,
          },
    [slice, quantity, form, phase, count, arrows, scale],
  );
  return (
    <FieldPicture
      u={slice.u}
      v={slice.v}
      values={values}
      scale={scale}
      smooth={card.smooth}
      grid={card.grid}
      flow={flow}
      bodies={bodies}
      along={slice.along}
      across={slice.across}
      origin={slice.origin}
      axisNames={names}
      tell={tell}
      unit={unit}
      label="Field on a plane"
      onLine={onLine}
    />
  );
}
