import type { Axis } from '../numerics/axis.ts';
import { planeAxes, recorderKind, type RecorderTold } from '../recorders/index.ts';
import { frequenciesKept, type ResultMeta, type ResultSet } from '../results/index.ts';
import { type FieldVolume, type Filling, volumeOf } from './fields.ts';

/** A recorded field at one frequency: of a plane a volume of one layer. */
export interface RecordedField {
  volume: FieldVolume;
  kind: 'plane' | 'box';
  /** What fills a box; null: nothing, or a plane, which does not know. */
  filling: Filling | null;
  /** Axis across a plane, or along which a box has one layer; null: a true box. */
  flat: Axis | null;
  /** Hertz, and its number among those that are kept. */
  frequency: number;
  at: number;
}

/**
 * What a recorder of fields kept at its frequency of number `at`, from its values at this frequency, its places, and what fills it; null of any other kind. Shapes
 * are those that the kind of recorder describes.
 */
export function recordedField(
  meta: ResultMeta,
  told: RecorderTold,
  at: number,
  values: Float32Array,
  places: readonly ArrayLike<number>[],
  fill?: ArrayLike<number>,
): RecordedField | null {
  const frequency = frequenciesKept(meta, told)[at];
  if (told.kind === 'field-plane')
    return { volume: { axes: planeAxes(told, places), e: values, h: null }, filling: null, kind: 'plane', flat: told.normal, frequency, at };
  if (told.kind !== 'field-box') return null;
  const axes = places as unknown as FieldVolume['axes'];
  const filling = fill ? { fill, media: new Map((told.media ?? []).map((m) => [m.mark, m.permittivity[at]])) } : null;
  const thin = ([0, 1, 2] as const).filter((a) => axes[a].length === 1);
  return { volume: volumeOf(axes, values, told), filling, kind: 'box', flat: thin[0] ?? null, frequency, at };
}

/** Values of a recorder at its frequency of number `at`, or all over time, and their places, from a result's arrays; null where it keeps none. */
export function keptValues(
  { arrays }: Pick<ResultSet, 'arrays'>,
  told: RecorderTold,
  at: number,
): { values: Float32Array | Float64Array; places: ArrayLike<number>[] } | null {
  const kind = recorderKind(told);
  const names = kind.values?.arrays(told);
  if (!names || !arrays[names.values]) return null;
  const { shape, data } = arrays[names.values];
  const size = kind.over === 'time' ? data.length : shape.slice(1).reduce((n, x) => n * x, 1);
  return { values: data.subarray(at * size, (at + 1) * size), places: names.places.map((p) => arrays[p].data) };
}
