import { describe, expect, test } from '@jest/globals';
import { type CurveMeasure, emptyProject, type FormulaMeasure, measureSchema, type Project, renameMeasure } from '../document/index.ts';
import { evaluateParameters } from '../expressions/index.ts';
import type { ResultMeta, ResultSet } from '../results/index.ts';
import { formulaFault, readMeasures, unitOfMeasure } from './formulas.ts';
import { readingOf, readTaken } from './measures.ts';

const count = 501;
const frequency = Float64Array.from({ length: count }, (_, n) => 1e9 + 2e6 * n);
/** A resonance of quality 20 at 1.5 GHz, matched to 50 ohm: S11 = j x / (2 + j x), x its detuning. */
const reflectionAt = (at: Float64Array): Float64Array =>
  Float64Array.from(
    Array.from(at).flatMap((f) => {
      const x = 20 * (f / 1.5e9 - 1.5e9 / f);
      return [(x * x) / (4 + x * x), (2 * x) / (4 + x * x)];
    }),
  );
const s = reflectionAt(frequency);
const meta = {
  ports: [{ name: 'feed', resistance: 50 }],
  excitations: [0],
  recordAt: [],
} as unknown as ResultMeta;
const result: ResultSet = { meta, arrays: { frequency: { shape: [count], data: frequency }, s: { shape: [count, 1, 1, 2], data: s } } }; // prettier-ignore
const scope = evaluateParameters({ parameters: [{ name: 'f0', expression: '1.5 GHz' }] });
const read = (m: Record<string, unknown>) =>
  readTaken(measureSchema.parse({ name: 'm', quantity: 's', ...m }) as CurveMeasure, readingOf(result), scope);

test('figures of a resonance: value at a frequency, extremes and where they are, mean, width at a level', () => {
  expect(read({ take: 'at', at: 'f0', form: 'magnitude' })).toEqual({ name: 'm', value: 0, unit: '' });
  // Between samples by a straight line.
  const [a, b] = [read({ take: 'at', at: '1.212 GHz', form: 'real' }), read({ take: 'at', at: '1.214 GHz', form: 'real' })].map((r) => r.value!);
  expect(read({ take: 'at', at: '1.2125 GHz', form: 'real' }).value).toBeCloseTo(0.75 * a + 0.25 * b, 12);
  expect(Math.abs(read({ take: 'where-least' }).value! - 1.5e9)).toBeLessThan(2e3);
  expect(read({ take: 'least', from: '1.6 GHz' })).toMatchObject({
    value: expect.closeTo(20 * Math.log10(Math.hypot(s[600], s[601])), 9),
    unit: 'dB',
  });
  expect(read({ take: 'where-most', from: 'f0', to: '1.9 GHz' }).value).toBe(1.9e9);
  const levels = Array.from(frequency, (_, n) => Math.hypot(s[2 * n], s[2 * n + 1]));
  const mean = levels.reduce((sum, v, n) => sum + (n === 0 || n === count - 1 ? v / 2 : v), 0) / (count - 1);
  expect(read({ take: 'mean', form: 'magnitude' }).value).toBeCloseTo(mean, 12);
  // |S11|^2 is below one half for |x| < 2: a band of f0 / 10.
  expect(Math.abs(read({ take: 'width', level: Math.SQRT1_2, side: 'below', form: 'magnitude' }).value! / 0.15e9 - 1)).toBeLessThan(0.002);
});

test('a dip between samples is found by their powers, however deep', () => {
  // The resonance of the curve above on samples 2 MHz apart that miss it by up to 1 MHz.
  for (const off of [0.1e6, 0.5e6, 0.9e6]) {
    const shifted = frequency.map((f) => f + off);
    const found = readTaken(measureSchema.parse({ name: 'm', quantity: 's', take: 'where-least' }) as CurveMeasure, readingOf({ meta, arrays: { frequency: { shape: [count], data: shifted }, s: { shape: [count, 1, 1, 2], data: reflectionAt(shifted) } } }), scope); // prettier-ignore
    expect(Math.abs(found.value! - 1.5e9)).toBeLessThan(2e3);
  }
});

test('a width that the band cuts off is told as at least so much, one that is nowhere is zero', () => {
  expect(read({ take: 'width', level: 2, side: 'below', form: 'magnitude' })).toMatchObject({ value: 1e9, open: true });
  expect(read({ take: 'width', level: -300, side: 'below' })).toEqual({ name: 'm', value: 0, unit: 'Hz' });
});

test.each([
  [{ take: 'at', at: '3 GHz' }, 'The curve has no value there.'],
  [{ take: 'at', at: '3 mm' }, /frequency/],
  [{ take: 'least', of: '2,1' }, 'The result has no s-parameter of 2,1.'],
  [{ take: 'least', quantity: 'gain' }, 'The result has no gain.'],
  [{ take: 'least', quantity: 'charm' }, 'There is no quantity named charm.'],
  [{ take: 'least', from: 'nowhere' }, /no parameter named nowhere/],
])('what a result has not is told: %j', (m, why) => {
  const { value, why: told } = read(m);
  expect(value).toBeNull();
  expect(told).toMatch(why);
});

describe('formulas', () => {
  const project = (...formulas: [name: string, formula: string][]): Project => ({
    ...emptyProject('Formulas'),
    parameters: [{ name: 'f0', expression: '1.5 GHz' }],
    measures: [
      measureSchema.parse({ name: 'tuned', quantity: 's', take: 'where-least' }),
      measureSchema.parse({ name: 'wide', quantity: 's', take: 'width', level: -3, side: 'below' }),
      measureSchema.parse({ name: 'none', quantity: 'gain', take: 'most' }),
      ...formulas.map(([name, formula]) => measureSchema.parse({ name, take: 'formula', formula })),
    ],
  });
  const reads = (...formulas: [string, string][]) => readMeasures(project(...formulas), readingOf(result)).slice(3);

  test('are made of measures, of each other in any order, and of parameters, in the units that come of it', () => {
    const [share, off, twice] = reads(['share', 'twice / (2 * tuned)'], ['off', 'tuned - f0'], ['twice', '2 * wide']);
    const width = readMeasures(project(), readingOf(result))[1].value!;
    expect(share).toEqual({ name: 'share', value: expect.closeTo(width / 1.5e9, 5), unit: '' });
    expect(off.unit).toBe('Hz');
    expect(Math.abs(off.value!)).toBeLessThan(2e3);
    expect(twice.value).toBeCloseTo(2 * width, 3);
    const own = project(['share', 'wide / tuned']);
    expect([unitOfMeasure(own.measures![3], own), unitOfMeasure(own.measures![0], own)]).toEqual(['', 'Hz']);
  });

  test('what has no value says why: a measure without one, a circle, a name that is none, units that do not agree', () => {
    const [lacks, a, b, unknown, mixed] = reads(['lacks', '2 * none'], ['a', 'b + 1'], ['b', 'a'], ['unknown', 'charm'], ['mixed', 'tuned + 1']);
    expect(lacks.why).toBe('none has no value: The result has no gain.');
    expect([a.value, b.value]).toEqual([null, null]);
    expect(a.why).toMatch(/is made of itself/);
    expect(unknown.why).toMatch(/There is no parameter named charm/);
    expect(mixed.why).toBeTruthy();
    const own = project(['share', 'wide / tuned']);
    expect(formulaFault({ ...(own.measures![3] as FormulaMeasure), formula: 'share' }, own)).toMatch(/made of itself/);
    expect(formulaFault({ ...(own.measures![3] as FormulaMeasure), formula: 'tuned / 1 mm' }, own)).toBeNull();
  });

  test('follow a measure to its new name', () => {
    const renamed = renameMeasure(project(['share', 'wide / tuned + tuned_not.x * 0']), 'tuned', 'resonance');
    expect((renamed.measures![3] as FormulaMeasure).formula).toBe('wide / resonance + tuned_not.x * 0');
  });
});
