import { boxWidth, recordedField, type RecordedField } from '@jadebell/core/reading';
import { recorderKind, type Told } from '@jadebell/core/recorders';
import { frequenciesKept } from '@jadebell/core/results';
import { useEffect, useMemo } from 'react';
import { useArray } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { readFieldAhead, useShares, useSum } from '../../lens/useSum.ts';
import { nearestRecorded, useFrequency } from '../../lens/useFrequency.ts';

/** Elements of all frequencies up to which the others are fetched ahead, once the one that is looked at is there. */
const ahead = 24_000_000;

/** Reads a recorder's field; null while it is under way. */
export function useField(run: Run | undefined, recorder: string): { field: RecordedField | null; missing: boolean; error?: Error } {
  const meta = run?.meta;
  const told = meta?.recorded.find((r) => r.name === recorder && (r.kind === 'field-plane' || r.kind === 'field-box')) as
    | Told<'field-plane' | 'field-box'>
    | undefined;
  const names = told && recorderKind(told).values!.arrays(told);
  const stem = names?.values ?? null;
  const id = stem ? run!.id : null;
  const x = useArray(id, names?.places[0] ?? null).data;
  const y = useArray(id, names?.places[1] ?? null).data;
  const third = names?.places[2] ?? null;
  const z = useArray(id, third).data;
  const places = useMemo(() => (x && y && (z || !third) ? [x, y, ...(z ? [z] : [])].map((p) => p.data) : null), [x, y, z, third]);
  const width = told?.kind === 'field-box' ? boxWidth(told) : 6;
  const count = places ? places.reduce((n, p) => n * p.length, width) : 0;
  const frequency = useFrequency();
  const all = meta ? frequenciesKept(meta, told) : [];
  const at = nearestRecorded(all, frequency);
  // Only the frequency that is shown is waited for; the others follow while it is looked at.
  const { data: values, error } = useSum(id ? run : undefined, stem, { from: at * count, count });
  const fill = useArray(told?.kind === 'field-box' && told.media ? id : null, `${stem}:fill`).data;
  const shares = useShares(run);
  const total = all.length;
  useEffect(() => {
    if (!values || !id || !stem || total * count * shares.length > ahead) return;
    for (let f = 0; f < total; f++) if (f !== at) readFieldAhead(run!, stem, { from: f * count, count }, shares);
  }, [values, id, run, stem, total, count, at, shares]);
  const field = useMemo(
    () => (meta && told && places && values ? recordedField(meta, told, at, values as Float32Array, places, fill?.data) : null),
    [meta, told, places, values, fill, at],
  );
  return { field, missing: !!meta && !stem, error };
}
