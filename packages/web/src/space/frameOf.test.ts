import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOfEdges, boundsOver, frameOf, roundLength } from './frameOf.ts';

const bodies = [
  { min: [0, -1, 2], max: [1, 1, 3] },
  { min: [-3, 0, 2], max: [0, 0, 2.5] },
];

test('a frame holds all bodies, and a decimetre where there are none or one of no size', () => {
  expect(frameOf(bodies)).toEqual({ centre: [-1, 0, 2.5], size: 4 });
  expect(frameOf([])).toEqual({ centre: [0, 0, 0], size: 0.1 });
  expect(frameOf([{ min: [1, 1, 1], max: [1, 1, 1] }])).toEqual({ centre: [1, 1, 1], size: 0.1 });
});

test('bounds of segments, and of bodies down to the ground', () => {
  expect(boundsOfEdges([0, 1, 2, -1, 5, 0, 3, 3, 3, 3, 3, 3])).toEqual({ min: [-1, 1, 0], max: [3, 5, 3] });
  expect(boundsOver(bodies, -4)).toEqual({ min: [-3, -1, -4], max: [1, 1, 3] });
  expect(boundsOver(bodies, 10)!.min[2]).toBe(2);
  expect(boundsOver(bodies, null)!.min[2]).toBe(2);
  expect(boundsOver([], 0)).toBeNull();
});

test('the bar of the scale is a round length, at most as long as asked and never less than two fifths of it', () => {
  fc.assert(
    fc.property(fc.double({ min: 1e-9, max: 1e4, noNaN: true }), (limit) => {
      const length = roundLength(limit);
      expect(length).toBeLessThanOrEqual(limit * 1.000001);
      expect(length).toBeGreaterThan(0.399 * limit);
      expect(['1', '2', '5']).toContain(length.toExponential(6)[0]);
    }),
  );
});
