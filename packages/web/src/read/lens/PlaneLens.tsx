import { formatSI } from '@jadebell/core/format';
import { useArray } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { useLens } from './lens.ts';

/** The cut through boxes of fields that cards without a place of their own show. */
export function PlaneLens({ run }: { run: Run }) {
  const { plane, set } = useLens();
  const box = run.meta!.fieldBoxes?.[0]?.name;
  const axis = plane?.axis ?? 2;
  const places = useArray(box ? run.id : null, `box:${box}:${'xyz'[axis]}`).data?.data;
  if (!box || !places || places.length < 2) return null;
  const at = plane?.at ?? (places[0] + places[places.length - 1]) / 2;
  let index = 0;
  for (let i = 1; i < places.length; i++) if (Math.abs(places[i] - at) < Math.abs(places[index] - at)) index = i;
  return (
    <div className="group">
      <label>
        <span className="quiet">cut across</span>
        <select
          className="plain-select"
          aria-label="Axis of the cut"
          value={axis}
          onChange={(e) => set({ plane: { axis: Number(e.target.value) as 0 | 1 | 2, at: 0 } })}
        >
          {[0, 1, 2].map((a) => (
            <option key={a} value={a}>
              {'xyz'[a]}
            </option>
          ))}
        </select>
      </label>
      <input
        type="range"
        aria-label="Place of the cuts"
        aria-valuetext={formatSI(places[index], 'length', 4)}
        min={0}
        max={places.length - 1}
        value={index}
        style={{ width: 70 }}
        onChange={(e) => set({ plane: { axis, at: places[Number(e.target.value)] } })}
      />
      <span className="mono" style={{ width: 64 }}>
        {formatSI(places[index], 'length', 4)}
      </span>
    </div>
  );
}
