import { drawnIndices, nearest } from '@jadebell/core/curves';
import { useMemo, useState } from 'react';
import { useXAxisInverseScale, ZIndexLayer } from 'recharts';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { layers, PointerNote, type Scale, useScales } from './chartParts.tsx';

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
    <ZIndexLayer zIndex={layers.drawn}>
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
        <ZIndexLayer zIndex={layers.lit}>
          <path d={pathOf(own, x, y, Math.ceil(area.width))} stroke="var(--ink)" strokeWidth={2} fill="none" style={{ pointerEvents: 'none' }} />
        </ZIndexLayer>
      )}
      <ZIndexLayer zIndex={layers.pointer}>
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
      {hit && own && <PointerNote area={area} holder={holder} late={(x(hit.at.x) ?? 0) > area.x + area.width / 2} lines={tell(hit.n, hit.at)} />}
    </>
  );
}
