import type { Complex } from '../numerics/complex.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unpackNumbers } from '../document/index.ts';
import { dataCurve } from '../reading/index.ts';
import type { ResultSet } from '../results/index.ts';
import { readData, readFarField, readTouchstone, readVtk, writeFarField, writeTouchstone2, writeVti, writeVtr } from './index.ts';

describe('Touchstone 2.0', () => {
  test.each([1, 2, 3, 6])('%d ports come back with a reference of their own each', (n) => {
    const s = Array.from({ length: n }, (_, to) => Array.from({ length: n }, (__, from) => [0, 1, 2].map((f): Complex => [to - from / 8, f + 0.25])));
    const references = Array.from({ length: n }, (_, i): Complex => [50 + 5 * i, 0]);
    const text = writeTouchstone2([1e9, 1.5e9, 2e9], s, references, ['two\nlines']);
    expect(readTouchstone(text, null)).toEqual({ frequency: [1e9, 1.5e9, 2e9], s, references });
    expect(text).toContain('[Reference] 50');
    const complex = references.map(([re], i): Complex => [re, i % 2 ? -12.5 : 3]);
    expect(readTouchstone(writeTouchstone2([1e9, 1.5e9, 2e9], s, complex), null).references).toEqual(complex);
  });
  test('what others write: references over lines, order of two ports, noise after it', () => {
    const two =
      '[Version] 2.0\n# MHz S DB R 50\n[Number of Ports] 2\n[Two-Port Data Order] 21_12\n[Reference]\n75 60\n[Network Data]\n10 -20 0 -1 0 -40 0 -30 0\n[End]\n';
    const read = readTouchstone(two, null);
    expect(read.references.map((z) => z[0])).toEqual([75, 60]);
    expect(read.s[1][0][0][0]).toBeCloseTo(10 ** (-1 / 20), 12);
    const noisy = '# GHz S RI R 50\n1 1 0 2 0 3 0 4 0\n2 1 0 2 0 3 0 4 0\n1 1.2 0.3 20 0.4\n';
    expect(readTouchstone(noisy, 2).frequency).toEqual([1e9, 2e9]);
  });
  test.each([
    ['# Hz Y RI R 50\n1 2 3\n', 'Y-parameters'],
    ['[Version] 2.0\n[Number of Ports] two\n', 'Line 2'],
    ['[Version] 2.0\n[Number of Ports] 2\n[Matrix Format] Lower\n', 'Lower'],
    ['1 2 3\n', 'number of ports'],
  ])('%j is refused in words', (text, words) => expect(() => readTouchstone(text, null)).toThrow(words));
  test('a record that is cut off is told', () => expect(() => readTouchstone('# Hz S RI R 50\n1 2 3 4 5\n', 2)).toThrow('not whole'));
});

describe('data to compare with', () => {
  test('a Touchstone file gives its terms', () => {
    const set = readData('# GHz S RI R 75\n1 0.5 0.1\n2 0.25 -0.1\n', 'bench line.s1p');
    expect(set).toMatchObject({ name: 'bench line', over: 'frequency', reference: 75, columns: [{ name: 'S11', complex: true }] });
    expect([...unpackNumbers(set.data)]).toEqual([1e9, 2e9, 0.5, 0.25, 0.1, -0.1]);
    expect(Array.from(dataCurve([set], 'bench line/S11')!.im!)).toEqual([0.1, -0.1]);
  });
  test('tables with and without heads, in any order of x, with units of frequency', () => {
    const set = readData('freq (GHz);S11 (dB);gain/dBi\n2;-3;5\n1;-2;\n', 'm.csv');
    expect(set).toMatchObject({ over: 'frequency', columns: [{ name: 'S11 (dB)' }, { name: 'gain per dBi' }] });
    expect([...unpackNumbers(set.data)]).toEqual([1e9, 2e9, -2, -3, NaN, 5]);
    expect(readData('0.1,2\n0.2,3\n', 'plain.csv')).toMatchObject({ over: 'number', columns: [{ name: 'column 2' }] });
  });
  test.each([
    ['', 'a row below its head'],
    ['a,b\nx,1\n', 'Row 2'],
    ['only\n1\n', 'at least one of values'],
  ])('%j is refused in words', (text, words) => expect(() => readData(text, 'm.csv')).toThrow(words));
  test('no text makes it fail but with a sentence', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom('a.s2p', 'a.csv', 'a.ts'), (text, name) => {
        try {
          readData(text, name);
        } catch (error) {
          expect((error as Error).message).toMatch(/[.’]$|:/);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('fields as VTK', () => {
  const values = Float32Array.from({ length: 3 * 2 * 3 * 2 }, (_, i) => i / 7);
  const axes = [[0, 1e-3], [0, 1e-3, 4e-3], [5e-3, 6e-3]] as const; // prettier-ignore
  test('a graded grid keeps its axes and vectors', () => {
    const text = writeVtr(axes, [{ name: 'E real (V/m)', components: 3, values }]);
    const back = readVtk(text);
    expect(back).toMatchObject({ kind: 'RectilinearGrid', extent: [0, 1, 0, 2, 0, 1] });
    expect(back.arrays.get('E real (V/m)')).toEqual(values);
    expect([...back.arrays.get('y')!]).toEqual([0, 1e-3, 4e-3]);
    // The form that readers check: sizes agree with the extent.
    expect(back.arrays.get('E real (V/m)')!.length).toBe(3 * 2 * 3 * 2);
  });
  test('an image has origin and spacing', () => {
    const back = readVtk(writeVti([2, 3, 2], [0, 0, 5e-3], [1e-3, 2e-3, 1e-3], [{ name: 'a<b', components: 1, values: Float64Array.of(1, 2) }]));
    expect(back).toMatchObject({ kind: 'ImageData', origin: [0, 0, 5e-3], spacing: [1e-3, 2e-3, 1e-3] });
    expect(back.arrays.get('a&lt;b')).toEqual(Float64Array.of(1, 2));
    expect(() => readVtk('<svg/>')).toThrow('no VTK');
  });
});

describe('the far field as text', () => {
  const meta = { coreVersion: '1', farField: { name: 'p', step: 1, figures: [{ frequency: 1e9, accepted: 0.9, radiated: 0.8 }, { frequency: 2e9, accepted: 0.7, radiated: 0.6 }] } }; // prettier-ignore
  const data = Float64Array.from({ length: 2 * 3 * 4 * 4 }, (_, i) => Math.sin(i) * 10 ** (i % 5));
  const text = writeFarField({ meta, arrays: { farField: { shape: [2, 3, 4, 4], data } } } as unknown as ResultSet, 'Tag\n868')!;
  test('comes back to eight digits', () => {
    const back = readFarField(text);
    expect(back).toMatchObject({ nTheta: 3, nPhi: 4 });
    expect(back.patterns.map((p) => [p.frequency, p.accepted, p.radiated])).toEqual([[1e9, 0.9, 0.8], [2e9, 0.7, 0.6]]); // prettier-ignore
    back.patterns.forEach((p, f) => p.values.forEach((v, i) => expect(Math.abs(v - data[48 * f + i])).toBeLessThan(1e-8 * Math.abs(v) + 1e-12)));
  });
  test.each([
    ['x', 'Line 1'],
    [text.replace('directions: 3 4', 'x: y'), 'directions'],
    [text.replace(/\n[^\n]*\n$/, '\n'), 'not whole'],
    [text.replace('\n0 90 ', '\nzero 90 '), 'six numbers'],
  ])('what is no far field is refused (%#)', (bad, words) => expect(() => readFarField(bad)).toThrow(words));
});
