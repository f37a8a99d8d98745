import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { emptyProject, type Line, type MeshData, packMesh, type Part, type Project, projectSchema, shapes } from '../document/index.ts';
import { evaluateExpression } from '../expressions/index.ts';
import { type Body, evaluateModel, type Kernel, loadGeometryKernel, type Model, ModelCache, rowSpans } from './index.ts';

let kernel: Kernel;
const cache = new ModelCache();
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});
afterAll(() => cache.dispose());

const zero: [string, string, string] = ['0 mm', '0 mm', '0 mm'];
type Loose = Record<string, unknown>;
/** A line of a kind with some of its values changed. */
const line = (kind: string, name: string, change: Loose = {}): Line =>
  ({ ...(shapes.find((s) => s.kind === kind)!.fresh(name) as unknown as Loose), ...change }) as unknown as Line;
const project = (lines: Line[], parameters: Record<string, string> = {}): Project => ({
  ...emptyProject('t'),
  parameters: Object.entries(parameters).map(([name, expression]) => ({ name, expression })),
  lines,
});
const model = (lines: Line[], parameters: Record<string, string> = {}): Model => evaluateModel(project(lines, parameters), kernel, cache);
const only = (lines: Line[]): Body => {
  const m = model(lines);
  expect(m.problems.filter((p) => p.severity === 'error')).toEqual([]);
  expect(m.bodies).toHaveLength(1);
  return m.bodies[0];
};
const box = (name: string, size: string[], at: string[] = zero, anchor = 'centre'): Line => line('box', name, { size, at, anchor });
const cubic = 1e-9;

/** Volume by counting rows of the exact shape, apart from the drawing. */
function rowVolume(b: Body, n = 160): number {
  const [, y0, z0] = b.min;
  const [, y1, z1] = b.max;
  let sum = 0;
  for (let j = 0; j < n; j++)
    for (let k = 0; k < n; k++) {
      const s = rowSpans(b.shape, y0 + ((j + 0.5) / n) * (y1 - y0), z0 + ((k + 0.5) / n) * (z1 - z0));
      for (let i = 0; i < s.length; i += 2) sum += s[i + 1] - s[i];
    }
  return (sum * (y1 - y0) * (z1 - z0)) / n / n;
}

test('an imported part is known by all it holds: another of the same length and end is built anew', () => {
  // Pyramids on a base of many corners that differ in the height of their apex alone.
  const n = 48;
  const pyramid = (height: number): MeshData => {
    const ring = Array.from({ length: n }, (_, i) => [Math.cos((2 * Math.PI * i) / n) * 1e-3, Math.sin((2 * Math.PI * i) / n) * 1e-3, 0]);
    const sides = Array.from({ length: n }, (_, i) => [0, 2 + i, 2 + ((i + 1) % n), 1, 2 + ((i + 1) % n), 2 + i]);
    return { positions: Float32Array.from([0, 0, height, 0, 0, 0, ...ring.flat()]), triangles: Uint32Array.from(sides.flat()) };
  };
  const part = (height: number): Part => ({ name: 'hull', kind: 'mesh', source: 'hull.stl', data: packMesh(pyramid(height)) });
  const parts = Array.from({ length: 60 }, (_, i) => part((1 + i / 20) * 1e-3));
  const alike = (p: Part): string => `${p.data.length} ${p.data.slice(-64)}`;
  const first = parts.findIndex((p, i) => parts.slice(i + 1).some((q) => alike(q) === alike(p)));
  const second = parts.findLastIndex((p) => alike(p) === alike(parts[first]));
  expect(second).toBeGreaterThan(first);
  const volume = (p: Part): number =>
    evaluateModel({ ...project([line('import', 'hull', { part: 'hull' })]), parts: [p] }, kernel, cache).bodies[0].volume;
  expect(volume(parts[second]) / volume(parts[first])).toBeCloseTo((1 + second / 20) / (1 + first / 20), 4);
  // The same part in another object is the same.
  expect(volume({ ...parts[first] })).toBe(volume(parts[first]));
});

describe('solids have the volume of their closed form, by their rows as by their mesh', () => {
  const pi = Math.PI;
  test.each<[string, Loose, number, number]>([
    ['box', { size: ['3 mm', '4 mm', '5 mm'] }, 60, 1e-6],
    ['cylinder', { radius: '2 mm', height: '7 mm', axis: 'y' }, pi * 4 * 7, 2e-3],
    ['tube', { radius: '3 mm', bore: '2 mm', height: '7 mm', axis: 'x' }, pi * 5 * 7, 6e-3],
    ['cone', { from: '3 mm', to: '1 mm', height: '6 mm' }, (pi * 6 * (9 + 3 + 1)) / 3, 2e-3],
    ['cone', { from: '3 mm', to: '0 mm', height: '6 mm' }, pi * 9 * 2, 3e-3],
    ['sphere', { radius: '3 mm' }, (4 / 3) * pi * 27, 4e-3],
    ['ellipsoid', { radii: ['4 mm', '3 mm', '2 mm'] }, (4 / 3) * pi * 24, 4e-3],
    ['torus', { major: '6 mm', minor: '2 mm' }, 2 * pi * pi * 6 * 4, 6e-3],
    ['frustum', { from: ['4 mm', '2 mm'], to: ['8 mm', '6 mm'], height: '6 mm' }, (6 / 6) * (8 + 48 + 4 * (6 * 4)), 2e-3],
    ['prism', { points: [['0 mm', '0 mm'], ['6 mm', '0 mm'], ['6 mm', '2 mm'], ['2 mm', '2 mm'], ['2 mm', '5 mm'], ['0 mm', '5 mm']], height: '3 mm' }, 18 * 3, 2e-3], // prettier-ignore
    ['revolve', { points: [['2 mm', '0 mm'], ['4 mm', '0 mm'], ['4 mm', '3 mm'], ['2 mm', '3 mm']], angle: '360 deg' }, pi * 12 * 3, 6e-3], // prettier-ignore
    [
      'revolve',
      {
        points: [
          ['0 mm', '0 mm'],
          ['4 mm', '0 mm'],
          ['0 mm', '3 mm'],
        ],
        angle: '90 deg',
      },
      (pi * 16 * 3) / 3 / 4,
      6e-3,
    ],
    ['loft', { from: [['-2 mm', '-1 mm'], ['2 mm', '-1 mm'], ['2 mm', '1 mm'], ['-2 mm', '1 mm']], to: [['-4 mm', '-3 mm'], ['4 mm', '-3 mm'], ['4 mm', '3 mm'], ['-4 mm', '3 mm']], height: '6 mm' }, 152, 2e-3], // prettier-ignore
  ])('%s %j', (kind, change, expected, tolerance) => {
    const b = only([line(kind, 'b', change)]);
    expect(b.volume / cubic / expected).toBeGreaterThan(1 - tolerance);
    expect(b.volume / cubic / expected).toBeLessThan(1 + tolerance);
    expect(Math.abs(rowVolume(b) / cubic / expected - 1)).toBeLessThan(tolerance + 6e-3);
  });

  test('wires, sweeps and helices along curves', () => {
    const path = line('helix', 'h', { radius: '10 mm', end: '10 mm', pitch: '8 mm', turns: '3' });
    const m = model([path, line('wire', 'w', { radius: '0.5 mm', path: 'h' })]);
    const length = 3 * Math.hypot(2 * Math.PI * 10, 8);
    expect(m.bodies[0].volume / cubic / (Math.PI * 0.25 * length)).toBeCloseTo(1, 1);
    const ring = model([line('arc', 'a', { radius: '10 mm', from: '0 deg', to: '360 deg' }), line('sweep', 's', { path: 'a' })]).bodies[0];
    expect(ring.volume / cubic / (2 * 2 * Math.PI * 10)).toBeCloseTo(1, 2);
    const straight = model([line('line', 'l', { from: zero, to: ['3 mm', '4 mm', '12 mm'] }), line('wire', 'w', { radius: '1 mm', path: 'l' })])
      .bodies[0].volume;
    expect(straight / cubic).toBeCloseTo(Math.PI * 13, 6);
  });
});

describe('combining', () => {
  const a = box('a', ['10 mm', '10 mm', '10 mm']);
  const b = box('b', ['10 mm', '10 mm', '10 mm'], ['5 mm', '5 mm', '5 mm']);
  test.each<[string, Loose, number]>([
    ['join', { parts: ['a', 'b'] }, 1875],
    ['common', { parts: ['a', 'b'] }, 125],
    ['cut', { from: 'a', tools: ['b'] }, 875],
  ])('%s of two boxes', (kind, change, volume) => {
    const c = only([a, b, line(kind, 'c', change)]);
    expect(c.volume / cubic).toBeCloseTo(volume, 2);
    expect(rowVolume(c) / cubic / volume).toBeCloseTo(1, 2);
    expect(c.material.name).toBe('Polyimide film');
    expect(c.min.map((v) => v * 1e3)).toEqual(kind === 'common' ? [0, 0, 0] : [-5, -5, -5]);
  });

  test('kept tools stay bodies, muted combinations give their inputs back', () => {
    expect(model([a, b, line('cut', 'c', { from: 'a', tools: ['b'], after: 'kept' })]).bodies.map((x) => x.name)).toEqual(['b', 'c']);
    expect(model([a, b, line('cut', 'c', { from: 'a', tools: ['b'], muted: true })]).bodies.map((x) => x.name)).toEqual(['a', 'b']);
    const muted = model([line('section', 's', { muted: true }), a, line('section', 't'), b]);
    expect(muted.bodies.map((x) => x.name)).toEqual(['b']);
  });

  test('round bodies are exact for solvers although the drawing has facets', () => {
    const c = only([
      a,
      line('cylinder', 'r', { radius: '3 mm', height: '20 mm', at: ['0 mm', '0 mm', '-10 mm'] }),
      line('cut', 'c', { from: 'a', tools: ['r'] }),
    ]);
    const [, out, into] = rowSpans(c.shape, 1e-3, 0);
    expect(out).toBeCloseTo(-Math.sqrt(8) * 1e-3, 12);
    expect(into).toBeCloseTo(Math.sqrt(8) * 1e-3, 12);
    expect(Math.abs(rowVolume(c, 400) / cubic / (1000 - Math.PI * 90) - 1)).toBeLessThan(2e-3);
  });

  test('sheets combine in their plane, and a solid cuts a sheet', () => {
    const s = line('rectangle', 's', { size: ['10 mm', '10 mm'] });
    const hole = line('disc', 'd', { radius: '2 mm' });
    const ring = only([s, hole, line('cut', 'c', { from: 's', tools: ['d'] })]);
    expect(ring.area * 1e6).toBeCloseTo(100 - Math.PI * 4, 1);
    expect(ring.shape).toMatchObject({ form: 'sheet', normal: 2, offset: 0 });
    expect((ring.shape as { loops: unknown[] }).loops).toHaveLength(2);
    const notched = only([s, box('b', ['4 mm', '4 mm', '1 mm'], ['5 mm', '0 mm', '0 mm']), line('cut', 'c', { from: 's', tools: ['b'] })]);
    expect(notched.area * 1e6).toBeCloseTo(92, 4);
    expect(notched.max.map((v) => v * 1e3)).toEqual([5, 5, 0]);
  });

  test('split, imprint, thicken, offset, container', () => {
    const parts = model([a, line('split', 's', { of: 'a', offset: '2 mm', keep: 'both' })]).bodies;
    expect(parts.map((p) => [p.name, Math.round(p.volume / cubic)])).toEqual([['s_1', 300], ['s_2', 700]]); // prettier-ignore
    const marked = only([a, line('imprint', 'i', { of: 'a', offset: '2 mm' })]);
    expect(marked.volume / cubic).toBeCloseTo(1000, 2);
    expect(marked.faces.map((f) => f.name).sort()).toEqual(['xmax_above', 'xmax_below', 'xmin_above', 'xmin_below', 'ymax_above', 'ymax_below', 'ymin_above', 'ymin_below', 'zmax_above', 'zmin_below']); // prettier-ignore
    const sheet = line('rectangle', 'r', { size: ['4 mm', '6 mm'], plane: 'yz', at: ['1 mm', '0 mm', '0 mm'] });
    const thick = only([sheet, line('thicken', 't', { of: 'r', up: '0.5 mm', down: '1 mm' })]);
    expect([thick.min[0], thick.max[0], thick.volume / cubic].map((v) => Number(v.toPrecision(9)))).toEqual([0, 0.0015, 36]);
    expect(only([sheet, line('offset', 'o', { of: 'r', by: '1 mm' })]).area * 1e6).toBeCloseTo(48, 4);
    const air = model([a, line('container', 'c', { parts: ['a'], gaps: 'around' })]).bodies[1];
    expect(air.volume / cubic).toBeCloseTo(1728 - 1000, 3);
  });
});

describe('placing', () => {
  const a = box('a', ['2 mm', '4 mm', '6 mm'], ['10 mm', '0 mm', '0 mm']);
  test('moves, turns, scales and mirrors exactly', () => {
    const at = (kind: string, change: Loose): number[] =>
      only([a, line(kind, 'm', { of: 'a', ...change })]).min.map((v) => Number((v * 1e3).toPrecision(9)));
    expect(at('move', { by: ['1 mm', '2 mm', '3 mm'] })).toEqual([10, 0, 0]);
    expect(at('turn', { angle: '90 deg' })).toEqual([-2, 9, -3]);
    expect(at('scale', { by: ['2', '2', '2'] })).toEqual([18, -4, -6]);
    expect(at('mirror', { plane: 'yz' })).toEqual([-11, -2, -3]);
  });

  test('a half model is completed by mirror', () => {
    const half = line('prism', 'h', { points: [['0 mm', '0 mm'], ['5 mm', '0 mm'], ['0 mm', '5 mm']], height: '1 mm' }); // prettier-ignore
    const whole = only([half, line('mirror', 'm', { of: 'h', plane: 'yz', original: 'joined' })]);
    expect(whole.volume / cubic).toBeCloseTo(25, 3);
    expect([whole.min[0], whole.max[0]]).toEqual([-5e-3, 5e-3]);
  });

  test('patterns make one body or many', () => {
    const row = model([a, line('pattern-line', 'p', { of: 'a', count: '3', step: ['0 mm', '10 mm', '0 mm'], as: 'many' })]);
    expect(row.bodies.map((b) => b.name)).toEqual(['p_1', 'p_2', 'p_3']);
    expect(row.bodies[2].min[1]).toBeCloseTo(0.018, 12);
    expect(only([a, line('pattern-grid', 'g', { of: 'a', columns: '3', rows: '2' })]).volume / cubic).toBeCloseTo(6 * 48, 3);
    const ring = model([a, line('pattern-polar', 'r', { of: 'a', count: '4', angle: '90 deg', as: 'many' })]).bodies;
    expect(ring[1].min.map((v) => Number((v * 1e3).toFixed(6)))).toEqual([-2, 9, -3]);
    const along = model([
      line('line', 'l', { from: zero, to: ['30 mm', '0 mm', '0 mm'] }),
      a,
      line('pattern-curve', 'c', { of: 'a', path: 'l', count: '4', as: 'many' }),
    ]).bodies;
    expect(along.map((b) => Number((b.min[0] * 1e3).toFixed(6)))).toEqual([9, 19, 29, 39]);
    const table = [['0 mm', '0 mm', '0 mm', '0 deg'], ['0 mm', '0 mm', '9 mm', '90 deg']]; // prettier-ignore
    expect(model([a, line('pattern-table', 't', { of: 'a', points: table, as: 'many' })]).bodies[1].min[2]).toBeCloseTo(0.006, 12);
  });

  test('what rounds alone leans runs along its axis: sheets turned by right angles, points that expressions give', () => {
    const frame = line('frame', 'f', { at: ['10.1 mm', '0.3 mm', '0.7 mm'], turn: ['90 deg', '90 deg', '0 deg'] });
    const plate = line('rectangle', 'r', { size: ['3.1 mm', '0.7 mm'], at: ['0.1 mm', '0.2 mm', '0.3 mm'], frame: 'f' });
    const poly = line('polygon', 'p', { points: [['0.1 mm', '0.3 mm'], ['0.7 mm', '0.1 mm + 0.2 mm'], ['0.7 mm', '2 mm'], ['0.1 mm', '2 mm']] }); // prettier-ignore
    for (const b of model([frame, plate, poly]).bodies) {
      if (b.shape.form !== 'sheet') throw new Error(b.shape.form);
      const [loop] = b.shape.loops;
      // Each corner shares one coordinate with the next, to the last digit.
      for (const [i, p] of loop.entries()) expect(p.filter((v, a) => v === loop[(i + 1) % 4][a])).toHaveLength(1);
    }
  });

  test('frames carry lines: by angles, by three points, on a face', () => {
    const turned = line('frame', 'f', { at: ['10 mm', '0 mm', '0 mm'], turn: ['0 deg', '0 deg', '90 deg'] });
    const b = only([turned, { ...box('b', ['2 mm', '4 mm', '6 mm']), in: 'f' } as Line]);
    expect(b.min.map((v) => Number((v * 1e3).toFixed(9)))).toEqual([8, -1, -3]);
    const on = model([
      a,
      line('frame-face', 'f', { face: 'a.xmax' }),
      { ...line('cylinder', 'c', { radius: '0.5 mm', height: '3 mm' }), in: 'f' } as Line,
    ]).bodies[1];
    expect([on.min[0], on.max[0]].map((v) => Number((v * 1e3).toFixed(6)))).toEqual([11, 14]);
    const three = line('frame-points', 'f', { origin: zero, along: ['0 mm', '0 mm', '1 mm'], plane: ['1 mm', '0 mm', '0 mm'] });
    expect(model([three]).frames[0].matrix.map((v) => v + 0)).toEqual([0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 0]);
  });
});

describe('references to geometry', () => {
  const lines = [box('plate', ['20 mm', '10 mm', '2 mm']), line('cylinder', 'pin', { radius: '2 mm', height: '4 mm', at: ['3 mm', '0 mm', '-2 mm'] }), line('cut', 'part', { from: 'plate', tools: ['pin'] }), line('polyline', 'way')]; // prettier-ignore
  const value = (text: string, quantity: 'length' | 'number' = 'length'): number | string => {
    const r = evaluateExpression(text, quantity, model(lines).scope, { part: 'lines' });
    return 'si' in r ? Number((r.si * 1e3).toPrecision(6)) : r.problem.code;
  };
  test.each<[string, number | string]>([
    ['plate.max.x', 10],
    ['plate.size.y / 2', 5],
    ['part.centre.z', 0],
    ['way.length', 20],
    ['way.end.y', 10],
    ['way.p2.x', 10],
    ['plate.xmax.centre.x', 10],
    ['part.plate.zmax.centre.z', 1],
    ['sqrt(plate.zmax.area)', Math.sqrt(200)],
    ['edge(plate.xmax, plate.zmax).length', 10],
    ['edge(part.plate.zmax, part.pin.side).length', 128 * 2 * Math.sin(Math.PI / 64)],
    ['corner(plate.xmin, plate.ymax, plate.zmin).x', -10],
    ['corner(plate.xmin, plate.ymax, plate.zmin).y', 5],
    ['(plate.volume)^(1/3)', 400 ** (1 / 3)],
    ['plate.max', 'reference.unknown'],
    ['plate.nowhere.x', 'reference.unknown'],
    ['platte.max.x', 'reference.no-line'],
    ['edge(plate.xmin, plate.xmax).length', 'reference.unknown'],
    ['corner(plate.xmin, plate.zmax).x', 'reference.faces'],
    ['plate.constructor.x', 'reference.unknown'],
    ['part.volume', 'expression.wrong-unit'],
  ])('%s is %s', (text, expected) => {
    const got = value(text);
    if (typeof expected === 'string') expect(got).toBe(expected);
    else expect(got).toBeCloseTo(expected, 3);
  });

  test('lines follow what they point at; parameters may point too; circles and later lines are told', () => {
    const follow = (w: string): number =>
      model([box('a', ['w', '1 mm', '1 mm'], zero, 'corner'), box('b', ['1 mm', '1 mm', '1 mm'], ['a.max.x + gap', '0 mm', '0 mm'], 'corner')], {
        w,
        gap: 'a.size.x / 2',
      }).bodies[1].min[0];
    expect(follow('4 mm')).toBeCloseTo(0.006, 12);
    expect(follow('8 mm')).toBeCloseTo(0.012, 12);
    const codes = (lines: Line[], parameters: Record<string, string> = {}): string[] => model(lines, parameters).problems.map((p) => p.code);
    expect(codes([box('b', ['a.size.x', '1 mm', '1 mm']), box('a', ['1 mm', '1 mm', '1 mm'])])).toEqual(['reference.later']);
    expect(codes([box('a', ['w', '1 mm', '1 mm'])], { w: 'a.size.y' })).toContain('expression.cycle');
    expect(codes([{ ...box('a', ['1 mm', '1 mm', '1 mm']), muted: true } as Line, box('b', ['a.size.x', '1 mm', '1 mm'])])).toEqual([
      'reference.failed',
    ]);
  });
});

describe('what fails says why, and the rest goes on', () => {
  test.each<[string, Line[], string]>([
    ['no overlap', [box('a', ['1 mm', '1 mm', '1 mm']), box('b', ['1 mm', '1 mm', '1 mm'], ['9 mm', '0 mm', '0 mm']), line('common', 'c', { parts: ['a', 'b'] })], 'shape.impossible'], // prettier-ignore
    ['nothing chosen', [line('thicken', 't')], 'reference.empty'],
    ['wrong kind', [box('a', ['1 mm', '1 mm', '1 mm']), line('thicken', 't', { of: 'a' })], 'reference.kind'],
    ['not there', [line('cut', 'c', { from: 'ghost', tools: ['ghost'] })], 'reference.no-line'],
    ['itself', [line('move', 'm', { of: 'm' })], 'reference.later'],
    ['zero thickness', [line('rectangle', 'r'), line('thicken', 't', { of: 'r', up: '0 mm' })], 'shape.impossible'],
    ['no whole number', [box('a', ['1 mm', '1 mm', '1 mm']), line('pattern-line', 'p', { of: 'a', count: '2.5' })], 'value.not-whole'],
    ['a bore too wide', [line('tube', 't', { bore: '9 mm' })], 'shape.impossible'],
    ['a crossing outline', [line('prism', 'p', { points: [['0 mm', '0 mm'], ['2 mm', '2 mm'], ['2 mm', '0 mm'], ['0 mm', '2 mm']] })], 'shape.impossible'], // prettier-ignore
    ['sheets of two planes', [line('rectangle', 'a'), line('rectangle', 'b', { plane: 'yz' }), line('join', 'j', { parts: ['a', 'b'] })], 'shape.impossible'], // prettier-ignore
    ['points on a line', [line('frame-points', 'f', { plane: ['2 mm', '0 mm', '0 mm'] })], 'shape.impossible'],
    ['a curved face', [line('cylinder', 'c'), line('copy-face', 's', { face: 'c.side' })], 'shape.impossible'],
    ['a part that is not there', [line('import', 'i', { part: 'hull' })], 'shape.impossible'],
  ])('%s', (_, lines, code) => {
    const good = box('good', ['1 mm', '1 mm', '1 mm'], ['50 mm', '0 mm', '0 mm']);
    const m = model([...lines, good]);
    const found = m.problems.filter((p) => p.severity === 'error');
    expect(found.map((p) => p.code)).toContain(code);
    for (const p of found) expect([p.message, p.fix].every((t) => /^[A-Z‘].*[.?]$/.test(t) || /^[a-z]\w* .*[.?]$/.test(t))).toBe(true);
    expect(m.bodies.map((b) => b.name)).toContain('good');
  });
});

test('traces: mitred, round and swept corners have the areas that geometry gives', () => {
  const path = line('polyline', 'p', { points: [['0 mm', '0 mm', '0 mm'], ['20 mm', '0 mm', '0 mm'], ['20 mm', '20 mm', '0 mm']] }); // prettier-ignore
  const area = (change: Loose): number => model([path, line('trace', 't', { path: 'p', width: '2 mm', ...change })]).bodies[0].area * 1e6;
  expect(area({ corners: 'sharp' })).toBeCloseTo(80, 4);
  // The mitre cuts a triangle of legs 2 m w off the corner of legs w, w; at half the diagonal it takes w^2/2.
  expect(area({ corners: 'mitred', mitre: '0.5' })).toBeCloseTo(80 - 2, 4);
  expect(area({ corners: 'round' })).toBeCloseTo(80 - 1 + Math.PI / 4, 2);
  expect(area({ corners: 'swept', radius: '5 mm' })).toBeCloseTo(60 + (Math.PI / 2) * 5 * 2, 1);
  expect(model([path, line('trace', 't', { path: 'p', width: '2 mm', corners: 'sharp', thickness: '0.5 mm' })]).bodies[0].volume / cubic).toBeCloseTo(
    40,
    5,
  );
});

test('every kind of line is offered with values that are valid and readable', () => {
  for (const s of shapes) {
    const fresh = s.fresh('fresh');
    expect(projectSchema.safeParse(project([fresh])).error?.issues ?? []).toEqual([]);
    expect(s.sentence(fresh).length).toBeGreaterThan(0);
    const m = model([fresh]);
    // Alone it makes a body, or says which other line it lacks.
    const wrong = m.problems.filter(
      (p) =>
        p.severity === 'error' && !p.code.startsWith('reference.') && p.place.chip !== 'parts' && p.place.chip !== 'tools' && p.place.chip !== 'part',
    );
    expect(wrong).toEqual([]);
  }
});

test('only what depends on a change is built again', () => {
  const own = new ModelCache();
  const p = (w: string): Project =>
    project([box('a', ['w', '1 mm', '1 mm']), box('b', ['1 mm', '1 mm', '1 mm']), line('move', 'c', { of: 'a' })], { w });
  const first = evaluateModel(p('2 mm'), kernel, own).bodies;
  const second = evaluateModel(p('3 mm'), kernel, own).bodies;
  expect(second.map((b, i) => b.id === first[i].id)).toEqual([true, false]);
  expect(evaluateModel(p('2 mm'), kernel, own).bodies.map((b) => b.id)).toEqual(first.map((b) => b.id));
  // Turning a dial for long does not gather what nobody will ask for again.
  for (let i = 0; i < 400; i++) evaluateModel(p(`${3 + i / 100} mm`), kernel, own);
  expect(own.size).toBeLessThan(260);
  expect(own.origins.size).toBeLessThan(260);
  own.dispose();
});

test('fuzz: whatever is typed as a reference has a finite value or a sentence that says why not', () => {
  const { scope } = model([box('plate', ['20 mm', '10 mm', '2 mm']), line('polyline', 'way')]);
  const word = fc.constantFrom(
    'plate',
    'way',
    'ghost',
    'xmin',
    'zmax',
    'max',
    'x',
    'p1',
    'start',
    'length',
    'area',
    '__proto__',
    'constructor',
    'toString',
    'edge',
    'corner',
    '1',
    '(',
    ')',
    ',',
    '.',
    ' ',
    '+',
    '2 mm',
    '[0]',
    '"a"',
    '=',
  );
  fc.assert(
    fc.property(fc.array(word, { maxLength: 12 }), fc.boolean(), (words, dotted) => {
      const result = evaluateExpression(words.join(dotted ? '.' : ''), 'length', scope, { part: 'lines' });
      return 'si' in result ? Number.isFinite(result.si) : /[.?]$/.test(result.problem.fix) && result.problem.message.length > 5;
    }),
    { numRuns: 4000 },
  );
});

test('fuzz: any numbers in any line make a body or a sentence, and never stop the others', () => {
  const number = fc.oneof(fc.constantFrom('0', '0 mm', '-1 mm', '1e-9 mm', '1e6 mm', '1', '3', '1e9', '90 deg', 'nan', ''), fc.integer({ min: -9, max: 9 }).map((n) => `${n} mm`)); // prettier-ignore
  const good = box('good', ['1 mm', '1 mm', '1 mm'], ['50 mm', '0 mm', '0 mm']);
  fc.assert(
    fc.property(
      fc.constantFrom(...shapes.filter((s) => s.group !== 'Patterns')),
      fc.array(number, { minLength: 24, maxLength: 24 }),
      (shape, values) => {
        let n = 0;
        const fill = (v: unknown): unknown => (typeof v === 'string' && /\d/.test(v) ? values[n++ % 24] : Array.isArray(v) ? v.map(fill) : v);
        const fresh = Object.fromEntries(Object.entries(shape.fresh('odd')).map(([k, v]) => [k, ['kind', 'name', 'material', 'text'].includes(k) ? v : fill(v)])); // prettier-ignore
        const m = model([fresh as unknown as Line, good]);
        return m.bodies.some((b) => b.name === 'good') && m.problems.every((p) => p.message.length > 5 && p.fix.length > 5);
      },
    ),
    { numRuns: 250 },
  );
}, 60_000);
