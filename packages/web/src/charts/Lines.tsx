import { formatSI, unitFor } from '@jadebell/core/expressions/format';
import { useMemo } from 'react';
import type { PlotAxis, PlotTrace } from './plot/parts.ts';
import { PlotCursor } from './plot/Marks.tsx';
import { Plot } from './plot/Plot.tsx';

export interface Trace {
  name: string;
  color: string;
  dash?: string;
  values: ArrayLike<number>;
  /** Own x values where they differ from the chart's. */
  x?: ArrayLike<number>;
}
interface Props {
  /** Of what quantity the axes are; values are SI. */
  x: { label: string; unit: string; values: ArrayLike<number> };
  y: { label: string; unit?: string };
  traces: readonly Trace[];
  /** x of the cursor line. */
  cursor?: number;
}

/** Samples a curve may have and still show its points. */
const few = 6;

/** Samples in the order of x. */
function ascending(x: ArrayLike<number>, y: ArrayLike<number>): { x: ArrayLike<number>; y: ArrayLike<number> } {
  let sorted = true;
  for (let i = 1; i < x.length && sorted; i++) sorted = x[i] >= x[i - 1];
  if (sorted) return { x, y };
  const order = Array.from(x, (_, i) => i).sort((a, b) => x[a] - x[b]);
  return { x: order.map((i) => x[i]), y: order.map((i) => y[i]) };
}

/** An axis of a quantity, told in the unit that suits its values. */
function axisOf(label: string, quantity: string | undefined, lists: readonly ArrayLike<number>[]): PlotAxis {
  let most = 0;
  for (const list of lists) for (let i = 0; i < list.length; i++) if (Math.abs(list[i]) > most && Number.isFinite(list[i])) most = Math.abs(list[i]);
  if (!quantity || quantity === 'number') return { label, size: 1 };
  const [size, unit] = unitFor(most, quantity);
  return { label: unit ? `${label} (${unit})` : label, size };
}

/** Lines over an axis in SI. */
export function Lines({ x, y, traces, cursor }: Props) {
  const drawn = useMemo(
    () =>
      traces.map((t): PlotTrace => ({
        name: t.name,
        color: t.color,
        dash: t.dash,
        ...ascending(t.x ?? x.values, t.values),
        axis: 'left',
        points: t.values.length <= few,
      })),
    [traces, x.values],
  );
  const axis = useMemo(() => axisOf(x.label, x.unit, [x.values]), [x.label, x.unit, x.values]);
  const left = useMemo(() => axisOf(y.label, y.unit, drawn.map((t) => t.y)), [y.label, y.unit, drawn]); // prettier-ignore
  return (
    <Plot
      label={`${y.label} over ${x.label}`}
      x={axis}
      left={left}
      traces={drawn}
      tell={(_, __, v) => (y.unit && y.unit !== 'number' ? formatSI(v, y.unit) : String(Number(v.toPrecision(5))))}
      tellX={(v) => formatSI(v, x.unit)}
    >
      {cursor !== undefined && <PlotCursor x={cursor} />}
    </Plot>
  );
}
