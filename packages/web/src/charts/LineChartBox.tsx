import { formatSI } from '@jadebell/core/format';
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
  x: { label: string; unit: 'frequency' | 'time' | 'angle'; values: ArrayLike<number> };
  y: { label: string; domain?: [number | 'auto', number | 'auto'] };
  traces: Trace[];
  /** x of the cursor line. */
  cursor?: number;
}

const ticksOf = (values: ArrayLike<number>): number[] => {
  const from = values[0];
  const to = values[values.length - 1];
  const rough = (to - from) / 6;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 2.5, 5, 10].map((m) => m * power).find((s) => s >= rough)!;
  const ticks: number[] = [];
  for (let t = Math.ceil(from / step - 1e-9) * step; t <= to + 1e-6 * step; t += step) ticks.push(t);
  return ticks;
};

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
  const text = { fontSize: 11.5, fill: 'var(--faint)' };
  const show = (v: number): string => (x.unit === 'time' ? `${Number((v * 1e9).toPrecision(4))} ns` : formatSI(v, x.unit, 5));
  return (
    <ResponsiveContainer width="100%" height="100%" initialDimension={{ width: 400, height: 200 }}>
      <LineChart data={data} margin={{ top: 8, right: 14, bottom: 16, left: 4 }}>
        <CartesianGrid stroke="var(--line)" strokeWidth={0.7} />
        <XAxis dataKey="x" type="number" domain={['dataMin', 'dataMax']} ticks={ticksOf(x.values)} tickFormatter={show} tick={text} stroke="var(--faint)" label={{ value: x.label, position: 'insideBottom', offset: -10, ...text }} />
        <YAxis domain={y.domain ?? ['auto', 'auto']} tick={text} stroke="var(--faint)" width={58} tickFormatter={(v: number) => String(Number(v.toPrecision(4)))} label={{ value: y.label, angle: -90, position: 'insideLeft', offset: 6, style: { textAnchor: 'middle' }, ...text }} />
        <Tooltip isAnimationActive={false} labelFormatter={(v) => show(Number(v))} formatter={(v, name) => [Number(v).toPrecision(4), name]} contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }} />
        {cursor !== undefined && <ReferenceLine x={cursor} stroke="var(--plum)" strokeDasharray="3 3" />}
        {traces.map((t, n) => (
          <Line key={n} dataKey={`t${n}`} name={t.name} stroke={t.color} strokeDasharray={t.dash} strokeWidth={1.8} dot={false} isAnimationActive={false} connectNulls />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
