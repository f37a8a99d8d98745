import { interpolateSinebow, interpolateViridis } from 'd3-scale-chromatic';
import { interpolateSigned } from './colours.ts';

/** Of lines: without the end that is not seen on paper, or in the dark. */
export const lineMaps = {
  line: (t: number): string => interpolateViridis(0.9 * t),
  lineDark: (t: number): string => interpolateViridis(0.25 + 0.75 * t),
};

const maps = { size: interpolateViridis, signed: interpolateSigned, cyclic: interpolateSinebow, ...lineMaps };
export type ColourMap = keyof typeof maps;

const steps = Array.from({ length: 24 }, (_, i) => i / 23);

interface Props {
  top: string;
  bottom: string;
  map?: ColourMap;
  /** From left to right in place of from below upwards. */
  lying?: boolean;
}

/** Pixels that a scale takes of a picture's width where it stands beside it, and of its height where it lies below. */
export const scaleRoom = { beside: 100, below: 30 };

/** The colours of a picture with what their ends stand for. */
export function ColourScale({ top, bottom, map = 'size', lying }: Props) {
  const label = `Colours from ${bottom} to ${top}`;
  const text = { fontSize: 11.5, fill: 'var(--ink)' };
  return lying ? (
    <svg width={Math.max(320, 232 + 6.6 * top.length)} height={20} aria-label={label}>
      {steps.map((s, i) => (
        <rect key={i} x={100 + i * 5} y={5} width={5.5} height={10} fill={maps[map](s)} />
      ))}
      <text x={94} y={14} textAnchor="end" {...text}>
        {bottom}
      </text>
      <text x={227} y={14} {...text}>
        {top}
      </text>
    </svg>
  ) : (
    <svg width={86} height={132} aria-label={label}>
      {steps.map((s, i) => (
        <rect key={i} x={4} y={8 + i * 4.75} width={10} height={5.2} fill={maps[map](1 - s)} />
      ))}
      <text x={20} y={18} {...text}>
        {top}
      </text>
      <text x={20} y={121} {...text}>
        {bottom}
      </text>
    </svg>
  );
}
