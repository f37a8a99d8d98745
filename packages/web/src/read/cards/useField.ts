import { boxWidth, type FieldVolume, type Filling, volumeOf } from '@jadebell/core/reading';
import { frequenciesKept, recordedOf } from '@jadebell/core/results';
import { useEffect, useMemo } from 'react';
import { useArray } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { readFieldAhead, useShares, useSum } from '../../lens/useSum.ts';
import { nearestRecorded, useFrequency } from '../../lens/useFrequency.ts';
import type { Axis } from '@jadebell/core/numerics';

/** Elements of all frequencies up to which the others are fetched ahead, once the one that is looked at is there. */
const ahead = 24_000_000;

/** A recorded field at the frequency that the card looks at: of a plane a volume of one layer. */
export interface RecordedField {
  volume: FieldVolume;
  kind: 'plane' | 'box';
  /** What fills a box; null: nothing, or a plane, which does not know. */
  filling: Filling | null;
  /** Axis across a plane, or along which a box has one layer; null: a true box. */
  flat: Axis | null;
  frequency: number;
  at: number;
}

/** Reads a recorder's field; null while it is under way. */
export function useField(run: Run | undefined, recorder: string): { field: RecordedField | null; missing: boolean; error?: Error } {
  const meta = run?.meta;
  const plane = meta ? recordedOf(meta, 'field-plane').find((p) => p.name === recorder) : undefined;
  const box = meta ? recordedOf(meta, 'field-box').find((b) => b.name === recorder) : undefined;
  const stem = plane ? `plane:${recorder}` : box ? `box:${recorder}` : null;
  const id = stem ? run!.id : null;
  const x = useArray(id, plane ? `${stem}:u` : `${stem}:x`).data;
  const y = useArray(id, plane ? `${stem}:v` : `${stem}:y`).data;
  const z = useArray(box ? id : null, `${stem}:z`).data;
  const width = plane ? 6 : box ? boxWidth(box) : 0;
  const count = x && y && (plane || z) ? x.data.length * y.data.length * (z?.data.length ?? 1) * width : 0;
  const frequency = useFrequency();
  const all = meta ? frequenciesKept(meta, plane ?? box) : [];
  const at = nearestRecorded(all, frequency);
  // Only the frequency that is shown is waited for; the others follow while it is looked at.
  const { data: values, error } = useSum(id ? run : undefined, stem, { from: at * count, count });
  const fill = useArray(box?.media ? id : null, `${stem}:fill`).data;
  const shares = useShares(run);
  const total = all.length;
  useEffect(() => {
    if (!values || !id || !stem || total * count * shares.length > ahead) return;
    for (let f = 0; f < total; f++) if (f !== at) readFieldAhead(run!, stem, { from: f * count, count }, shares);
  }, [values, id, run, stem, total, count, at, shares]);
  const field = useMemo((): RecordedField | null => {
    if (!x || !y || !values || !meta) return null;
    const frequencyHere = frequenciesKept(meta, plane ?? box)[at];
    if (plane) {
      const axes = [0, 1, 2].map((a) =>
        a === plane.normal ? Float64Array.of(plane.at) : a === plane.u ? x.data : y.data,
      ) as unknown as FieldVolume['axes'];
      return { volume: { axes, e: values as Float32Array, h: null }, filling: null, kind: 'plane', flat: plane.normal, frequency: frequencyHere, at };
    }
    if (!z || !box) return null;
    const axes = [x.data, y.data, z.data] as const;
    const filling = fill ? { fill: fill.data, media: new Map((box.media ?? []).map((m) => [m.mark, m.permittivity[at]])) } : null;
    const thin = ([0, 1, 2] as const).filter((a) => axes[a].length === 1);
    return { volume: volumeOf(axes, values, box), filling, kind: 'box', flat: thin[0] ?? null, frequency: frequencyHere, at };
  }, [x, y, z, values, fill, meta, plane, box, at]);
  return { field, missing: !!meta && !stem, error };
}
