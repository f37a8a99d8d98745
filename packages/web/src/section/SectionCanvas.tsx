import { withPrefix } from '@jadebell/core/expressions/format';
import { useCallback, useMemo } from 'react';
import { ColourScale, scaleRoom } from '../charts/ColourScale.tsx';
import { PlanePicture } from '../charts/PlanePicture.tsx';
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
  const [holder, box] = useSize();
  const dark = useDark();
  const values = useMemo(() => field && valuesOf(field, quantity), [field, quantity]);
  const below = values ? scaleRoom.below : 0;
  const view = useMemo(() => viewOf(section, { width: box.width, height: box.height - below }), [section, box, below]);
  const fill = useCallback(
    (image: ImageData) =>
      paintSection(view, section, values, quantity.signed ? 'signed' : 'size', palettes[dark ? 'dark' : 'light'], new Uint32Array(image.data.buffer)),
    [view, values, quantity, section, dark],
  );
  const lines = useMemo(() => linesOf(section, view, grid), [section, view, grid]);
  // The ground of a signed picture is light in both themes, that of a magnitude dark.
  const ink = values ? (quantity.signed ? '#1d2a26' : '#fff') : dark ? '#cfd8d3' : '#1d2a26';
  return (
    <PlanePicture
      holder={holder}
      view={view}
      label={values ? `${quantity.label} of the mode over the section` : 'The section'}
      room={{ right: 0, bottom: below }}
      paint={fill}
      tell={({ x, y }) => tellAt(view, section, values, quantity, x, y)}
      over={
        <>
          {bandsOf(section, view).map(([a, c, d, e]) => (
            <rect key={`${a},${c},${d}`} x={a} y={c} width={d - a} height={e - c} fill={dark ? '#000' : '#54625c'} fillOpacity={0.22} />
          ))}
          <path d={lines.mesh} fill="none" stroke={ink} strokeOpacity={0.28} strokeWidth={0.5} />
          <path d={lines.faces} fill="none" stroke={ink} strokeOpacity={0.8} strokeWidth={1} />
          <path d={lines.metal} fill="none" stroke={values ? '#e0a84a' : 'var(--amber)'} strokeWidth={2} />
          <rect width={view.width} height={view.height} fill="none" stroke="var(--line)" />
        </>
      }
      scale={values && <ColourScale {...endsOf(values, quantity)} map={quantity.signed ? 'signed' : 'size'} lying />}
    />
  );
}

/** The ends of the colours in words, and the largest value where it lies beyond them. */
function endsOf({ top, most }: NodeValues, { signed, unit }: Quantity): { top: string; bottom: string } {
  const told = (v: number): string => withPrefix(v, unit, 3);
  return { top: `${told(top)} at 1 W${most > top ? `, most ${told(most)}` : ''}`, bottom: signed ? `−${told(top)}` : '0' };
}
