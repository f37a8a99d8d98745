import { interpolateViridis } from 'd3-scale-chromatic';
import { useEffect, useMemo, useRef, useState } from 'react';
import { interpolateSigned } from '../charts/colours.ts';
import { useDark } from '../ui/useDark.ts';
import type { Prepared } from '../workers/section.protocol.ts';
import type { Quantity } from './display.ts';
import { bandsOf, linesOf, type NodeValues, paintSection, type Palette, tellAt, valuesOf, viewOf } from './picture.ts';
import { useSize } from '../ui/useSize.ts';

interface Props {
  section: Prepared;
  /** [y][x][12] of the chosen mode; null: the bodies alone. */
  field: Float32Array | null;
  quantity: Quantity;
  grid: boolean;
}

/** Washes of the bodies where no field is drawn. */
const tints = { light: ['#d9e6df', '#e9dfe9', '#efe3cd', '#d5dfe8', '#e6e3d3'], dark: ['#2c463b', '#44334a', '#4a3d24', '#2c3a48', '#3f3d2c'] };

/** A colour #rrggbb as the word of a pixel. */
const word = (hex: string): number => {
  const [r, g, b] = [1, 3, 5].map((p) => parseInt(hex.slice(p, p + 2), 16));
  return ((255 << 24) | (b << 16) | (g << 8) | r) >>> 0;
};
const palettes: Record<'light' | 'dark', Palette> = {
  light: { ground: word('#faf9f6'), metal: word('#b0b6b2'), tints: tints.light.map(word) },
  dark: { ground: word('#18211d'), metal: word('#6e7672'), tints: tints.dark.map(word) },
};

/** A section to scale: bodies or a field of a mode, outlines, metal, the absorbing edges and, if asked for, the grid. */
export function SectionCanvas({ section, field, quantity, grid }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [holder, box] = useSize();
  const dark = useDark();
  const [probe, setProbe] = useState('');
  const view = useMemo(() => viewOf(section, box), [section, box]);
  const values = useMemo(() => field && valuesOf(field, quantity), [field, quantity]);
  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || view.width < 2 || view.height < 2) return;
    const image = g.createImageData(view.width, view.height);
    const pixels = new Uint32Array(image.data.buffer);
    paintSection(view, section, values, quantity.signed ? 'signed' : 'size', palettes[dark ? 'dark' : 'light'], pixels);
    g.putImageData(image, 0, 0);
  }, [view, values, quantity, section, dark]);
  const lines = useMemo(() => linesOf(section, view, grid), [section, view, grid]);
  const bands = bandsOf(section, view);
  const read = (e: React.PointerEvent): void => {
    const f = e.currentTarget.getBoundingClientRect();
    setProbe(tellAt(view, section, values, quantity, e.clientX - f.left, e.clientY - f.top));
  };
  // The ground of a signed picture is light in both themes, that of a magnitude dark.
  const ink = values ? (quantity.signed ? '#1d2a26' : '#fff') : dark ? '#cfd8d3' : '#1d2a26';
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
      {values && <Scale values={values} quantity={quantity} />}
      {probe && <div className="section-probe mono">{probe}</div>}
    </div>
  );
}

const steps = Array.from({ length: 24 }, (_, n) => n / 23);

/** The colours of a quantity with their ends, and the largest value where it lies beyond them. */
function Scale({ values: { top, most }, quantity: { signed, unit } }: { values: NodeValues; quantity: Quantity }) {
  return (
    <div className="section-scale" aria-label={`Colours from ${signed ? -top : 0} to ${top} ${unit}`}>
      <span className="mono">{signed ? `−${top.toPrecision(3)}` : '0'}</span>
      <svg width={120} height={9} aria-hidden>
        {steps.map((s, n) => (
          <rect key={n} x={n * 5} width={5.5} height={9} fill={signed ? interpolateSigned(s) : interpolateViridis(s)} />
        ))}
      </svg>
      <span className="mono">
        {top.toPrecision(3)} {unit} at 1 W{most > top ? `, most ${most.toPrecision(3)}` : ''}
      </span>
    </div>
  );
}
