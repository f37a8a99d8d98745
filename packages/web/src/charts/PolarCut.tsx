import { useMemo } from 'react';
import { PolarAngleAxis, PolarGrid, PolarRadiusAxis, Radar, RadarChart } from 'recharts';
import type { TickItem } from 'recharts/types/util/types';
import { useSize } from '../ui/useSize.ts';
import { WithLegend } from './Legend.tsx';
import { chartText } from './plot/parts.ts';

interface Cut {
  name: string;
  color: string;
  dash: string;
  /** dB over a full turn, starting at angle 0, equally spaced. */
  values: ArrayLike<number>;
}

interface Props {
  label: string;
  cuts: readonly Cut[];
  /** dB of the outer ring, and from it down to the middle. */
  top: number;
  span: number;
}

/** Room for the angles around the outer ring, in pixels. */
const around = 22;
const angles = Array.from({ length: 12 }, (_, i) => 30 * i);
const small = { ...chartText, fontSize: 11 };

/** A cut through a pattern: dB over angle, 0 at the top, angles growing clockwise; rings every 10 dB down from `top`. */
export function PolarCut({ cuts, ...rest }: Props) {
  return <WithLegend traces={cuts}>{(shown) => <Chart cuts={shown} {...rest} />}</WithLegend>;
}

function Chart({ label, cuts, top, span }: Props) {
  const [holder, box] = useSize();
  const floor = top - span;
  const rows = useMemo(() => {
    const count = cuts[0]?.values.length ?? 0;
    return Array.from({ length: count }, (_, i) => ({ angle: (360 * i) / count, cuts: cuts.map((c) => Math.max(floor, c.values[i])) }));
  }, [cuts, floor]);
  const radius = Math.max(10, Math.min(box.width, box.height) / 2 - around);
  const rings = Array.from({ length: Math.floor(span / 10) + 1 }, (_, i) => top - 10 * i).filter((db) => db > floor);
  return (
    <div
      ref={holder}
      role="img"
      aria-label={`Polar plot of ${label}: ${cuts.map((c) => c.name).join(', ')}, outer ring ${top} dB`}
      style={{ height: '100%', overflow: 'hidden' }}
    >
      {box.width >= 40 && box.height >= 40 && (
        <RadarChart width={box.width} height={box.height} data={rows} outerRadius={radius} startAngle={90} endAngle={-270} accessibilityLayer={false}>
          <PolarGrid
            gridType="circle"
            polarAngles={angles.map((a) => 90 - a)}
            polarRadius={rings.map((db) => (radius * (db - floor)) / span)}
            stroke="var(--line)"
            strokeWidth={0.8}
          />
          <PolarAngleAxis
            dataKey="angle"
            type="number"
            domain={[0, 360]}
            // The type asks for laid-out ticks, the axis takes their values.
            ticks={angles as unknown as TickItem[]}
            tick={small}
            tickLine={false}
            axisLine={false}
            tickFormatter={(a: number) => `${a <= 180 ? a : a - 360}°`}
          />
          <PolarRadiusAxis
            domain={[floor, top]}
            ticks={rings}
            angle={90}
            orientation="middle"
            allowDataOverflow
            tick={{ ...small, dx: 12, dy: 8 }}
            axisLine={false}
          />
          {cuts.map((c, n) => (
            <Radar
              key={n}
              name={c.name}
              dataKey={(row: (typeof rows)[number]) => row.cuts[n]}
              stroke={c.color}
              strokeDasharray={c.dash}
              strokeWidth={1.6}
              fill="none"
              isAnimationActive={false}
            />
          ))}
        </RadarChart>
      )}
    </div>
  );
}
