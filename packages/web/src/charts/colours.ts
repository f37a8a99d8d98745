import { interpolatePuOr, interpolateSinebow, interpolateViridis } from 'd3-scale-chromatic';

/** A diverging map for signed values, purple below and amber above, light in the middle. */
export const interpolateSigned = interpolatePuOr;

const parse = (c: string): [number, number, number] =>
  c.startsWith('#')
    ? ([1, 3, 5].map((p) => parseInt(c.slice(p, p + 2), 16)) as [number, number, number])
    : ((c.match(/\d+/g) ?? []).slice(0, 3).map(Number) as [number, number, number]);

/** 256 colours of a map as little-endian RGBA words, to be written into pictures. */
const table = (f: (t: number) => string): Uint32Array =>
  Uint32Array.from({ length: 256 }, (_, i) => {
    const [r, g, b] = parse(f(i / 255));
    return (255 << 24) | (b << 16) | (g << 8) | r;
  });

/** Perceptually uniform for sizes, diverging for signed values, cyclic for phases. */
export const colourTables = { size: table(interpolateViridis), signed: table(interpolateSigned), cyclic: table(interpolateSinebow) };

/** A scale of colours: up to `top`, linear or in dB (so many for a decade of the value) over `span`. */
export interface Scale {
  top: number;
  db: boolean;
  span: number;
  perDecade: number;
}

const missing = 0xffb8c0bb;

/** Writes the colour of a value as linear red, green, blue, 0 to 1, into three places of a list; of what is no number a grey. */
export function paint(map: keyof typeof colourTables, v: number, { top, db, span, perDecade }: Scale, out: Float32Array, at: number): void {
  const t =
    map === 'cyclic'
      ? v / 360 + 0.5
      : map === 'signed'
        ? 0.5 + v / (2 * top)
        : db
          ? 1 + (perDecade * Math.log10(Math.max(v, 1e-300) / top)) / span
          : v / top;
  const c = Number.isFinite(v) ? colourTables[map][Math.max(0, Math.min(255, Math.round(255 * t)))] : missing;
  for (let a = 0; a < 3; a++) out[at + a] = (((c >> (8 * a)) & 255) / 255) ** 2.2;
}
