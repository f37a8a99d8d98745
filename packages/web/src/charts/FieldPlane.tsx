import { formatSI } from '@jadebell/core/format';
import type { ViewBody } from '../workers/protocol.ts';
import { interpolateViridis } from 'd3-scale-chromatic';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ColourScale } from './Pattern3D.tsx';
import { useSize } from '../ui/useSize.ts';

interface Props {
  /** Node coordinates, metres. */
  u: ArrayLike<number>;
  v: ArrayLike<number>;
  /** [v][u][6] re/im of Ex, Ey, Ez. */
  field: ArrayLike<number>;
  axes: [number, number];
  bodies: readonly ViewBody[];
  unit: string;
  /** Which field it is; absent: E. */
  symbol?: 'E' | 'H';
}

const span = 50;
/** Room beside the picture for its colour scale, pixels. */
const scaleRoom = 104;
const colours = Array.from({ length: 256 }, (_, i) => {
  const c = interpolateViridis(i / 255);
  return c.startsWith('#') ? [1, 3, 5].map((p) => parseInt(c.slice(p, p + 2), 16)) : (c.match(/\d+/g) ?? []).map(Number);
});

/** Size of a field (peak over phase is bounded by it) on a plane in dB, on equal axes, with the bodies' outlines over it. */
export function FieldPlane({ u, v, field, axes, bodies, unit, symbol = 'E' }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [holder, box] = useSize();
  const [probe, setProbe] = useState('');
  const nu = u.length;
  const magnitude = useMemo(() => {
    const out = new Float64Array(nu * v.length);
    for (let i = 0; i < out.length; i++) {
      let s = 0;
      for (let c = 0; c < 6; c++) s += field[i * 6 + c] ** 2;
      out[i] = Math.sqrt(s);
    }
    return out;
  }, [field, nu, v.length]);
  const top = useMemo(() => {
    // The few cells at a feed or an edge would swallow the range: the scale starts at the 99.5th percentile.
    const sorted = Float64Array.from(magnitude).sort();
    return sorted[Math.floor(0.995 * (sorted.length - 1))] || 1;
  }, [magnitude]);

  const view = useMemo(() => {
    const [u0, u1, v0, v1] = [u[0], u[nu - 1], v[0], v[v.length - 1]];
    const scale = Math.min((box.width - 8) / (u1 - u0), (box.height - 4) / (v1 - v0));
    const width = Math.max(1, Math.floor((u1 - u0) * scale));
    const height = Math.max(1, Math.floor((v1 - v0) * scale));
    const indices = (x: ArrayLike<number>, count: number, flip: boolean): { i: Int32Array; t: Float64Array } => {
      const i = new Int32Array(count);
      const t = new Float64Array(count);
      let k = 0;
      for (let p = 0; p < count; p++) {
        const at = x[0] + ((p + 0.5) / count) * (x[x.length - 1] - x[0]);
        while (k < x.length - 2 && x[k + 1] < at) k++;
        const slot = flip ? count - 1 - p : p;
        i[slot] = k;
        t[slot] = (at - x[k]) / (x[k + 1] - x[k]);
      }
      return { i, t };
    };
    return { scale, width, height, u0, v0, v1, cols: indices(u, width, false), rows: indices(v, height, true) };
  }, [u, v, nu, box]);

  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || view.width < 2 || !Number.isFinite(view.scale) || view.scale <= 0) return;
    const image = g.createImageData(view.width, view.height);
    const { cols, rows } = view;
    for (let y = 0, o = 0; y < view.height; y++)
      for (let x = 0; x < view.width; x++, o += 4) {
        const a = rows.i[y] * nu + cols.i[x];
        const [s, t] = [cols.t[x], rows.t[y]];
        const m = (1 - t) * ((1 - s) * magnitude[a] + s * magnitude[a + 1]) + t * ((1 - s) * magnitude[a + nu] + s * magnitude[a + nu + 1]);
        const level = 1 + (20 * Math.log10(Math.max(m, 1e-30) / top)) / span;
        const c = colours[Math.max(0, Math.min(255, Math.round(255 * level)))];
        image.data[o] = c[0];
        image.data[o + 1] = c[1];
        image.data[o + 2] = c[2];
        image.data[o + 3] = 255;
      }
    g.putImageData(image, 0, 0);
  }, [view, magnitude, top, nu]);

  const outline = useMemo(() => {
    const [a, b] = axes;
    const parts: string[] = [];
    const x = (m: number): string => ((m - view.u0) * view.scale).toFixed(1);
    const y = (m: number): string => ((view.v1 - m) * view.scale).toFixed(1);
    for (const body of bodies)
      for (let i = 0; i < body.edges.length; i += 6)
        parts.push(`M${x(body.edges[i + a])} ${y(body.edges[i + b])}L${x(body.edges[i + 3 + a])} ${y(body.edges[i + 3 + b])}`);
    return parts.join('');
  }, [bodies, axes, view]);

  const read = (e: React.PointerEvent): void => {
    const r = e.currentTarget.getBoundingClientRect();
    const x = Math.min(view.width - 1, Math.max(0, Math.floor(e.clientX - r.left)));
    const y = Math.min(view.height - 1, Math.max(0, Math.floor(e.clientY - r.top)));
    const k = (view.rows.i[y] + Math.round(view.rows.t[y])) * nu + view.cols.i[x] + Math.round(view.cols.t[x]);
    const names = axes.map((n) => 'xyz'[n]);
    setProbe(
      `${names[0]} ${formatSI(u[k % nu], 'length', 4)}, ${names[1]} ${formatSI(v[Math.floor(k / nu)], 'length', 4)}: |${symbol}| ${magnitude[k].toPrecision(4)} ${unit}`,
    );
  };
  return (
    <div
      ref={holder}
      style={{ height: '100%', position: 'relative', display: 'grid', placeItems: 'center', overflow: 'hidden', paddingRight: scaleRoom }}
    >
      <div style={{ position: 'relative', width: view.width, height: view.height }} onPointerMove={read} onPointerLeave={() => setProbe('')}>
        <canvas ref={canvas} width={view.width} height={view.height} role="img" aria-label="Field on a plane" />
        <svg width={view.width} height={view.height} style={{ position: 'absolute', inset: 0 }}>
          <path d={outline} fill="none" stroke="#fff" strokeOpacity={0.75} strokeWidth={0.8} />
        </svg>
      </div>
      <div
        style={{
          position: 'absolute',
          right: 0,
          bottom: 0,
          width: 100,
          height: 142,
        }}
      >
        <ColourScale top={top >= 1000 ? `${(top / 1000).toPrecision(3)} k${unit}` : `${top.toPrecision(3)} ${unit}`} bottom={`−${span} dB`} />
      </div>
      {probe && (
        <div className="mono" style={{ position: 'absolute', left: 6, bottom: 4, background: 'var(--panel)', padding: '1px 6px', borderRadius: 4 }}>
          {probe}
        </div>
      )}
    </div>
  );
}
