import { interpolatePuOr, interpolateSinebow, interpolateViridis } from 'd3-scale-chromatic';

/** A diverging map for signed values, purple below and amber above, light in the middle. */
export const interpolateSigned = (t: number): string => interpolatePuOr(1 - t);

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
