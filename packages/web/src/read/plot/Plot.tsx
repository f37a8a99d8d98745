import { nearest } from '@jadebell/core/curves';
import { type ReactNode, useId, useMemo, useRef, useState } from 'react';
import { useSize } from '../../ui/useSize.ts';
import { pixel, type Scale, spanOf, valueOfPixel } from './axis.ts';
import { type PlotAxis, type PlotLimit, type PlotMark, PlotStatic, type PlotTrace } from './PlotStatic.tsx';

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
  cursor?: (x: (v: number) => number, top: number, bottom: number) => ReactNode;
  /** How a place is told under the pointer. */
  tell(trace: PlotTrace, x: number, y: number): string;
  tellX(x: number): string;
  /** A click on a trace, and a stretch that was drawn out with the pointer; null: the whole. */
  onPick?(trace: number, x: number): void;
  onZoom?(range: { min: number; max: number } | null): void;
}

const none: readonly never[] = [];
const margin = { top: 8, bottom: 34, left: 54, right: 20 };

/** Lines on linear or logarithmic axes. Draws at most a few points a pixel column; values are read from all of them. */
export function Plot({
  label,
  x,
  left,
  right,
  traces,
  marks = none,
  limits = none,
  bands = none,
  levels = none,
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
  const clip = useId();
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
          <PlotStatic {...{ box, scales, clip, two, x, left, right, traces, marks, limits, bands, levels, cursor }} />
          <g clipPath={`url(#${clip})`} pointerEvents="none">
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
