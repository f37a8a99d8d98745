import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gathered } from './gathered.ts';

const numbers = fc.oneof(fc.float32Array({ noNaN: true }), fc.float64Array({ noNaN: true }), fc.uint16Array(), fc.uint32Array());

test('what is gathered says the same, also after its buffer has moved, and what it came from stays whole', () => {
  fc.assert(
    fc.property(fc.array(fc.record({ name: fc.string(), a: numbers, b: numbers, rest: fc.jsonValue() })), (things) => {
      const before = structuredClone(things);
      const { things: out, buffer } = gathered(things);
      const views = out.flatMap((t) => [t.a, t.b]);
      expect(views.every((v) => v.buffer === buffer)).toBe(true);
      const there = structuredClone(out, { transfer: [buffer] });
      expect(there).toEqual(before);
      expect(things).toEqual(before);
      expect(buffer.byteLength).toBe(0);
    }),
  );
});
