import { describe, expect, test } from '@jest/globals';
import {
  bands,
  crossings,
  CurveFormulaFault,
  drawnIndices,
  extrema,
  held,
  nearest,
  readCurveFormula,
  spectrumAt,
  statistics,
  valueAt,
} from './index.ts';

const line = (n: number, f: (x: number) => number, to = 1) => {
  const x = Float64Array.from({ length: n }, (_, i) => (to * i) / (n - 1));
  return { x, y: x.map(f) };
};

describe('markers', () => {
  const wave = line(201, (x) => Math.sin(2 * Math.PI * x) - x, 2);

  test('snap to samples, read between them', () => {
    expect(nearest(wave, 0.333)).toEqual({ x: wave.x[33], y: wave.y[33] });
    expect(valueAt({ x: [0, 1, 3], y: [0, 10, -10] }, 2)).toBe(0);
    expect(valueAt(wave, 2.1)).toBeNaN();
    expect(nearest({ x: [0, 1], y: [NaN, 4] }, 0)).toEqual({ x: 1, y: 4 });
  });

  test('peaks and dips in order of size, within a range; a plateau counts once; ends only where nothing else does', () => {
    const peaks = extrema(wave, 1);
    expect(peaks).toHaveLength(2);
    // cos(2 pi x) = 1 / (2 pi).
    expect(peaks[0].x).toBeCloseTo(Math.acos(1 / (2 * Math.PI)) / (2 * Math.PI), 2);
    expect(extrema(wave, -1)[0].x).toBeCloseTo(2 - Math.acos(1 / (2 * Math.PI)) / (2 * Math.PI), 2);
    expect(extrema(wave, 1, 1)[0].x).toBe(peaks[1].x);
    expect(extrema({ x: [0, 1, 2, 3, 4], y: [0, 2, 2, 0, 1] }, 1)).toEqual([{ x: 1, y: 2 }]);
    expect(extrema({ x: [0, 1, 2], y: [0, 1, 2] }, 1)).toEqual([{ x: 2, y: 2 }]);
  });

  test('crossings and bandwidth at a level', () => {
    const notch = line(1001, (x) => 20 * Math.log10(Math.hypot(x - 0.5, 0.01)));
    const [band] = bands(notch, -20, -1);
    expect(band.to - band.from).toBeCloseTo(2 * Math.sqrt(0.1 ** 2 - 0.01 ** 2), 5);
    expect(crossings(notch, -20).map((c) => c.rising)).toEqual([false, true]);
    // A band that the curve leaves by its end is told as open.
    const open = bands({ x: [0, 1, 2, 3], y: [-30, -12, -3, -11] }, -10, -1);
    expect(open.map((b) => [b.openFrom, b.openTo])).toEqual([[true, false], [false, true]]); // prettier-ignore
    expect(open[0].to).toBeCloseTo(1 + 2 / 9, 12);
    expect(bands({ x: [0, 1, 2], y: [-3, NaN, -30] }, -10, -1)[0]).toMatchObject({ from: 2, openFrom: true });
  });

  test('statistics over a range', () => {
    const ramp = { x: [0, 1, 4], y: [0, 2, 8] };
    expect(statistics(ramp)).toEqual({ min: { x: 0, y: 0 }, max: { x: 4, y: 8 }, mean: 4, span: 8, count: 3 });
    expect(statistics(ramp, 0.5, 4)!.mean).toBe(5);
    expect(statistics(ramp, 5, 6)).toBeNull();
  });

  test('limit lines pass and fail with the margin at the worst place, also between samples', () => {
    const curve = { x: [0, 1, 2], y: [-12, -9, -15] };
    expect(held(curve, { from: { x: 0, y: -10 }, to: { x: 2, y: -10 }, side: 'below' })).toEqual({ ok: false, margin: -1, at: 1 });
    expect(held(curve, { from: { x: 0, y: -8 }, to: { x: 2, y: -8 }, side: 'below' })).toMatchObject({ ok: true, margin: 1 });
    // A stretch that holds no sample is judged at its ends.
    const between = held(curve, { from: { x: 1.4, y: -10 }, to: { x: 1.6, y: -12 }, side: 'below' })!;
    expect(between.at).toBeCloseTo(1.6, 12);
    expect(between.margin).toBeCloseTo(0.6, 12);
    expect(held(curve, { from: { x: 5, y: 0 }, to: { x: 6, y: 0 }, side: 'below' })).toBeNull();
  });
});

describe('drawing fewer points', () => {
  const x = Float64Array.from({ length: 100_000 }, (_, i) => i);
  const y = x.map((v) => Math.sin(v / 700));
  y[41_234] = 9;
  y[77_777] = -9;
  const drawn = drawnIndices(x, y, 400);
  test('no peak is lost, ends stay, order is kept', () => {
    expect(drawn.length).toBeLessThan(1700);
    expect(drawn).toContain(41_234);
    expect(drawn).toContain(77_777);
    expect([drawn[0], drawn[drawn.length - 1]]).toEqual([0, 99_999]);
    drawn.forEach((v, i) => expect(i === 0 || v > drawn[i - 1]).toBe(true));
  });
  test('a stretch that is looked into shows its own samples, and one beyond each end', () => {
    expect([...drawnIndices(x, y, 400, 10, 20)]).toEqual(Array.from({ length: 13 }, (_, i) => i + 9));
  });
});

test('spectrum of a decaying pulse against its closed form', () => {
  const dt = 1e-12;
  const tau = 2e-10;
  const signal = Float64Array.from({ length: 6000 }, (_, i) => Math.exp(-(((i * dt - 3e-9) / tau) ** 2)));
  const f = [0, 5e8, 1.5e9];
  const { re, im } = spectrumAt(signal, dt, 5e-10, f);
  f.forEach((v, i) => {
    const size = tau * Math.sqrt(Math.PI) * Math.exp(-((Math.PI * v * tau) ** 2));
    const phase = -2 * Math.PI * v * 3.5e-9;
    expect(Math.hypot(re[i] - size * Math.cos(phase), im[i] - size * Math.sin(phase))).toBeLessThan(1e-6 * tau);
  });
});

describe('formulas on curves', () => {
  test('arithmetic and functions of letters and x', () => {
    expect(readCurveFormula('a - b/2', ['a', 'b']).at({ a: 3, b: 2, x: 0 })).toBe(2);
    expect(readCurveFormula('db(a) + x', ['a']).at({ a: 10, x: 1 })).toBeCloseTo(21, 12);
    expect(readCurveFormula('max(a, b, 0)', ['a', 'b']).uses).toEqual(['a', 'b']);
    expect(readCurveFormula('sqrt(a)', ['a']).at({ a: -1, x: 0 })).toBeNaN();
  });
  test.each([
    ['a - ', 'cannot be read'],
    ['a - c', 'no curve c'],
    ['import(a)', 'no function import'],
    ['a.b', 'no dots'],
    ['[a, b]', 'cannot be read'],
    ['f(x) = x', '‘=’ at place 6'],
    ['atan2(a)', 'takes 2, not 1'],
    ['constructor(a)', 'no function constructor'],
    ['a'.repeat(301), 'longer'],
  ])('%s is refused in words', (text, words) => {
    expect(() => readCurveFormula(text, ['a', 'b'])).toThrow(CurveFormulaFault);
    expect(() => readCurveFormula(text, ['a', 'b'])).toThrow(words);
  });
});
