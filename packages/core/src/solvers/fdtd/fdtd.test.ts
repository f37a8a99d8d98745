import { describe, expect, test } from '@jest/globals';
import type { Point2 } from '../../document/index.ts';
import { filament, plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { discretise, timeStep } from './discretise.ts';
import { collectMedia } from '../../discretisation/media.ts';
import { cutPieces } from '../../discretisation/pieces.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { pulseAt, pulseFor, pulseLevel } from '../../numerics/pulse.ts';
import { EdgeRows } from '../../discretisation/rows.ts';
import { isMetal, permittivityOf } from './discrete.ts';
import type { Axis } from '../../numerics/axis.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const glass = (er: number, tan = 0) => ({ name: 'glass', kind: 'dielectric', permittivity: er, lossTangent: tan }) as const;
const band = { from: 1e9, to: 3e9, points: 3 };
const cube = { min: [0, 0, 0] as [number, number, number], max: [10, 10, 10] as [number, number, number] };

describe('media on edges', () => {
  const scene = (er: number, from: number, to: number, axis: Axis, tan = 0) => {
    const min: [number, number, number] = [0, 0, 0];
    const max: [number, number, number] = [10, 10, 10];
    min[axis] = from;
    max[axis] = to;
    return plainScene({ ...cube, bodies: [plainBody('slab', 0, glass(er, tan), { form: 'box', min, max })], ports: [], band });
  };

  test.each([0, 1, 2] as const)('a slab across axis %d: arithmetic along its face, harmonic across it, wherever the face lies', (axis) => {
    const s = scene(5, 4, 6.3, axis);
    const grid = uniformGrid(s.min, s.max, [10, 10, 10], 0);
    grid.unsnapped[axis] = [6.3];
    const rows = new EdgeRows(s, grid, [collectMedia(s)]);
    const value = (c: Axis, index: number): number => {
      const at = [5, 5, 5];
      at[axis] = index;
      return rows.at(c, at[1], at[2]).re[at[0]];
    };
    for (const c of [0, 1, 2] as const)
      if (c === axis) {
        // Edges in cells 5 (full), 6 (0.3 filled), 7 (empty).
        expect(value(c, 5)).toBeCloseTo(5, 9);
        expect(value(c, 6)).toBeCloseTo(1 / (0.3 / 5 + 0.7), 9);
        expect(value(c, 7)).toBeCloseTo(1, 9);
      } else {
        // Dual cells around nodes 4 (half), 5 (full), 6 (0.8 filled), 7 (empty).
        expect(value(c, 4)).toBeCloseTo(3, 6);
        expect(value(c, 5)).toBeCloseTo(5, 9);
        expect(value(c, 6)).toBeCloseTo(0.8 * 5 + 0.2, 9);
        expect(value(c, 7)).toBeCloseTo(1, 9);
      }
  });

  test('loss goes along with the permittivity', () => {
    const s = scene(5, 4, 8, 2, 0.02);
    const rows = new EdgeRows(s, uniformGrid(s.min, s.max, [10, 10, 10], 0), [collectMedia(s)]);
    // The causal model is level to 1 %.
    expect(rows.at(0, 5, 6).loss[5] / 0.1).toBeCloseTo(1, 2);
    expect(rows.at(0, 5, 4).loss[5] / rows.at(0, 5, 6).loss[5]).toBeCloseTo(0.5, 6);
    expect(rows.at(2, 5, 6).loss[5] / 0.1).toBeCloseTo(1, 2);
  });

  test('the later body wins, metal is cut by what comes after it, and bodies go on into the layers', () => {
    const s = plainScene({
      ...cube,
      bodies: [
        plainBody('block', 0, metal, { form: 'box', min: [0, 0, 0], max: [10, 10, 5] }),
        plainBody('hole', 1, glass(2), { form: 'box', min: [3, 3, 0], max: [7, 7, 5] }),
      ],
      ports: [],
      band,
    });
    const rows = new EdgeRows(s, uniformGrid(s.min, s.max, [10, 10, 10], 4), [collectMedia(s)]);
    const inHole = rows.at(0, 9, 6);
    expect([inHole.metal[8], inHole.re[8]]).toEqual([0, expect.closeTo(2, 6)]);
    expect(inHole.metal[5]).toBe(1);
    // The wall of the hole, the top face, and the layers beyond x = 0.
    expect(rows.at(1, 9, 6).metal[7]).toBe(1);
    expect(rows.at(0, 9, 9).metal[5]).toBe(1);
    expect(rows.at(0, 9, 9).metal[8]).toBe(0);
    expect(inHole.metal[1]).toBe(1);
  });

  test('a sheet marks its edges and no others', () => {
    const outline: Point2[] = [[2, 3], [6, 3], [6, 5], [2, 5]]; // prettier-ignore
    const s = plainScene({
      ...cube,
      bodies: [plainBody('sheet', 0, metal, { form: 'sheet', normal: 2, offset: 4, loops: [outline] })],
      ports: [],
      band,
    });
    const rows = new EdgeRows(s, uniformGrid(s.min, s.max, [10, 10, 10], 0), [collectMedia(s)]);
    const marked = (c: Axis, j: number, k: number): string => {
      const row = rows.at(c, j, k);
      return row.mixed ? [...row.metal].join('') : '';
    };
    expect(marked(0, 3, 4)).toBe('00111100000');
    expect(marked(0, 5, 4)).toBe('00111100000');
    expect(marked(0, 6, 4)).toBe('');
    expect(marked(1, 4, 4)).toBe('00111110000');
    expect(marked(1, 5, 4)).toBe('');
    expect(marked(2, 4, 4)).toBe('');
    expect(marked(0, 4, 5)).toBe('');
  });
});

describe('discrete model', () => {
  test('finds ports that are shorted or loose', () => {
    const port = filament('p', [4, 5, 5], 0, 2, 50);
    const ends = [
      plainBody('a', 0, metal, { form: 'box', min: [1, 4, 4], max: [4, 6, 6] }),
      plainBody('b', 1, metal, { form: 'box', min: [6, 4, 4], max: [9, 6, 6] }),
    ];
    const grid = uniformGrid(cube.min, cube.max, [10, 10, 10], 0);
    const codes = (bodies: typeof ends): string[] =>
      discretise(plainScene({ ...cube, bodies, ports: [port], band }), grid).problems.map((p) => p.code);
    expect(codes(ends)).toEqual([]);
    expect(codes(ends.slice(0, 1))).toEqual(['port.touches-nothing']);
    expect(codes([...ends, plainBody('c', 2, metal, { form: 'box', min: [4, 4, 4], max: [6, 6, 6] })])).toEqual(['port.shorted']);
    const d = discretise(plainScene({ ...cube, bodies: ends, ports: [port], band }), grid);
    expect(isMetal(d, 0, [3, 5, 5])).toBe(true);
    expect(isMetal(d, 0, [4, 5, 5])).toBe(false);
    expect(isMetal(d, 1, [0, 3, 3])).toBe(true);
  });

  test('knows what an edge lies in: a mean of media, metal, or a port that holds it', () => {
    const port = filament('p', [4, 5, 5], 0, 2, 50);
    const bodies = [
      plainBody('a', 0, metal, { form: 'box', min: [1, 4, 4], max: [4, 6, 6] }),
      plainBody('b', 1, metal, { form: 'box', min: [6, 4, 4], max: [9, 6, 6] }),
      plainBody('low', 2, glass(3), { form: 'box', min: [0, 0, 0], max: [10, 10, 3] }),
      plainBody('tin', 3, metal, { form: 'sheet', normal: 2, offset: 8, loops: [[[2, 2], [8, 2], [8, 8], [2, 8]]] }),
    ]; // prettier-ignore
    const d = discretise(plainScene({ ...cube, bodies, ports: [port], band }), uniformGrid(cube.min, cube.max, [10, 10, 10], 0));
    const at = (c: Axis, ...index: number[]): number => permittivityOf(d, c, index);
    // Within, on the face (half of either, along it), across it, and above.
    expect([at(0, 5, 5, 2), at(0, 5, 5, 3), at(2, 5, 5, 2), at(2, 5, 2, 3)]).toEqual([3, 2, 3, 1]);
    expect([at(0, 3, 5, 5), at(0, 5, 5, 8), at(1, 5, 0, 0)]).toEqual([0, 0, 0]);
    expect(at(0, 4, 5, 5)).toBe(Infinity);
  });

  test('rows that are alike are kept once', () => {
    const body = plainBody('block', 0, glass(3), { form: 'box', min: [2, 2, 2], max: [8, 8, 8] });
    const d = discretise(plainScene({ ...cube, bodies: [body], ports: [], band }), uniformGrid(cube.min, cube.max, [20, 20, 20], 0));
    expect(d.dictionary.length / (2 * d.sx)).toBeLessThan(30);
  });

  test('the time step is 0.99 of the stable one', () => {
    const step = timeStep(uniformGrid(cube.min, cube.max, [10, 10, 10], 0), { bodies: [], min: cube.min, max: cube.max });
    expect(step * 299792458 * Math.sqrt(3)).toBeCloseTo(0.99, 9);
  });

  test('half cells are cut where thin layers end', () => {
    const p = cutPieces(Float64Array.from([0, 1, 2]), [0.3, 1.5], []);
    expect([...p.width].map((w) => Number(w.toFixed(9)))).toEqual([0.3, 0.2, 0.5, 0.5, 0.5]);
    expect([...p.start]).toEqual([0, 2, 3, 4, 5]);
  });
});

describe('pulse and spectra', () => {
  test('the running sums agree with the pulse’s closed form', () => {
    const pulse = pulseFor(0.8e9, 1.2e9);
    const dt = pulse.tau / 40;
    const signal = Float64Array.from({ length: Math.ceil(pulse.length / dt) }, (_, n) => pulseAt(pulse, (n + 0.5) * dt));
    const frequencies = [0.6e9, 0.8e9, 1e9, 1.2e9, 1.5e9];
    const s = new PortSpectrum(frequencies, dt, 0.5);
    s.update(signal.subarray(0, 100));
    s.update(signal);
    const level = (i: number): number => 20 * Math.log10(Math.hypot(s.re[i], s.im[i]) / Math.hypot(s.re[2], s.im[2]));
    frequencies.forEach((f, i) => expect(level(i)).toBeCloseTo(pulseLevel(pulse, f) - pulseLevel(pulse, 1e9), 3));
  });

  test('nothing of the pulse lies above its highest frequency', () => {
    const pulse = pulseFor(0.8e9, 1.2e9);
    expect(pulseLevel(pulse, pulse.highest)).toBeLessThan(-99);
  });
});
