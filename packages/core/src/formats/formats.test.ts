import type { Complex } from '../numerics/complex.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import { impedance, packResult, resonances, type ResultSet, unpackResult } from '../results/index.ts';
import { readTouchstone, writeCsv, writeTouchstone } from './index.ts';

describe('Touchstone', () => {
  test('what is written is read again', () => {
    const s: Complex[] = [[0.25, -0.5], [-1e-5, 0.999]]; // prettier-ignore
    const text = writeTouchstone([868e6, 869e6], [[s]], [50], ['Tag 868\nrun 1']);
    expect(text.split('\n').slice(0, 3)).toEqual(['! Tag 868', '! run 1', '# Hz S RI R 50']);
    const back = readTouchstone(text, 1);
    expect(back).toEqual({
      frequency: [868e6, 869e6],
      references: [[50, 0]],
      s: [[s.map((v) => v.map((x) => expect.closeTo(x, 9)))]],
    });
  });
  test.each([2, 3, 5])('%d ports come back in their places, as do reference resistances', (n) => {
    const s = Array.from({ length: n }, (_, to) => Array.from({ length: n }, (__, from) => [0, 1].map((f): Complex => [to + from / 10, f - to])));
    const text = writeTouchstone([1e9, 2e9], s, Array.from({ length: n }, (_, i) => 50 + i)); // prettier-ignore
    expect(text).toContain('! Reference resistances by port, ohm: 50 51');
    expect(readTouchstone(text, n)).toEqual({ frequency: [1e9, 2e9], s, references: s.map(() => [50, 0]) });
  });
  test('other number formats and units', () => {
    expect(readTouchstone('# GHz S MA R 75\n1 0.5 90\n', 1).s[0][0][0]).toEqual([expect.closeTo(0, 9), expect.closeTo(0.5, 9)]);
    expect(readTouchstone('# MHz S DB R 50\n1 -20 180 ! note\n', 1)).toMatchObject({
      frequency: [1e6],
      s: [[[[expect.closeTo(-0.1, 9), expect.closeTo(0, 9)]]]],
    });
    expect(() => readTouchstone('# Hz S RI R 50\n1 2\n', 1)).toThrow('Line 2');
    expect(() => readTouchstone('# Hz S RI R 50\n1 2 3 4 5\n', 1)).toThrow('more numbers');
  });
});

test('CSV quotes titles and keeps full precision', () => {
  expect(writeCsv([{ title: 'a, "b"', values: [1 / 3] }, { title: 'c', values: [2] }])).toBe('"a, ""b""",c\r\n0.3333333333333333,2\r\n'); // prettier-ignore
});

test('input impedance inverts the reflection for any passive load', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.1, max: 1e4, noNaN: true }), fc.double({ min: -1e4, max: 1e4, noNaN: true }), (r, x) => {
      const d = (r + 50) ** 2 + x ** 2;
      const z = impedance([(r * r - 2500 + x * x) / d, (100 * x) / d], [50, 0]);
      expect(z[0]).toBeCloseTo(r, 3);
      expect(z[1]).toBeCloseTo(x, 3);
    }),
  );
  expect(resonances([1, 2, 3], [[10, -4], [20, 4], [30, -2]])).toEqual([{ frequency: 1.5, resistance: 15 }]); // prettier-ignore
});

test('results are packed and unpacked unchanged', () => {
  const result = {
    meta: {
      format: 'jadebell-result',
      version: 3,
      solver: 'fdtd',
      ports: [],
      excitations: [],
      recordAt: [],
      farField: null,
      recorded: [],
      evidence: {},
    },
    arrays: { a: { shape: [2, 2], data: Float32Array.from([1, 2, 3, 4]) }, 'plane:x': { shape: [1], data: Float64Array.from([Math.PI]) } },
  } as unknown as ResultSet;
  expect(unpackResult(packResult(result))).toEqual(result);
  const hurt = { ...result, meta: { ...result.meta, recordAt: ['9 GHz'] } } as unknown as ResultSet;
  expect(() => unpackResult(packResult(hurt))).toThrow('The result’s facts are damaged at recordAt.0');
  expect(() => unpackResult(zipSync({ 'notes.txt': new Uint8Array(3) }))).toThrow('The file is no result');
});
