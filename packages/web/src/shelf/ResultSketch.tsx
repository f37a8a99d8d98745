import { formatSI } from '@jadebell/core/expressions/format';
import { Line, LineChart, XAxis, YAxis } from 'recharts';
import { useSketch } from '../api/hooks.ts';
import { traceStyle } from '../charts/traces.ts';
import { useDark } from '../ui/useDark.ts';
import { useSize } from '../ui/useSize.ts';

const height = 46;
/** Decibels that the sketch reaches down to at least. */
const deep = -20;

/** S of a project's newest run in a few lines' height, with what it is. */
export function ResultSketch({ project, runs, title }: { project: string; runs: number; title: string }) {
  const { data } = useSketch(project, runs);
  const dark = useDark();
  const [holder, box] = useSize();
  const least = data ? Math.min(...data.curves.flatMap((c) => c.y)) : 0;
  const low = Math.min(deep, least);
  const told =
    data &&
    `least ${least.toFixed(0)} dB, ${formatSI(data.from, 'frequency', 3)} to ${formatSI(data.to, 'frequency', 3)}: ${data.curves.map((c) => c.name).join('; ')}`;
  return (
    <div
      ref={holder}
      role="img"
      aria-label={told ? `Result of ${title}: ${told}` : `${title} has no curves`}
      style={{ padding: '0 12px', minHeight: data ? height + 18 : 0 }}
    >
      {data && box.width > 40 && (
        <>
          <LineChart width={box.width} height={height} margin={{ top: 2, right: 0, bottom: 2, left: 0 }} accessibilityLayer={false}>
            <XAxis type="number" dataKey="x" domain={[data.from, data.to]} hide />
            <YAxis domain={[low, 0]} hide allowDataOverflow />
            {data.curves.map((c, n) => (
              <Line
                key={c.name}
                data={c.x.map((x, i) => ({ x, y: c.y[i] }))}
                dataKey="y"
                type="linear"
                stroke={traceStyle(n + 1, dark).color}
                strokeDasharray={traceStyle(n + 1, dark).dash}
                strokeWidth={1.4}
                dot={false}
                activeDot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
          <div className="quiet" style={{ fontSize: 11.5, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
            {told}
          </div>
        </>
      )}
    </div>
  );
}
