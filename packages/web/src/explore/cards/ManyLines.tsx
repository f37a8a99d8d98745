import { drawnIndices, nearest } from '@jadebell/core/curves';
import { useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import { usePlotArea, useXAxisInverseScale, useXAxisScale, useYAxisScale, ZIndexLayer } from 'recharts';
import { PlotTip } from '../../charts/plot/PlotTip.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';

type Scale = (v: number) => number | undefined;

/** A trace as a path on the screen, a few points a pixel column. */
function pathOf({ x, y }: PlotTrace, toX: Scale, toY: Scale, columns: number): string {
  let out = '';
  let drawing = false;
  for (const i of drawnIndices(x, y, columns, x[0], x[x.length - 1])) {
    const [px, py] = [toX(x[i]), Number.isFinite(y[i]) ? toY(y[i]) : undefined];
    if (px === undefined || py === undefined || !Number.isFinite(py)) {
      drawing = false;
      continue;
    }
    out += `${drawing ? 'L' : 'M'}${px.toFixed(1)} ${Math.max(-1e4, Math.min(1e4, py)).toFixed(1)}`;
    drawing = true;
  }
  return out;
}

/** Scales of a chart as plain functions, and its area. */
function useScales() {
  const area = usePlotArea();
  const x = useXAxisScale() as Scale | undefined;
  const y = useYAxisScale('left') as Scale | undefined;
  return area && x && y ? { area, x, y } : null;
}

/** Under the pointer's layer, over the grid. */
const lines = 400;

/** Very many curves on the axes of a chart: those of one colour are one path. */
export function ManyLines({ traces, chosen }: { traces: readonly PlotTrace[]; chosen: number }) {
  const scales = useScales();
  const paths = useMemo(() => {
    if (!scales) return [];
    const byColour = new Map<string, string>();
    for (const t of traces) byColour.set(t.color, (byColour.get(t.color) ?? '') + pathOf(t, scales.x, scales.y, Math.ceil(scales.area.width)));
    return [...byColour];
  }, [traces, scales?.x, scales?.y, scales?.area.width]); // oxlint-disable-line react/exhaustive-deps -- the scales are made anew with each drawing.
  if (!scales) return null;
  const own = traces[chosen];
  return (
    <ZIndexLayer zIndex={lines}>
      <svg {...scales.area} viewBox={`${scales.area.x} ${scales.area.y} ${scales.area.width} ${scales.area.height}`} style={{ overflow: 'hidden' }}>
        {paths.map(([color, d]) => (
          <path key={color} d={d} stroke={color} strokeWidth={traces.length > 100 ? 0.8 : 1.4} fill="none" />
        ))}
        {own && <path d={pathOf(own, scales.x, scales.y, Math.ceil(scales.area.width))} stroke="var(--plum)" strokeWidth={2.6} fill="none" />}
      </svg>
    </ZIndexLayer>
  );
}

interface PointerProps {
  traces: readonly PlotTrace[];
  holder: HTMLElement;
  /** What is said of a curve, in lines. */
  tell(n: number, at: { x: number; y: number }): string[];
  onPick(n: number): void;
}

/** Pixels within which a curve is under the pointer. */
const near = 40;

/** Tells of the curve that passes nearest to the pointer, and picks it. */
export function NearestLine({ traces, holder, tell, onPick }: PointerProps) {
  const scales = useScales();
  const value = useXAxisInverseScale();
  const [hit, setHit] = useState<{ n: number; at: { x: number; y: number } } | null>(null);
  if (!scales || !value) return null;
  const { area, x, y } = scales;
  const find = (e: React.MouseEvent): typeof hit => {
    const r = e.currentTarget.getBoundingClientRect();
    const [px, py] = [area.x + e.clientX - r.left, area.y + e.clientY - r.top];
    const at = Number(value(px));
    let best: typeof hit = null;
    let least = near;
    traces.forEach((t, n) => {
      const spot = nearest(t, at);
      const sy = spot ? y(spot.y) : undefined;
      if (!spot || sy === undefined || !(Math.abs(sy - py) < least)) return;
      least = Math.abs(sy - py);
      best = { n, at: spot };
    });
    return best;
  };
  const own = hit && traces[hit.n];
  return (
    <>
      {own && (
        <ZIndexLayer zIndex={lines + 1}>
          <path d={pathOf(own, x, y, Math.ceil(area.width))} stroke="var(--ink)" strokeWidth={2} fill="none" style={{ pointerEvents: 'none' }} />
        </ZIndexLayer>
      )}
      <ZIndexLayer zIndex={1500}>
        <rect
          {...area}
          fill="transparent"
          style={{ cursor: hit ? 'pointer' : undefined }}
          onPointerMove={(e) => setHit(find(e))}
          onPointerLeave={() => setHit(null)}
          onClick={(e) => {
            const at = find(e);
            if (at) onPick(at.n);
          }}
        />
      </ZIndexLayer>
      {hit &&
        own &&
        createPortal(
          <PlotTip
            side={(x(hit.at.x) ?? 0) > area.x + area.width / 2 ? { left: area.x + 6 } : { right: holder.clientWidth - area.x - area.width + 6 }}
          >
            {tell(hit.n, hit.at).map((line, i) => (
              <div key={i} className={i ? 'mono' : undefined}>
                {line}
              </div>
            ))}
          </PlotTip>,
          holder,
        )}
    </>
  );
}
