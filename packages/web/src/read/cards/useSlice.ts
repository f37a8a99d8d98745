import type { FieldCard } from '@jadebell/core/document';
import type { Axis } from '@jadebell/core/numerics';
import { sphericalBase } from '@jadebell/core/radiation';
import {
  decibelsOf,
  fieldScale,
  type FieldSlice,
  inMedia,
  percentile,
  readField,
  type RecordedField,
  sliceOfVolume,
  tiltedSlice,
} from '@jadebell/core/reading';
import { useMemo } from 'react';
import type { PictureScale } from '../../charts/FieldPicture.tsx';
import { useLens } from '../../lens/lens.ts';

/** The slice that a card shows of a recorded field. */
function sliceFor(
  field: RecordedField,
  card: Pick<FieldCard, 'across' | 'at' | 'theta' | 'phi'>,
  plane: { axis: Axis; at: number } | null,
): { slice: FieldSlice; normal: Axis | null; index: number } {
  const { volume, flat } = field;
  const { axes } = volume;
  if (card.across === 'tilted' && flat === null) {
    const middle = axes.map((a) => (a[0] + a[a.length - 1]) / 2) as unknown as [number, number, number];
    const normal = sphericalBase(card.theta, card.phi).r;
    const through = middle.map((m, i) => m + (card.at ?? 0) * normal[i]) as unknown as [number, number, number];
    return { slice: tiltedSlice(volume, normal, through), normal: null, index: 0 };
  }
  const own = card.across && card.across !== 'tilted' ? (['x', 'y', 'z'].indexOf(card.across) as Axis) : null;
  const normal = flat ?? own ?? plane?.axis ?? 2;
  const axis = axes[normal];
  const wanted = (own !== null ? card.at : undefined) ?? (own === null ? plane?.at : undefined) ?? (axis[0] + axis[axis.length - 1]) / 2;
  let index = 0;
  for (let i = 1; i < axis.length; i++) if (Math.abs(axis[i] - wanted) < Math.abs(axis[index] - wanted)) index = i;
  return { slice: sliceOfVolume(volume, normal, index), normal, index };
}

/** The plane of a card through a record, of the field that its quantity asks for and of the plain one. */
export function useSlice({ across, at, theta, phi, quantity }: FieldCard, recorded: RecordedField) {
  const plane = useLens((s) => s.plane);
  const field = useMemo(
    () => ({ ...recorded, volume: inMedia(recorded.volume, quantity, recorded.frequency, recorded.filling) }),
    [recorded, quantity],
  );
  const cut = useMemo(() => sliceFor(field, { across, at, theta, phi }, plane), [field, across, at, theta, phi, plane]);
  const plainSlice = field.volume === recorded.volume ? cut.slice : sliceFor(recorded, { across, at, theta, phi }, plane).slice;
  return { field, plainSlice, ...cut };
}

/** Colours of a picture: linear or in decibels, up to what the card fixes, or to what the field reaches. */
export function usePictureScale(card: FieldCard, slice: FieldSlice): PictureScale {
  const { quantity, part, form } = card;
  const kind = fieldScale({ quantity, part, form });
  // The scale holds still while the phase runs: it is that of the peak.
  const top = useMemo(() => {
    if (card.range === 'fixed' && card.top) return card.top;
    const still = new Float64Array(slice.u.length * slice.v.length);
    readField(slice, { quantity, part, form: form === 'instant' ? 'peak' : form }, 0, still);
    return percentile(still, card.range === 'all' ? 1 : 0.995) || 1;
  }, [slice, quantity, part, form, card.range, card.top]);
  return useMemo(
    () => ({ kind, db: card.db && kind === 'size', top, span: card.span, perDecade: decibelsOf(quantity) }),
    [kind, card.db, top, card.span, quantity],
  );
}
