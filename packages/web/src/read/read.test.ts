import { fieldShares, summed } from '@jadebell/core/reading';
import { abs2 } from '@jadebell/core/numerics';
import { describe, expect, test } from '@jest/globals';
import { type Board, cardWith, emptyProject } from '@jadebell/core/document';
import type { Run } from '../api/types.ts';
import { arrowPath, streamPath } from '../charts/flow.ts';
import { sameModel } from '../project/useModelPart.ts';
import { freeName, freePlace, stepOfKey, stepped } from '../charts/layout.ts';
import { differingParameters, shownRuns } from '../lens/shown.ts';
import { spanOf, tickText, ticksOf } from '../charts/plot/axis.ts';

const board = (...places: [x: number, y: number, w: number, h: number][]): Board => ({
  name: 'b',
  cards: places.map(([x, y, w, h], i) => cardWith({ kind: 'note', id: `c${i}`, place: { x, y, w, h } })),
});

describe('the layout of a board', () => {
  test('a new card takes the first free place, row by row', () => {
    expect(freePlace(board())).toEqual({ x: 0, y: 0, w: 6, h: 6 });
    expect(freePlace(board([0, 0, 6, 6]))).toEqual({ x: 6, y: 0, w: 6, h: 6 });
    expect(freePlace(board([0, 0, 6, 6], [6, 0, 6, 4]))).toMatchObject({ x: 6, y: 4 });
    expect(freePlace(board([0, 0, 12, 3], [0, 9, 12, 2]), 12, 7)).toMatchObject({ x: 0, y: 11 });
  });
  test('steps of the keyboard stay on the board', () => {
    const place = { x: 6, y: 0, w: 6, h: 2 };
    expect(stepped(place, 'right')).toEqual(place);
    expect(stepped(place, 'left')).toEqual({ ...place, x: 5 });
    expect(stepped(place, 'up')).toEqual(place);
    expect(stepped(place, 'lower')).toEqual(place);
    expect(stepped(place, 'wider')).toEqual(place);
    expect(stepOfKey('ArrowDown', true)).toBe('taller');
    expect(stepOfKey('a', false)).toBeNull();
  });
  test('names stay apart', () => expect(freeName(['Match', 'Match 2'], 'Match')).toBe('Match 3'));
});

describe('axes of plots', () => {
  test('ticks are round, in decades, in parts of a turn, with the digits they need', () => {
    expect(ticksOf(0.7, 1.05, false, 7).map((t) => tickText(t, [0.7, 0.75], 1))).toEqual([
      '0.70',
      '0.75',
      '0.80',
      '0.85',
      '0.90',
      '0.95',
      '1.00',
      '1.05',
    ]);
    expect(ticksOf(1e6, 1e9, true, 8)).toHaveLength(10);
    expect(ticksOf(1, 1e12, true, 6).map(Math.log10).map(Math.round)).toEqual([0, 2, 4, 6, 8, 10, 12]);
    expect(ticksOf(-180, 180, false, 6, true)).toEqual([-180, -120, -60, 0, 60, 120, 180]);
    expect(tickText(2.5e9, [2.5e9, 5e9], 1e9)).toBe('2.5');
    expect(tickText(-0, [0, 10], 1)).toBe('0');
  });
  test('spans have round bounds, keep given ones, and survive flat and empty curves', () => {
    expect(spanOf([[-33.6, -0.4]], {}, false, true)).toEqual([-40, 0]);
    expect(spanOf([[-33.6]], { min: -20, max: 0 }, false, true)).toEqual([-20, 0]);
    const flat = spanOf([[5, 5]], {}, false, true);
    expect(flat[0]).toBeLessThan(5);
    expect(flat[1]).toBeGreaterThan(5);
    expect(spanOf([[NaN]], {}, false, true)).toEqual([0, 1]);
    expect(spanOf([[-1, 0.1, 100]], {}, true, true)).toEqual([0.1, 100]);
  });
});

const run = (number: number, projectId: string, parameters: Record<string, number>, meta: object = {}): Run =>
  ({
    id: `${projectId}-${number}`,
    projectId,
    number,
    parameters: Object.entries(parameters).map(([name, si]) => ({ name, expression: String(si), si, measure: 'length' })),
    meta: { ports: [{ name: 'a', resistance: 50 }, { name: 'b', resistance: 50 }], excitations: [0, 1], ...meta },
  }) as unknown as Run; // prettier-ignore

describe('runs beside each other', () => {
  test('keep their colours and tell where they differ; those of other projects are named', () => {
    const shown = shownRuns([
      { run: run(4, 'here', { w: 1e-3, h: 2e-3 }), title: 'Tag' },
      { run: run(2, 'here', { w: 3e-3, h: 2e-3 }), title: 'Tag' },
      { run: run(1, 'there', { w: 1e-3 }), title: 'Mast' },
    ]);
    expect(shown.map((s) => s.label)).toEqual(['run 4', 'run 2', 'Mast run 1']);
    expect(new Set(shown.map((s) => s.tint)).size).toBe(3);
    expect(shown[1].differs).toBe('w = 3 mm, h = 2 mm');
    expect(shown[2].differs).toBe('w = 1 mm, h = –');
    expect(differingParameters([run(1, 'p', { w: 1 }), run(2, 'p', { w: 1 })])).toEqual([]);
  });
});

describe('fields of chosen waves', () => {
  const waves = { name: 'both', waves: [{ channel: 'a', amplitude: 3, phase: 0 }, { channel: 'b', amplitude: 4, phase: 90 }] }; // prettier-ignore
  test('shares add up to 1 W, and to what was recorded where nothing else is kept', () => {
    const shares = fieldShares(run(1, 'p', {}, { others: [{ turn: 1, figures: null, recorded: [] }] }).meta!, waves);
    expect(shares.reduce((sum, s) => sum + abs2(s.amplitude), 0)).toBeCloseTo(1, 12);
    expect(shares[1].amplitude[1]).toBeCloseTo(0.8, 12);
    expect(fieldShares(run(1, 'p', {}).meta!, waves)).toEqual([{ column: 0, amplitude: [1, 0] }]);
  });
  test('complex numbers are added up; one alone is passed on', () => {
    const [p, q] = [Float64Array.of(1, 0), Float64Array.of(0, 2)];
    expect([...summed([p, q], [{ column: 0, amplitude: [2, 0] }, { column: 1, amplitude: [0, 1] }])]).toEqual([0, 0]); // prettier-ignore
    expect(summed([p], [{ column: 0, amplitude: [1, 0] }])).toBe(p);
  });
});

describe('arrows and streamlines', () => {
  const n = 40;
  const line = Float64Array.from({ length: n }, (_, i) => i);
  const at = (flip: boolean) => ({ i: Int32Array.from({ length: 200 }, (_, p) => Math.min(n - 2, Math.floor(((flip ? 199 - p : p) / 200) * n))), t: new Float32Array(200) }); // prettier-ignore
  const view = { size: 5, width: 200, height: 200, u0: 0, v1: n, cols: at(false), rows: at(true) };
  const field = (f: (x: number, y: number) => [number, number]): Float64Array =>
    Float64Array.from({ length: 2 * n * n }, (_, i) => f(((i >> 1) % n) - n / 2 + 0.5, Math.floor((i >> 1) / n) - n / 2 + 0.5)[i & 1]);
  test('even arrows are all alike and no longer than their raster; none where there is no field', () => {
    const path = arrowPath(field(() => [1, 0]), line, line, view, 1); // prettier-ignore
    const shafts = [...path.matchAll(/M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)M/g)];
    expect(shafts.length).toBeGreaterThan(100);
    for (const [, x, y, u, v] of shafts.map((m) => m.map(Number))) expect([u - x, v - y]).toEqual([15, 0]);
    expect(arrowPath(field(() => [0, 0]), line, line, view, 1)).toBe(''); // prettier-ignore
  });
  test('streamlines of a turning field close around the middle and do not cross', () => {
    const path = streamPath(field((x, y) => [-y, x]), line, line, view, 20); // prettier-ignore
    const radii = path
      .split('M')
      .filter((p) => p.split('L').length > 12)
      .map((p) => p.split('L').map((q) => Math.hypot(...(q.split(' ').map((v) => Number(v) - 100) as [number, number]))));
    expect(radii.length).toBeGreaterThan(2);
    for (const r of radii) expect(Math.max(...r) - Math.min(...r)).toBeLessThan(12);
  });
});

test('work on boards leaves the model as it is', () => {
  const project = emptyProject('t');
  expect(sameModel(project, { ...project, boards: [board()], title: 'other' })).toBe(true);
  expect(sameModel(project, { ...project, lines: [] })).toBe(false);
});
