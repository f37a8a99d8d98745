import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { acrossOf, cross, dot, minus, normalised, unit, type Vec3 } from './vector.ts';

const vector = fc.tuple(...Array.from({ length: 3 }, () => fc.double({ min: -5, max: 5, noNaN: true }))) as unknown as fc.Arbitrary<Vec3>;

describe('vectors', () => {
  test('x cross y is z, and each axis in turn', () => {
    for (const a of [0, 1, 2]) expect(cross(unit(a), unit((a + 1) % 3)).map((v) => v + 0)).toEqual([...unit((a + 2) % 3)]);
    expect(unit(1, -1)).toEqual([0, -1, 0]);
  });
  test('the product lies across both, and its size is that of the parallelogram', () => {
    fc.assert(
      fc.property(vector, vector, (a, b) => {
        const n = cross(a, b);
        const area = dot(a, a) * dot(b, b) - dot(a, b) ** 2;
        return Math.abs(dot(n, a)) < 1e-9 && Math.abs(dot(n, b)) < 1e-9 && Math.abs(dot(n, n) - area) < 1e-9;
      }),
    );
  });
  test('two unit vectors across any direction, near the pole and far from it, make a right-handed frame with it', () => {
    fc.assert(
      fc.property(vector, (d) => {
        if (Math.hypot(...d) < 1e-6) return true;
        const [u, v] = acrossOf(d);
        const off = minus(cross(u, v), normalised(d));
        return Math.abs(dot(u, v)) < 1e-12 && Math.hypot(...off) < 1e-9;
      }),
    );
    expect(normalised([0, 0, 0])).toEqual([0, 0, 0]);
  });
});
