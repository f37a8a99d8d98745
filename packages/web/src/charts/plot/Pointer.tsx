import { nearest } from '@jadebell/core/curves';
import { useState } from 'react';
import { createPortal } from 'react-dom';
import { ReferenceArea, ReferenceDot, ReferenceLine, usePlotArea, useXAxisInverseScale, useXAxisScale, useYAxisScale, ZIndexLayer } from 'recharts';
import { PlotTip } from './PlotTip.tsx';
import type { PlotTrace } from './parts.ts';

interface Props {
  traces: readonly PlotTrace[];
  /** Where the words beside the pointer are put. */
  holder: HTMLElement;
  /** x that is read without the pointer, by keys. */
  read: number | null;
  tell(trace: PlotTrace, x: number, y: number): string;
  tellX(x: number): string;
  onPick?(trace: PlotTrace, x: number): void;
  onZoom?(range: { min: number; max: number } | null): void;
}

/** Pixels that the pointer is drawn before it is a stretch. */
const least = 6;
/** Above all lines of the chart. */
const above = 1500;

/** Reads the curves under the pointer from all of their samples, draws out a stretch, picks a place. */
export function PlotPointer({ traces, holder, read, tell, tellX, onPick, onZoom }: Props) {
  const area = usePlotArea();
  const value = useXAxisInverseScale();
  const x = useXAxisScale();
  const y = { left: useYAxisScale('left'), right: useYAxisScale('right') };
  const [hover, setHover] = useState<number | null>(null);
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  if (!area || !value || !x) return null;
  const where = (e: React.PointerEvent<SVGRectElement>): { px: number; py: number } => {
    const r = e.currentTarget.getBoundingClientRect();
    return { px: area.x + Math.max(0, Math.min(area.width, e.clientX - r.left)), py: area.y + e.clientY - r.top };
  };
  const at = (px: number): number => Number(value(px));
  /** The trace that passes nearest to a place, and its sample there. */
  const closest = (px: number, py: number): { trace: PlotTrace; x: number } | null => {
    let best: { trace: PlotTrace; x: number; d: number } | null = null;
    for (const trace of traces) {
      const spot = nearest(trace, at(px));
      const [sx, sy] = spot ? [x(spot.x), y[trace.axis]?.(spot.y)] : [];
      if (!spot || sx === undefined || sy === undefined) continue;
      const d = Math.hypot(sy - py, sx - px);
      if (!best || d < best.d) best = { trace, x: spot.x, d };
    }
    return best;
  };
  const drawn = drag && Math.abs(drag.from - drag.to) > least ? drag : null;
  const told = hover !== null ? at(hover) : read;
  const spots = told === null || drawn ? [] : traces.flatMap((trace) => ({ trace, spot: nearest(trace, told) }));
  const snapped = spots.find((s) => s.spot)?.spot?.x;
  return (
    <>
      {drawn && <ReferenceArea x1={at(drawn.from)} x2={at(drawn.to)} yAxisId="left" fill="var(--jade)" fillOpacity={0.12} />}
      {snapped !== undefined && <ReferenceLine x={snapped} yAxisId="left" stroke="var(--faint)" strokeWidth={0.8} />}
      {spots.map(
        ({ trace, spot }, n) => spot && <ReferenceDot key={n} x={spot.x} y={spot.y} yAxisId={trace.axis} r={3} fill={trace.color} stroke="none" />,
      )}
      <ZIndexLayer zIndex={above}>
        <rect
          {...area}
          fill="transparent"
          style={{ touchAction: 'none', cursor: onPick ? 'crosshair' : undefined }}
          onPointerMove={(e) => {
            const { px } = where(e);
            setHover(px);
            if (drag) setDrag({ ...drag, to: px });
          }}
          onPointerLeave={() => setHover(null)}
          onPointerDown={(e) => {
            if (e.button !== 0) return;
            // The chart takes the focus, not the layer below the pointer: keys go on from here.
            e.preventDefault();
            holder.focus({ preventScroll: true });
            const { px } = where(e);
            e.currentTarget.setPointerCapture(e.pointerId);
            setDrag({ from: px, to: px });
          }}
          onPointerUp={(e) => {
            const { px, py } = where(e);
            if (!drag) return;
            setDrag(null);
            if (Math.abs(drag.from - px) > least) {
              const [a, b] = [at(drag.from), at(px)];
              onZoom?.({ min: Math.min(a, b), max: Math.max(a, b) });
            } else {
              const hit = closest(px, py);
              if (hit) onPick?.(hit.trace, hit.x);
            }
          }}
          onDoubleClick={() => onZoom?.(null)}
        />
      </ZIndexLayer>
      {snapped !== undefined &&
        createPortal(
          <PlotTip
            side={(x(snapped) ?? 0) > area.x + area.width / 2 ? { left: area.x + 6 } : { right: holder.clientWidth - area.x - area.width + 6 }}
          >
            <div className="quiet">{tellX(snapped)}</div>
            {spots.map(
              ({ trace, spot }, n) =>
                spot && (
                  <div key={n}>
                    <i className="swatch" style={{ background: trace.color }} /> {trace.name}{' '}
                    <span className="mono">{tell(trace, spot.x, spot.y)}</span>
                  </div>
                ),
            )}
          </PlotTip>,
          holder,
        )}
    </>
  );
}
