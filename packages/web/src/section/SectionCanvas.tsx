import { formatSI } from '@jadebell/core/expressions/format';
import { interpolatePRGn, interpolateViridis } from 'd3-scale-chromatic';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useDark } from '../ui/useDark.ts';
import type { Prepared } from '../workers/section.protocol.ts';
import { type Quantity, sectionScale } from './display.ts';
import { useSize } from '../ui/useSize.ts';

interface Props {
  section: Prepared;
  /** [y][x][12] of the chosen mode; null: the bodies alone. */
  field: Float32Array | null;
  quantity: Quantity;
  grid: boolean;
}

const table = (of: (t: number) => string): Uint8Array => {
  const out = new Uint8Array(256 * 3);
  for (let i = 0; i < 256; i++) {
    const c = of(i / 255);
    const parts = c.startsWith('#') ? [1, 3, 5].map((p) => parseInt(c.slice(p, p + 2), 16)) : (c.match(/\d+/g) ?? []).map(Number);
    out.set(parts.slice(0, 3), 3 * i);
  }
  return out;
};
const single = table(interpolateViridis);
const double = table(interpolatePRGn);
/** Washes of the bodies where no field is drawn. */
const tints = { light: ['#d9e6df', '#e9dfe9', '#efe3cd', '#d5dfe8', '#e6e3d3'], dark: ['#2c463b', '#44334a', '#4a3d24', '#2c3a48', '#3f3d2c'] };

/** Index of the cell in which each of `count` pixels lies, and the share of the way to its upper line. */
function places(x: Float64Array, count: number): { cell: Int32Array; share: Float32Array } {
  const cell = new Int32Array(count);
  const share = new Float32Array(count);
  for (let p = 0, k = 0; p < count; p++) {
    const at = x[0] + ((p + 0.5) / count) * (x[x.length - 1] - x[0]);
    while (k < x.length - 2 && x[k + 1] < at) k++;
    cell[p] = k;
    share[p] = (at - x[k]) / (x[k + 1] - x[k]);
  }
  return { cell, share };
}

/** A section to scale: bodies or a field of a mode, outlines, metal, the absorbing edges and, if asked for, the grid. */
export function SectionCanvas({ section, field, quantity, grid }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [holder, box] = useSize();
  const dark = useDark();
  const [probe, setProbe] = useState('');
  const { x, y, media } = section;
  const view = useMemo(() => {
    const [sx, sy] = [x[x.length - 1] - x[0], y[y.length - 1] - y[0]];
    const scale = Math.max(0, Math.min((box.width - 24) / sx, (box.height - 24) / sy));
    const width = Math.max(1, Math.floor(sx * scale));
    const height = Math.max(1, Math.floor(sy * scale));
    return { width, height, scale, cols: places(x, width), rows: places(y, height) };
  }, [x, y, box]);
  const values = useMemo(() => {
    if (!field) return null;
    const out = new Float32Array(x.length * y.length);
    let top = 0;
    for (let n = 0; n < out.length; n++) {
      out[n] = quantity.of(field, 12 * n);
      top = Math.max(top, Math.abs(out[n]));
    }
    return { out, ...sectionScale(out, top) };
  }, [field, quantity, x, y]);

  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || view.width < 2 || view.height < 2) return;
    const image = g.createImageData(view.width, view.height);
    const tint = (dark ? tints.dark : tints.light).map((c) => [1, 3, 5].map((p) => parseInt(c.slice(p, p + 2), 16)));
    const ground = dark ? [24, 33, 29] : [250, 249, 246];
    const metalTone = dark ? [110, 118, 114] : [176, 182, 178];
    const { cols, rows } = view;
    for (let p = 0; p < view.height; p++) {
      const r = view.height - 1 - p;
      const [j, t] = [rows.cell[r], rows.share[r]];
      for (let q = 0, o = 4 * p * view.width; q < view.width; q++, o += 4) {
        const [i, s] = [cols.cell[q], cols.share[q]];
        const b = media.body[(2 * j + (t < 0.5 ? 0 : 1)) * media.nx + 2 * i + (s < 0.5 ? 0 : 1)];
        const inMetal = b > 0 && section.bodies[b - 1].metal;
        let colour: ArrayLike<number> = b === 0 ? ground : inMetal ? metalTone : tint[(b - 1) % tint.length];
        if (values && !inMetal) {
          const a = j * x.length + i;
          const v =
            (1 - t) * ((1 - s) * values.out[a] + s * values.out[a + 1]) + t * ((1 - s) * values.out[a + x.length] + s * values.out[a + x.length + 1]);
          const level = quantity.signed ? 0.5 + v / values.top / 2 : v / values.top;
          const k = 3 * Math.max(0, Math.min(255, Math.round(255 * level)));
          colour = (quantity.signed ? double : single).subarray(k, k + 3);
        }
        image.data[o] = colour[0];
        image.data[o + 1] = colour[1];
        image.data[o + 2] = colour[2];
        image.data[o + 3] = 255;
      }
    }
    g.putImageData(image, 0, 0);
  }, [view, values, quantity, media, section, dark, x]);

  const lines = useMemo(() => {
    const px = (v: number): string => ((v - x[0]) * view.scale).toFixed(1);
    const py = (v: number): string => ((y[y.length - 1] - v) * view.scale).toFixed(1);
    // Faces stand where neighbouring half cells lie in different bodies.
    const half = (c: Float64Array, k: number): number => (k % 2 ? (c[k >> 1] + c[(k >> 1) + 1]) / 2 : c[k >> 1]);
    const faces: string[] = [];
    for (let j = 0; j < media.ny; j++)
      for (let i = 0; i < media.nx; i++) {
        const n = j * media.nx + i;
        if (i > 0 && media.body[n] !== media.body[n - 1]) faces.push(`M${px(half(x, i))} ${py(half(y, j))}V${py(half(y, j + 1))}`);
        if (j > 0 && media.body[n] !== media.body[n - media.nx]) faces.push(`M${px(half(x, i))} ${py(half(y, j))}H${px(half(x, i + 1))}`);
      }
    const metal: string[] = [];
    for (let k = 0; k < section.metal.length; k += 4)
      metal.push(`M${px(section.metal[k])} ${py(section.metal[k + 1])}L${px(section.metal[k + 2])} ${py(section.metal[k + 3])}`);
    const mesh = grid ? [...Array.from(x, (v) => `M${px(v)} 0V${view.height}`), ...Array.from(y, (v) => `M0 ${py(v)}H${view.width}`)].join('') : '';
    return { faces: faces.join(''), metal: metal.join(''), mesh };
  }, [x, y, view, media, section, grid]);

  const [l, r, b, t] = section.layers;
  const bands = [
    l && [0, 0, (x[l] - x[0]) * view.scale, view.height],
    r && [(x[x.length - 1 - r] - x[0]) * view.scale, 0, view.width, view.height],
    b && [0, view.height - (y[b] - y[0]) * view.scale, view.width, view.height],
    t && [0, 0, view.width, (y[y.length - 1] - y[y.length - 1 - t]) * view.scale],
  ].filter((a): a is number[] => !!a);

  const read = (e: React.PointerEvent): void => {
    const f = e.currentTarget.getBoundingClientRect();
    const q = Math.min(view.width - 1, Math.max(0, Math.floor(e.clientX - f.left)));
    const p = Math.min(view.height - 1, Math.max(0, view.height - 1 - Math.floor(e.clientY - f.top)));
    const [i, j] = [view.cols.cell[q] + Math.round(view.cols.share[q]), view.rows.cell[p] + Math.round(view.rows.share[p])];
    const at = `${'xyz'[section.axes[0]]} ${formatSI(x[i], 'length', 4)}, ${'xyz'[section.axes[1]]} ${formatSI(y[j], 'length', 4)}`;
    const k =
      media.body[
        (2 * view.rows.cell[p] + (view.rows.share[p] < 0.5 ? 0 : 1)) * media.nx + 2 * view.cols.cell[q] + (view.cols.share[q] < 0.5 ? 0 : 1)
      ];
    setProbe(
      `${at}${k ? `, ${section.bodies[k - 1].name}` : ''}${values ? `: ${quantity.label} ${values.out[j * x.length + i].toPrecision(4)} ${quantity.unit}` : ''}`,
    );
  };
  // The ground of a signed picture is light in both themes, that of a magnitude dark.
  const ink = values ? (quantity.signed ? '#1d2a26' : '#fff') : dark ? '#cfd8d3' : '#1d2a26';
  const steps = Array.from({ length: 24 }, (_, n) => n / 23);
  return (
    <div ref={holder} className="section-picture">
      <div style={{ position: 'relative', width: view.width, height: view.height }} onPointerMove={read} onPointerLeave={() => setProbe('')}>
        <canvas
          ref={canvas}
          width={view.width}
          height={view.height}
          role="img"
          aria-label={values ? `${quantity.label} of the mode over the section` : 'The section'}
        />
        <svg width={view.width} height={view.height} style={{ position: 'absolute', inset: 0, overflow: 'visible' }}>
          {bands.map(([a, c, d, e]) => (
            <rect key={`${a},${c},${d}`} x={a} y={c} width={d - a} height={e - c} fill={dark ? '#000' : '#54625c'} fillOpacity={0.22} />
          ))}
          <path d={lines.mesh} fill="none" stroke={ink} strokeOpacity={0.28} strokeWidth={0.5} />
          <path d={lines.faces} fill="none" stroke={ink} strokeOpacity={0.8} strokeWidth={1} />
          <path d={lines.metal} fill="none" stroke={values ? '#e0a84a' : 'var(--amber)'} strokeWidth={2} />
          <rect width={view.width} height={view.height} fill="none" stroke="var(--line)" />
        </svg>
      </div>
      {values && (
        <div className="section-scale" aria-label={`Colours from ${quantity.signed ? -values.top : 0} to ${values.top} ${quantity.unit}`}>
          <span className="mono">{quantity.signed ? `−${values.top.toPrecision(3)}` : '0'}</span>
          <svg width={120} height={9} aria-hidden>
            {steps.map((s, n) => (
              <rect key={n} x={n * 5} width={5.5} height={9} fill={quantity.signed ? interpolatePRGn(s) : interpolateViridis(s)} />
            ))}
          </svg>
          <span className="mono">
            {values.top.toPrecision(3)} {quantity.unit} at 1 W{values.most > values.top ? `, most ${values.most.toPrecision(3)}` : ''}
          </span>
        </div>
      )}
      {probe && <div className="section-probe mono">{probe}</div>}
    </div>
  );
}
