import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Arena, firstByte, pageBytes } from './arena.ts';

describe('the arena', () => {
  test('gives ranges that do not meet, on bounds of 64 bytes, and counts the pages that hold them', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 100_000 }), { minLength: 1, maxLength: 40 }), (sizes) => {
        const arena = new Arena();
        const taken = sizes.map((bytes) => ({ at: arena.take(bytes), bytes }));
        expect(taken[0].at).toBeGreaterThanOrEqual(firstByte);
        taken.forEach(({ at, bytes }, i) => {
          expect(at % 64).toBe(0);
          if (i + 1 < taken.length) expect(taken[i + 1].at).toBeGreaterThanOrEqual(at + bytes);
        });
        const { at, bytes } = taken.at(-1)!;
        expect(arena.pages() * pageBytes).toBeGreaterThanOrEqual(at + bytes);
        expect(arena.bytes).toBeGreaterThanOrEqual(at + bytes);
      }),
    );
  });
  test('refuses what no address reaches', () => {
    const arena = new Arena();
    arena.take(4e9);
    expect(() => arena.take(1e9)).toThrow('4 GB');
  });
});
