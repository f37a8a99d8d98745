import { createRequire } from 'node:module';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anySI, compile, type Value, valueOf } from './language.ts';

/** As one file: its thousand modules take long to load one by one. */
const mathjs = createRequire(import.meta.url)('mathjs/lib/browser/math.js') as typeof import('mathjs');

/** Texts of sums, products, powers and functions, with and without signs, brackets and units between. */
const texts: fc.Arbitrary<string> = fc.letrec<{ text: string }>((tie) => ({
  text: fc.oneof(
    { maxDepth: 5, withCrossShrink: true },
    fc.constantFrom('2', '3.5', '.25', '1e-3', 'mm', 'GHz', 'deg', 'c0', 'a', 'ohm', '7 mm', '1/2 mm', '1/4 a', '-3/2 (a)', '2 a'),
    fc.tuple(tie('text'), fc.constantFrom('+', '-', '*', '/', ' / ', ' * '), tie('text')).map((t) => t.join('')),
    fc.tuple(tie('text'), fc.constantFrom('^2', '^-1', '^0.5', '^3^2', ' mm', ' a', ' (2)')).map((t) => t.join('')),
    fc.tuple(fc.constantFrom('-', '+', 'sqrt', 'abs', ''), tie('text')).map(([head, of]) => `${head}(${of})`),
    tie('text').map((of) => `-${of}`),
  ),
})).text;

/** One of each unit: by itself it has no value there. */
const ones = Object.fromEntries(['mm', 'GHz', 'deg', 'ohm'].map((name) => [name, mathjs.unit(1, name)]));

test('expressions are read and computed as by a general library for arithmetic with units', () => {
  const a = valueOf(1.25e-3, 'length');
  let compared = 0;
  fc.assert(
    fc.property(texts, (text) => {
      let known: { si: number; unitless: boolean } | null = null;
      try {
        const v = mathjs.evaluate(text, { ...ones, a: mathjs.unit(1.25, 'mm'), c0: mathjs.unit(299792458, 'm/s') }) as unknown;
        if (typeof v === 'number') known = { si: v, unitless: true };
        else if (mathjs.isUnit(v)) known = { si: (v as unknown as { value: number }).value, unitless: false };
      } catch {
        // Terms that do not fit.
      }
      let own: Value | undefined;
      try {
        own = compile(text).evaluate(() => a, () => 0); // prettier-ignore
      } catch {
        own = undefined;
      }
      // There the root of a negative number is complex, and its size real again; here it has no value.
      if (own !== undefined && Number.isNaN(anySI(own)) && /sqrt|\^0\.5/.test(text)) return;
      if (known && Number.isFinite(known.si)) {
        compared++;
        expect(own).toBeDefined();
        expect(typeof own === 'number').toBe(known.unitless);
        const difference = Math.abs(anySI(own!) - known.si);
        expect(difference).toBeLessThanOrEqual(1e-12 * Math.abs(known.si));
      } else if (own !== undefined) expect(Number.isFinite(anySI(own))).toBe(false);
    }),
    { numRuns: 1200 },
  );
  expect(compared).toBeGreaterThan(300);
});
