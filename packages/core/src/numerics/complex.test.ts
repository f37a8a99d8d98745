import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { abs, abs2, add, arg, type Complex, conj, div, exp, mul, polar, scale, sub } from './complex.ts';

/** Below the smallest numbers of full precision nothing comes back to twelve digits. */
const part = fc.double({ min: -100, max: 100, noNaN: true }).map((x) => (Math.abs(x) < 1e-290 ? 0 : x));
const number = fc.tuple(part, part) as fc.Arbitrary<Complex>;
const near = (a: Complex, b: Complex, size = 1): boolean => abs(sub(a, b)) <= 1e-12 * Math.max(size, abs(b));

describe('complex numbers', () => {
  test('what is multiplied or added comes back by the inverse', () => {
    fc.assert(fc.property(number, number, (a, b) => near(sub(add(a, b), b), a, 200) && (abs(b) < 1e-3 || near(div(mul(a, b), b), a, abs(a)))));
  });
  test('size and phase make the number; times its conjugate it is its square', () => {
    fc.assert(
      fc.property(number, (a) => near(polar(abs(a), arg(a)), a) && near(mul(a, conj(a)), [abs2(a), 0], abs2(a)) && near(scale(2, a), add(a, a))),
    );
  });
  test('exp of a sum is the product; exp(j pi) = -1', () => {
    const small = fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true })) as fc.Arbitrary<Complex>;
    fc.assert(fc.property(small, small, (a, b) => near(exp(add(a, b)), mul(exp(a), exp(b)))));
    expect(near(exp([0, Math.PI]), [-1, 0])).toBe(true);
  });
});
