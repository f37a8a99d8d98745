import { recordedOf } from '@jadebell/core/results';
import { formatSI } from '@jadebell/core/expressions/format';
import useSWRImmutable from 'swr/immutable';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';
import { useLens } from './lens.ts';
import { Choice } from '../kit/Choice.tsx';
import { Range } from '../kit/Range.tsx';

/** The cut through boxes of fields that cards without a place of their own show. */
export function PlaneLens({ run }: { run: Run }) {
  const { plane, set } = useLens();
  const boxes = recordedOf(run.meta!, 'field-box').map((b) => b.name);
  const { data } = useSWRImmutable<(readonly ArrayLike<number>[])[]>(boxes.length ? ['boxes', run.id] : null, () =>
    Promise.all(boxes.map((name) => Promise.all([...'xyz'].map(async (a) => (await getArray(run.id, `box:${name}:${a}`)).data)))),
  );
  const axis = plane?.axis ?? 2;
  const places = data?.find((axes) => axes.every((a) => a.length > 1))?.[axis];
  if (!places) return null;
  const at = plane?.at ?? (places[0] + places[places.length - 1]) / 2;
  let index = 0;
  for (let i = 1; i < places.length; i++) if (Math.abs(places[i] - at) < Math.abs(places[index] - at)) index = i;
  return (
    <div className="group">
      <span className="group">
        <span className="quiet">cut across</span>
        <Choice
          label="Axis of the cut"
          value={axis}
          options={([0, 1, 2] as const).map((a) => ({ value: a, label: 'xyz'[a] }))}
          onChange={(a) => set({ plane: { axis: a, at: 0 } })}
        />
      </span>
      <Range
        label="Place of the cuts"
        told={formatSI(places[index], 'length', 4)}
        min={0}
        max={places.length - 1}
        value={index}
        width={70}
        onChange={(v) => set({ plane: { axis, at: places[v] } })}
      />
      <span className="mono" style={{ width: 64 }}>
        {formatSI(places[index], 'length', 4)}
      </span>
    </div>
  );
}
