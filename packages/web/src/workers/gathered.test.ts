import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gathered } from './gathered.ts';
import { packFaces, unpackFaces, withFaces } from './packedFaces.ts';

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

test('what things share they share there too', () => {
  const [one, other] = [Uint16Array.of(1, 2), Uint16Array.of(1, 2)];
  const { things, buffer } = gathered([{ a: one, b: other }, { a: one, b: one }]); // prettier-ignore
  expect(things[1].a).toBe(things[0].a);
  expect(things[1].b).toBe(things[0].a);
  expect(things[0].b).not.toBe(things[0].a);
  expect(buffer.byteLength).toBe(16);
});

const real = fc.double({ noNaN: true });
const point = fc.tuple(real, real, real);
const face = fc.record({ line: fc.constantFrom('rod', 'hole'), name: fc.constantFrom('top', 'side', 'zmin'), area: real, centre: point, normal: fc.option(point) }); // prettier-ignore

test('faces that were packed are the same again, and their names stand once for bodies of one form', () => {
  fc.assert(
    fc.property(fc.array(face, { maxLength: 8 }), (faces) => {
      const packed = packFaces('rod', faces);
      expect(unpackFaces('rod', structuredClone(packed))).toEqual(faces);
      const again = packFaces('other', faces.map((f) => ({ ...f, line: 'other' }))); // prettier-ignore
      expect(again.faceNames).toBe(packed.faceNames);
      expect(again.faceLines).toBeNull();
      const body = withFaces({ line: 'rod', ...packed });
      expect(body.faces).toEqual(faces);
      expect(body.faces).toBe(body.faces);
      expect({ ...body }.faces).toEqual(faces);
    }),
  );
});
