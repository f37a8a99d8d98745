import { formatSI } from '@jadebell/core/expressions/format';
import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

export interface Trace {
  name: string;
  color: string;
  dash?: string;
  values: ArrayLike<number>;
  /** Own x values where they differ from the chart's. */
  x?: ArrayLike<number>;
}
interface Props {
  x: { label: string; unit: string; values: ArrayLike<number> };
  /** A unit writes the values with it; absent: plain numbers. */
  y: { label: string; ticks?: number[]; unit?: string };
  traces: Trace[];
  /** x of the cursor line. */
  cursor?: number;
}

/** Round values inside [from, to], five to eight of them. */
const roundTicks = (from: number, to: number): number[] => {
  const rough = (to - from) / 6;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 2.5, 5, 10].map((m) => m * power).find((s) => s >= rough)!;
  const ticks: number[] = [];
  for (let t = Math.ceil(from / step - 1e-9) * step; t <= to + 1e-6 * step; t += step) ticks.push(t);
  return ticks;
};

/** Round values that span all traces. */
function valueTicks(traces: Trace[], given?: number[]): number[] {
  if (given) return given;
  let [lo, hi] = [Infinity, -Infinity];
  for (const t of traces)
    for (let i = 0; i < t.values.length; i++) {
      if (!Number.isFinite(t.values[i])) continue;
      lo = Math.min(lo, t.values[i]);
      hi = Math.max(hi, t.values[i]);
    }
  if (lo > hi) return [0, 1];
  if (hi - lo < 1e-9 * Math.max(Math.abs(lo), Math.abs(hi), 1e-9)) [lo, hi] = [lo - 1, hi + 1];
  const inner = roundTicks(lo, hi);
  const step = inner.length > 1 ? inner[1] - inner[0] : hi - lo;
  const first = Math.floor(lo / step + 1e-9);
  const last = Math.ceil(hi / step - 1e-9);
  return Array.from({ length: last - first + 1 }, (_, i) => (first + i) * step);
}

/** Lines over a common x axis. Reads exact values under the pointer. */
export function LineChartBox({ x, y, traces, cursor }: Props) {
  const data = useMemo(() => {
    const rows = new Map<number, Record<string, number>>();
    traces.forEach((t, n) => {
      const xs = t.x ?? x.values;
      for (let i = 0; i < xs.length; i++) {
        const row = rows.get(xs[i]) ?? { x: xs[i] };
        row[`t${n}`] = t.values[i];
        rows.set(xs[i], row);
      }
    });
    return [...rows.values()].sort((a, b) => a.x - b.x);
  }, [traces, x.values]);
  const xTicks = roundTicks(x.values[0], x.values[x.values.length - 1]);
  const yTicks = useMemo(() => valueTicks(traces, y.ticks), [traces, y.ticks]);
  const text = { fontSize: 11.5, fill: 'var(--faint)' };
  const tell = (v: number, digits: number): string =>
    y.unit && y.unit !== 'number' ? formatSI(v, y.unit, digits) : String(Number(v.toPrecision(digits)));
  const show = (v: number): string => (x.unit === 'time' ? `${Number((v * 1e9).toPrecision(4))} ns` : formatSI(v, x.unit, 5));
  return (
    <ResponsiveContainer width="100%" height="100%" initialDimension={{ width: 400, height: 200 }}>
      <LineChart data={data} margin={{ top: 8, right: 14, bottom: 16, left: 4 }}>
        <CartesianGrid stroke="var(--line)" strokeWidth={0.7} />
        <XAxis
          dataKey="x"
          type="number"
          domain={['dataMin', 'dataMax']}
          ticks={xTicks}
          tickFormatter={show}
          tick={text}
          stroke="var(--faint)"
          label={{ value: x.label, position: 'insideBottom', offset: -10, ...text }}
        />
        <YAxis
          domain={[yTicks[0], yTicks[yTicks.length - 1]]}
          ticks={yTicks}
          allowDataOverflow
          tick={text}
          stroke="var(--faint)"
          width={58}
          tickFormatter={(v: number) => tell(v, 4)}
          label={{ value: y.label, angle: -90, position: 'insideLeft', offset: 6, style: { textAnchor: 'middle' }, ...text }}
        />
        <Tooltip
          isAnimationActive={false}
          labelFormatter={(v) => show(Number(v))}
          formatter={(v, name) => [tell(Number(v), 4), name]}
          contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }}
        />
        {cursor !== undefined && <ReferenceLine x={cursor} stroke="var(--plum)" strokeDasharray="3 3" />}
        {traces.map((t, n) => (
          <Line
            key={n}
            dataKey={`t${n}`}
            name={t.name}
            stroke={t.color}
            strokeDasharray={t.dash}
            strokeWidth={1.8}
            dot={false}
            isAnimationActive={false}
            connectNulls
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
