import { describe, expect, test } from '@jest/globals';
import { edgeBetweenGrounds, edgeField, type EdgeField, edgeOverGround, edgeUnderGround, openEdge } from './edgeField.ts';

const at = (f: EdgeField, d: number, z: number): number[] => {
  const out = new Float64Array(4);
  f(d, z, out);
  return [...out];
};
const fields: [string, EdgeField, below: number, above: number][] = [
  ['open', openEdge, Infinity, Infinity],
  ['over ground', edgeOverGround(0.7), 0.7, Infinity],
  ['under ground', edgeUnderGround(1.3), Infinity, 1.3],
  ['between grounds', edgeBetweenGrounds(0.7, 0.7), 0.7, 0.7],
];

describe('the static field at the edge of a sheet', () => {
  test.each(fields)('%s: W is a function of d + jz, and what is told of its slope is that', (_, f, below, above) => {
    for (let n = 0; n < 400; n++) {
      const d = 4 * Math.sin(1 + 12.9 * n);
      const z = Math.max(0.99 * -Math.min(below, 3), Math.min(0.99 * Math.min(above, 3), 3 * Math.sin(2 + 7.3 * n)));
      if (Math.hypot(d, z) < 0.05 || Math.abs(z) < 0.01) continue;
      const step = 1e-6;
      const [here, right, up] = [at(f, d, z), at(f, d + step, z), at(f, d, z + step)];
      const strength = Math.hypot(here[2], here[3]);
      // Where next to nothing is left, differences have no digits.
      if (strength < 0.1) continue;
      for (const [found, expected] of [
        [(right[0] - here[0]) / step, here[2]],
        [(right[1] - here[1]) / step, here[3]],
        [(up[0] - here[0]) / step, -here[3]],
        [(up[1] - here[1]) / step, here[2]],
      ])
        expect(Math.abs(found - expected)).toBeLessThan(2e-4 * strength);
    }
  });

  test.each(fields)('%s: the sheet has no potential, ground one alone, and beside the edge all are one', (_, f, below, above) => {
    for (const d of [-0.01, -0.4, -3]) for (const z of [1e-12, -1e-12]) expect(Math.abs(at(f, d, z)[0])).toBeLessThan(1e-6);
    const grounds = [-below, above].filter(Number.isFinite);
    for (const z of grounds) {
      const potentials = [-3, -0.5, 0.1, 2].map((d) => at(f, d, z * (1 - 1e-9))[0]);
      expect(Math.max(...potentials) - Math.min(...potentials)).toBeLessThan(1e-6);
      expect(potentials[0]).toBeGreaterThan(0.5);
    }
    expect(at(f, 1e-6, 0)[0]).toBeCloseTo(1e-3, 6);
    expect(Math.abs(at(f, -1e-6, 1e-12)[1])).toBeCloseTo(1e-3, 5);
    expect(at(f, -1e-6, 1e-12)[1] * at(f, -1e-6, -1e-12)[1]).toBeLessThan(0);
  });

  test('grounds far away are none, and of two the nearer alone counts where the other is much farther', () => {
    const [far, none] = [at(edgeOverGround(1e4), 0.3, 0.2), at(openEdge, 0.3, 0.2)];
    far.forEach((x, i) => expect(x).toBeCloseTo(none[i], 2));
    expect(edgeField(Infinity, Infinity)).toBe(openEdge);
    expect(at(edgeField(1, 5), 0.3, -0.2)).toEqual(at(edgeOverGround(1), 0.3, -0.2));
    expect(at(edgeField(5, 1), 0.3, 0.2)).toEqual(at(edgeUnderGround(1), 0.3, 0.2));
    expect(at(edgeField(1, 1.5), -0.3, -0.2)).toEqual(at(edgeBetweenGrounds(1, 1.5), -0.3, -0.2));
  });
});
