import { drawnIndices, nearest } from '@jadebell/core/curves';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { useSize } from '../../ui/useSize.ts';
import { pixel, type Scale, spanOf, tickText, ticksOf, valueOfPixel } from './axis.ts';

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

interface Props {
  label: string;
  x: PlotAxis;
  left: PlotAxis;
  right: PlotAxis;
  traces: readonly PlotTrace[];
  marks?: readonly PlotMark[];
  limits?: readonly PlotLimit[];
  /** Stretches of x to be shaded. */
  bands?: readonly { from: number; to: number }[];
  levels?: readonly number[];
  cursor?: ReactNode | ((x: (v: number) => number, top: number, bottom: number) => ReactNode);
  /** How a place is told under the pointer. */
  tell(trace: PlotTrace, x: number, y: number): string;
  tellX(x: number): string;
  /** A click on a trace, and a stretch that was drawn out with the pointer; null: the whole. */
  onPick?(trace: number, x: number): void;
  onZoom?(range: { min: number; max: number } | null): void;
}

const margin = { top: 8, bottom: 34, left: 54, right: 20 };

/** Lines on linear or logarithmic axes. Draws at most a few points a pixel column; values are read from all of them. */
export function Plot({
  label,
  x,
  left,
  right,
  traces,
  marks = [],
  limits = [],
  bands = [],
  levels = [],
  cursor,
  tell,
  tellX,
  onPick,
  onZoom,
}: Props) {
  const [holder, box] = useSize();
  const [hover, setHover] = useState<number | null>(null);
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const two = traces.some((t) => t.axis === 'right');
  const scales = useMemo(() => {
    const inner = { left: margin.left, right: box.width - (two ? margin.left : margin.right), top: margin.top, bottom: box.height - margin.bottom };
    const [x0, x1] = spanOf(traces.map((t) => t.x), x, !!x.log, false); // prettier-ignore
    const y = (axis: 'left' | 'right', a: PlotAxis): Scale => {
      const mine = traces.filter((t) => t.axis === axis);
      const seen = x.min === undefined && x.max === undefined ? mine.map((t) => t.y) : mine.map((t) => within(t, x0, x1));
      const [min, max] = spanOf(seen, a, !!a.log, true, a.angles);
      return { min, max, log: !!a.log, from: inner.bottom, to: inner.top };
    };
    return {
      inner,
      x: { min: x0, max: x1, log: !!x.log, from: inner.left, to: inner.right } as Scale,
      left: y('left', left),
      right: y('right', right),
    };
  }, [traces, box, x, left, right, two]);
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
  const where = (e: React.PointerEvent): { px: number; py: number } => {
    const r = svg.current!.getBoundingClientRect();
    return { px: e.clientX - r.left, py: e.clientY - r.top };
  };
  const inside = (px: number): boolean => px >= inner.left && px <= inner.right;
  /** The trace that passes nearest to a place, and its sample there. */
  const closest = (px: number, py: number): { n: number; x: number } | null => {
    const vx = valueOfPixel(scales.x, px);
    let best: { n: number; x: number; d: number } | null = null;
    traces.forEach((t, n) => {
      const spot = nearest(t, vx);
      if (!spot) return;
      const d = Math.hypot(pixel(scales[t.axis], spot.y) - py, pixel(scales.x, spot.x) - px);
      if (!best || d < best.d) best = { n, x: spot.x, d };
    });
    return best;
  };
  const hovered = hover === null || !inside(hover) ? null : traces.map((t) => nearest(t, valueOfPixel(scales.x, hover)));
  const text = { fontSize: 11.5, fill: 'var(--faint)' };
  const snapped = hovered?.find((s) => s)?.x;
  return (
    <div ref={holder} style={{ height: '100%', position: 'relative', overflow: 'hidden' }}>
      {box.width >= 40 && (
        <svg
          ref={svg}
          width={box.width}
          height={box.height}
          role="img"
          aria-label={`Plot of ${label}`}
          style={{ display: 'block', touchAction: 'none', cursor: onPick ? 'crosshair' : undefined }}
          onPointerMove={(e) => {
            const { px } = where(e);
            setHover(px);
            if (drag) setDrag({ ...drag, to: px });
          }}
          onPointerLeave={() => setHover(null)}
          onPointerDown={(e) => {
            const { px } = where(e);
            if (e.button === 0 && inside(px)) {
              e.currentTarget.setPointerCapture(e.pointerId);
              setDrag({ from: px, to: px });
            }
          }}
          onPointerUp={(e) => {
            const { px, py } = where(e);
            if (!drag) return;
            setDrag(null);
            if (Math.abs(drag.from - px) > 6) {
              const [a, b] = [drag.from, px].map((p) => valueOfPixel(scales.x, Math.max(inner.left, Math.min(inner.right, p))));
              onZoom?.({ min: Math.min(a, b), max: Math.max(a, b) });
            } else {
              const hit = closest(px, py);
              if (hit) onPick?.(hit.n, hit.x);
            }
          }}
          onDoubleClick={() => onZoom?.(null)}
        >
          <clipPath id={`clip-${label.replaceAll(/\W/g, '')}`}>
            <rect x={inner.left} y={inner.top} width={Math.max(0, inner.right - inner.left)} height={Math.max(0, inner.bottom - inner.top)} />
          </clipPath>
          {xTicks.map((v) => (
            <line
              key={`x${v}`}
              x1={pixel(scales.x, v)}
              x2={pixel(scales.x, v)}
              y1={inner.top}
              y2={inner.bottom}
              stroke="var(--line)"
              strokeWidth={0.7}
            />
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
          <text
            x={11}
            y={(inner.top + inner.bottom) / 2}
            textAnchor="middle"
            transform={`rotate(-90 11 ${(inner.top + inner.bottom) / 2})`}
            {...text}
          >
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
          <g clipPath={`url(#clip-${label.replaceAll(/\W/g, '')})`}>
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
                ? Array.from(t.x, (v, i) => (
                    <circle key={`${n}-${i}`} cx={pixel(scales.x, v)} cy={pixel(scales[t.axis], t.y[i])} r={3} fill={t.color} />
                  ))
                : null,
            )}
            {typeof cursor === 'function' ? cursor((v) => pixel(scales.x, v), inner.top, inner.bottom) : cursor}
            {drag && Math.abs(drag.from - drag.to) > 6 && (
              <rect
                x={Math.min(drag.from, drag.to)}
                width={Math.abs(drag.to - drag.from)}
                y={inner.top}
                height={inner.bottom - inner.top}
                fill="var(--jade)"
                fillOpacity={0.12}
              />
            )}
            {snapped !== undefined && !drag && (
              <line
                x1={pixel(scales.x, snapped)}
                x2={pixel(scales.x, snapped)}
                y1={inner.top}
                y2={inner.bottom}
                stroke="var(--faint)"
                strokeWidth={0.8}
              />
            )}
            {hovered?.map(
              (s, n) => s && <circle key={n} cx={pixel(scales.x, s.x)} cy={pixel(scales[traces[n].axis], s.y)} r={3} fill={traces[n].color} />,
            )}
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
        </svg>
      )}
      {hovered && snapped !== undefined && !drag && (
        <div className="plot-tip" style={hover! > (inner.left + inner.right) / 2 ? { left: inner.left + 6 } : { right: box.width - inner.right + 6 }}>
          <div className="quiet">{tellX(snapped)}</div>
          {hovered.map(
            (s, n) =>
              s && (
                <div key={n}>
                  <i className="swatch" style={{ background: traces[n].color }} /> {traces[n].name}{' '}
                  <span className="mono">{tell(traces[n], s.x, s.y)}</span>
                </div>
              ),
          )}
        </div>
      )}
    </div>
  );
}

/** The values of a trace within a stretch of x. */
function within({ x, y }: PlotTrace, from: number, to: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < x.length; i++) if (x[i] >= from && x[i] <= to) out.push(y[i]);
  return out;
}

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
