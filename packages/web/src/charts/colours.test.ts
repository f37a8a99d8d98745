import { describe, expect, test } from '@jest/globals';
import { colourTables, paint } from './colours.ts';

/** Red, green and blue of a word. */
const parts = (word: number): number[] => [0, 8, 16].map((shift) => (word >>> shift) & 255);
const lightness = (word: number): number => parts(word).reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0);
const painted = (...args: [map: keyof typeof colourTables, v: number, scale: Parameters<typeof paint>[2]]): number[] => {
  const out = new Float32Array(3);
  paint(...args, out, 0);
  return [...out].map((v) => Math.round(255 * v ** (1 / 2.2)));
};
const linear = { top: 2, db: false, span: 40, perDecade: 20 };

describe('colours of fields', () => {
  test('a signed value is purple below, amber above and light about zero', () => {
    const { signed } = colourTables;
    const [low, middle, high] = [30, 128, 225].map((n) => parts(signed[n]));
    expect(low[2]).toBeGreaterThan(low[1]);
    expect(high[0]).toBeGreaterThan(high[2]);
    expect(Math.min(...middle)).toBeGreaterThan(220);
  });
  test('a size grows lighter all the way; a phase comes back to where it began', () => {
    const steps = [...colourTables.size].map(lightness);
    steps.slice(1).forEach((v, i) => expect(v).toBeGreaterThanOrEqual(steps[i] - 1));
    expect(parts(colourTables.cyclic[0])).toEqual(parts(colourTables.cyclic[255]));
  });
  test('values take their places on a scale, linear and in dB; what lies beyond ends at its colour, what is no number is grey', () => {
    expect(painted('size', 2, linear)).toEqual(parts(colourTables.size[255]));
    expect(painted('size', 1, linear)).toEqual(parts(colourTables.size[128]));
    expect(painted('size', 99, linear)).toEqual(parts(colourTables.size[255]));
    expect(painted('signed', -2, linear)).toEqual(parts(colourTables.signed[0]));
    expect(painted('cyclic', 0, linear)).toEqual(parts(colourTables.cyclic[128]));
    // A tenth is half of 40 dB down.
    expect(painted('size', 0.2, { ...linear, db: true })).toEqual(parts(colourTables.size[128]));
    const [r, g, b] = painted('size', NaN, linear);
    expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(16);
  });
});
