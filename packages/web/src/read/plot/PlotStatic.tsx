import { drawnIndices } from '@jadebell/core/curves';
import { memo, type ReactNode, useMemo } from 'react';
import { pixel, type Scale, tickText, ticksOf } from './axis.ts';

/** A curve of a plot; x ascends. */
export interface PlotTrace {
  name: string;
  color: string;
  dash?: string;
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  axis: 'left' | 'right';
  /** Drawn with its points, where they are few. */
  points?: boolean;
}

export interface PlotAxis {
  label: string;
  min?: number;
  max?: number;
  log?: boolean;
  /** Ticks at parts of a turn: values are degrees. */
  angles?: boolean;
  /** Size of the unit that ticks are told in. */
  size: number;
}

/** Something that stands at a place of the plot. */
export interface PlotMark {
  x: number;
  y: number;
  axis: 'left' | 'right';
  color: string;
  label: string;
  kind: 'marker' | 'note';
}
export interface PlotLimit {
  from: { x: number; y: number };
  to: { x: number; y: number };
  side: 'below' | 'above';
  ok: boolean | null;
}

/** Where a plot's parts lie in pixels. */
export interface PlotScales {
  inner: { left: number; right: number; top: number; bottom: number };
  x: Scale;
  left: Scale;
  right: Scale;
}

interface Props {
  box: { width: number; height: number };
  scales: PlotScales;
  clip: string;
  two: boolean;
  x: PlotAxis;
  left: PlotAxis;
  right: PlotAxis;
  traces: readonly PlotTrace[];
  marks: readonly PlotMark[];
  limits: readonly PlotLimit[];
  bands: readonly { from: number; to: number }[];
  levels: readonly number[];
  cursor?: (x: (v: number) => number, top: number, bottom: number) => ReactNode;
}

/** All of a plot that the pointer does not change: it is drawn anew only when what it shows changes. */
export const PlotStatic = memo(function PlotStatic({ box, scales, clip, two, x, left, right, traces, marks, limits, bands, levels, cursor }: Props) {
  const { inner } = scales;
  const paths = useMemo(
    () =>
      box.width < 40
        ? []
        : traces.map((t) => {
            const to = scales[t.axis];
            const at = drawnIndices(t.x, t.y, Math.ceil(inner.right - inner.left), scales.x.min, scales.x.max);
            let d = '';
            let pen = 'M';
            let last = NaN;
            const turns = (t.axis === 'left' ? left : right).angles;
            for (const i of at) {
              const v = t.y[i];
              // A phase that jumps by a turn is one that goes on: no line is drawn down.
              if (turns && Math.abs(v - last) > 270) pen = 'M';
              last = v;
              if (!Number.isFinite(v) || (to.log && v <= 0)) {
                pen = 'M';
                continue;
              }
              d += `${pen}${pixel(scales.x, t.x[i]).toFixed(1)} ${pixel(to, v).toFixed(1)}`;
              pen = 'L';
            }
            return d;
          }),
    [traces, scales, inner.left, inner.right, box.width, left, right],
  );
  const xTicks = useMemo(() => ticksOf(scales.x.min / x.size, scales.x.max / x.size, scales.x.log, Math.max(2, Math.min(8, (inner.right - inner.left) / 74)), x.angles).map((t) => t * x.size), [scales.x, x.size, x.angles, inner.left, inner.right]); // prettier-ignore
  const yTicks = (s: Scale, { size, angles }: PlotAxis): number[] => ticksOf(s.min / size, s.max / size, s.log, Math.max(2, Math.min(8, (inner.bottom - inner.top) / 34)), angles).map((t) => t * size); // prettier-ignore
  const lTicks = yTicks(scales.left, left);
  const rTicks = two ? yTicks(scales.right, right) : [];
  const text = { fontSize: 11.5, fill: 'var(--faint)' };
  return (
    <>
      <clipPath id={clip}>
        <rect x={inner.left} y={inner.top} width={Math.max(0, inner.right - inner.left)} height={Math.max(0, inner.bottom - inner.top)} />
      </clipPath>
      {xTicks.map((v) => (
        <line key={`x${v}`} x1={pixel(scales.x, v)} x2={pixel(scales.x, v)} y1={inner.top} y2={inner.bottom} stroke="var(--line)" strokeWidth={0.7} />
      ))}
      {lTicks.map((v) => (
        <line
          key={`y${v}`}
          x1={inner.left}
          x2={inner.right}
          y1={pixel(scales.left, v)}
          y2={pixel(scales.left, v)}
          stroke="var(--line)"
          strokeWidth={0.7}
        />
      ))}
      {xTicks.map((v) => (
        <text key={`tx${v}`} x={pixel(scales.x, v)} y={inner.bottom + 14} textAnchor="middle" {...text}>
          {tickText(v, xTicks, x.size)}
        </text>
      ))}
      {lTicks.map((v) => (
        <text key={`ty${v}`} x={inner.left - 5} y={pixel(scales.left, v) + 4} textAnchor="end" {...text}>
          {tickText(v, lTicks, left.size)}
        </text>
      ))}
      {rTicks.map((v) => (
        <text key={`tr${v}`} x={inner.right + 5} y={pixel(scales.right, v) + 4} {...text}>
          {tickText(v, rTicks, right.size)}
        </text>
      ))}
      <text x={(inner.left + inner.right) / 2} y={box.height - 5} textAnchor="middle" {...text}>
        {x.label}
      </text>
      <text x={11} y={(inner.top + inner.bottom) / 2} textAnchor="middle" transform={`rotate(-90 11 ${(inner.top + inner.bottom) / 2})`} {...text}>
        {left.label}
      </text>
      {two && (
        <text
          x={box.width - 6}
          y={(inner.top + inner.bottom) / 2}
          textAnchor="middle"
          transform={`rotate(90 ${box.width - 6} ${(inner.top + inner.bottom) / 2})`}
          {...text}
        >
          {right.label}
        </text>
      )}
      <g clipPath={`url(#${clip})`}>
        {bands.map((b, i) => (
          <rect
            key={i}
            x={pixel(scales.x, b.from)}
            width={Math.max(0, pixel(scales.x, b.to) - pixel(scales.x, b.from))}
            y={inner.top}
            height={inner.bottom - inner.top}
            fill="var(--wash)"
            fillOpacity={0.6}
          />
        ))}
        {levels.map((v, i) => (
          <line
            key={i}
            x1={inner.left}
            x2={inner.right}
            y1={pixel(scales.left, v)}
            y2={pixel(scales.left, v)}
            stroke="var(--jade)"
            strokeDasharray="2 4"
          />
        ))}
        {limits.map((l, i) => (
          <LimitMark key={i} limit={l} x={scales.x} y={scales.left} />
        ))}
        {paths.map((d, n) => (
          <path key={n} d={d} fill="none" stroke={traces[n].color} strokeDasharray={traces[n].dash} strokeWidth={1.8} strokeLinejoin="round" />
        ))}
        {traces.map((t, n) =>
          t.points || t.x.length === 1
            ? Array.from(t.x, (v, i) => <circle key={`${n}-${i}`} cx={pixel(scales.x, v)} cy={pixel(scales[t.axis], t.y[i])} r={3} fill={t.color} />)
            : null,
        )}
        {cursor?.((v) => pixel(scales.x, v), inner.top, inner.bottom)}
      </g>
      {marks.map((m, i) => (
        <Mark key={i} mark={m} x={pixel(scales.x, m.x)} y={pixel(scales[m.axis], m.y)} inner={inner} />
      ))}
      <rect
        x={inner.left}
        y={inner.top}
        width={Math.max(0, inner.right - inner.left)}
        height={Math.max(0, inner.bottom - inner.top)}
        fill="none"
        stroke="var(--faint)"
        strokeWidth={0.8}
      />
    </>
  );
});

/** A numbered marker stands on its curve, a note has its text beside it. */
function Mark({ mark, x, y, inner }: { mark: PlotMark; x: number; y: number; inner: { left: number; right: number; top: number; bottom: number } }) {
  if (x < inner.left - 1 || x > inner.right + 1 || y < inner.top - 1 || y > inner.bottom + 1) return null;
  if (mark.kind === 'note')
    return (
      <g>
        <circle cx={x} cy={y} r={2.5} fill={mark.color} />
        <text
          x={x > inner.right - 80 ? x - 6 : x + 6}
          y={y - 5}
          textAnchor={x > inner.right - 80 ? 'end' : 'start'}
          fontSize={11.5}
          fill="var(--ink)"
        >
          {mark.label}
        </text>
      </g>
    );
  const up = y < inner.top + 22 ? 1 : -1;
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

/** A limit with short strokes on the side that is not allowed. */
function LimitMark({ limit, x, y }: { limit: PlotLimit; x: Scale; y: Scale }) {
  const [x1, y1, x2, y2] = [pixel(x, limit.from.x), pixel(y, limit.from.y), pixel(x, limit.to.x), pixel(y, limit.to.y)];
  const colour = limit.ok === false ? 'var(--brick)' : limit.ok ? 'var(--jade)' : 'var(--faint)';
  const way = limit.side === 'below' ? -6 : 6;
  const count = Math.max(2, Math.min(60, Math.round(Math.abs(x2 - x1) / 9)));
  const strokes = Array.from({ length: count }, (_, i) => {
    const t = i / (count - 1);
    const [px, py] = [x1 + t * (x2 - x1), y1 + t * (y2 - y1)];
    return `M${px.toFixed(1)} ${py.toFixed(1)}l4 ${way}`;
  }).join('');
  return (
    <g stroke={colour}>
      <line x1={x1} y1={y1} x2={x2} y2={y2} strokeWidth={1.6} />
      <path d={strokes} strokeWidth={0.8} />
    </g>
  );
}
