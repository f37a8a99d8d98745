import { usePlotArea, useXAxisScale, useYAxisScale, ZIndexLayer } from 'recharts';
import type { PlotLimit, PlotMark } from './parts.ts';

/** A numbered marker stands on its curve, a note has its text beside it. */
export function PlotMarkShape({ mark }: { mark: PlotMark }) {
  const area = usePlotArea();
  const x = useXAxisScale()?.(mark.x);
  const y = useYAxisScale(mark.axis)?.(mark.y);
  if (!area || x === undefined || y === undefined) return null;
  const [right, bottom] = [area.x + area.width, area.y + area.height];
  if (!(x >= area.x - 1 && x <= right + 1 && y >= area.y - 1 && y <= bottom + 1)) return null;
  if (mark.kind === 'note') {
    const late = x > right - 80;
    return (
      <g>
        <circle cx={x} cy={y} r={2.5} fill={mark.color} />
        <text x={late ? x - 6 : x + 6} y={y - 5} textAnchor={late ? 'end' : 'start'} fontSize={11.5} fill="var(--ink)">
          {mark.label}
        </text>
      </g>
    );
  }
  const up = y < area.y + 22 ? 1 : -1;
  return (
    <g>
      <line x1={x} x2={x} y1={y} y2={y + up * 8} stroke={mark.color} />
      <circle cx={x} cy={y + up * 15} r={7.5} fill="var(--panel)" stroke={mark.color} strokeWidth={1.4} />
      <text x={x} y={y + up * 15 + 4} textAnchor="middle" fontSize={10.5} fontWeight={650} fill="var(--ink)">
        {mark.label}
      </text>
    </g>
  );
}

/** Over curves and their grid, below markers. */
const overCurves = 450;

/** A line across the plot at an x that moves often: a part of its own, as one of the library's has all of the chart reckoned anew. */
export function PlotCursor({ x: value, width = 1 }: { x: number; width?: number }) {
  const area = usePlotArea();
  const x = useXAxisScale()?.(value);
  if (!area || x === undefined || !(x >= area.x && x <= area.x + area.width)) return null;
  return (
    <ZIndexLayer zIndex={overCurves}>
      <line
        className="plot-cursor"
        x1={x}
        x2={x}
        y1={area.y}
        y2={area.y + area.height}
        stroke="var(--plum)"
        strokeWidth={width}
        strokeDasharray="3 3"
      />
    </ZIndexLayer>
  );
}

/** A limit with short strokes on the side that is not allowed, held within the plot. */
export function PlotLimitShape({ limit, clip }: { limit: PlotLimit; clip: string }) {
  const area = usePlotArea();
  const x = useXAxisScale();
  const y = useYAxisScale('left');
  if (!area || !x || !y) return null;
  const [x1, y1, x2, y2] = [x(limit.from.x), y(limit.from.y), x(limit.to.x), y(limit.to.y)];
  if (x1 === undefined || y1 === undefined || x2 === undefined || y2 === undefined) return null;
  const colour = limit.ok === false ? 'var(--brick)' : limit.ok ? 'var(--jade)' : 'var(--faint)';
  const way = limit.side === 'below' ? -6 : 6;
  const count = Math.max(2, Math.min(60, Math.round(Math.abs(x2 - x1) / 9)));
  const strokes = Array.from({ length: count }, (_, i) => {
    const t = i / (count - 1);
    return `M${(x1 + t * (x2 - x1)).toFixed(1)} ${(y1 + t * (y2 - y1)).toFixed(1)}l4 ${way}`;
  }).join('');
  return (
    <g stroke={colour} clipPath={`url(#${clip})`}>
      <clipPath id={clip}>
        <rect {...area} />
      </clipPath>
      <line x1={x1} y1={y1} x2={x2} y2={y2} strokeWidth={1.6} />
      <path d={strokes} strokeWidth={0.8} />
    </g>
  );
}
