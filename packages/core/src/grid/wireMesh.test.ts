import { describe, expect, test } from '@jest/globals';
import type { Point3 } from '../document/index.ts';
import { plainWire, upright, wireScene } from '@jadebell/verification/wireBench';
import type { SceneWire, WireScene } from '../scene/index.ts';
import { currentAt, meshWires, pieceLengths } from './index.ts';

const scene = (wires: SceneWire[], more: Partial<WireScene> = {}, ports: [number, number][] = []): WireScene =>
  wireScene({ wires, ports, frequency: 300e6, more }).wires;
const lengths = (s: Float64Array): number[] => Array.from({ length: s.length / 8 }, (_, i) => s[8 * i + 6]);

describe('lengths of segments', () => {
  test('fill a stretch, at most as long as allowed, doubling from fine ends', () => {
    const all = pieceLengths(1, 0.1, [0.0125, 0.1], 1);
    expect(all.reduce((s, l) => s + l, 0)).toBeCloseTo(1, 12);
    expect(Math.max(...all)).toBeLessThan(0.1 * 1.1);
    expect(all[0]).toBeLessThan(0.0125 * 1.2);
    for (let i = 1; i < all.length; i++) expect(all[i] / all[i - 1]).toBeLessThan(2.001);
  });
  test('a stretch shorter than what its ends ask for is one piece, or as many as are wanted', () => {
    expect(pieceLengths(0.01, 0.1, [0.05, 0.05], 1)).toEqual([0.01]);
    expect(pieceLengths(0.01, 0.1, [0.05, 0.05], 3)).toHaveLength(3);
  });
});

describe('wires as segments', () => {
  test('a wire has a function at each inner node and none at its free ends', () => {
    const m = meshWires(scene([upright('w', 0.5, 1e-4)]), { longest: 0.05 });
    expect(m.count).toBe(10);
    expect(m.bases).toBe(9);
    expect(lengths(m.segments).reduce((s, l) => s + l, 0)).toBeCloseTo(0.5, 12);
  });

  test('a port forces a node at its place, and segments shorten towards it and the ends', () => {
    const m = meshWires(scene([upright('w', 0.5, 1e-4)], {}, [[0, 0.2]]), { longest: 0.05, grading: 8 });
    expect(currentAt(m, { wire: 0, at: 0.2 })).toHaveLength(1);
    const l = lengths(m.segments);
    expect(Math.min(...l)).toBeLessThan(0.05 / 6);
    const at = [...m.along].findIndex((s) => Math.abs(s - 0.2) < 1e-12);
    expect(l[at]).toBeLessThan(0.01);
    expect(l[at - 1]).toBeLessThan(0.01);
  });

  test('ends that touch a wire are joined to it wherever they do, and three wires at a node have two functions', () => {
    const rod = plainWire('rod', [[0, 0, -1], [0, 0, 1]], 1e-3); // prettier-ignore
    const arm = plainWire('arm', [[0, 0, 0.31], [0.5, 0, 0.31]], 1e-3); // prettier-ignore
    const m = meshWires(scene([rod, arm]), { longest: 0.1 });
    const node = m.nodes[2 * m.firstOf[1]];
    const ends = [...m.nodes].filter((n) => n === node);
    expect(ends).toHaveLength(3);
    // Segments less free ends: each inner node one, the joint two.
    expect(m.bases).toBe(m.count - 1);
    // The current through the joint's arm side is that of one function, on the rod's side after it also one or two.
    expect(currentAt(m, { wire: 1, at: 0 })).toHaveLength(1);
  });

  test('a closed wire has as many functions as segments', () => {
    const square: Point3[] = [[0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0]]; // prettier-ignore
    const m = meshWires(scene([plainWire('loop', square, 1e-3, true)]), { longest: 0.25 });
    expect(m.count).toBe(16);
    expect(m.bases).toBe(16);
  });

  test('an end on a perfect ground has half a function of its own', () => {
    const m = meshWires(scene([plainWire('w', [[0, 0, 0], [0, 0, 1]], 1e-3)], { ground: { kind: 'perfect', at: 0 } }), { longest: 0.1 }); // prettier-ignore
    expect(m.bases).toBe(10);
    expect(currentAt(m, { wire: 0, at: 0 })).toEqual([[0, 1]]);
    // Over real earth, or lifted off, it is a free end.
    const lifted = meshWires(scene([plainWire('w', [[0, 0, 0.1], [0, 0, 1.1]], 1e-3)], { ground: { kind: 'perfect', at: 0 } }), { longest: 0.1 }); // prettier-ignore
    expect(lifted.bases).toBe(9);
    expect(currentAt(lifted, { wire: 0, at: 0 })).toEqual([]);
  });

  test('a curve is followed by segments that turn little, a straight run of points is not cut at each', () => {
    const n = 200;
    const arc = Array.from({ length: n + 1 }, (_, i): Point3 => [Math.cos((Math.PI * i) / n), Math.sin((Math.PI * i) / n), 0]);
    const m = meshWires(scene([plainWire('arc', arc, 1e-4)]), { longest: 10 });
    expect(m.count).toBe(12);
    const straight = Array.from({ length: 101 }, (_, i): Point3 => [i / 100, 0, 0]);
    expect(meshWires(scene([plainWire('s', straight, 1e-4)]), { longest: 0.25 }).count).toBe(4);
  });

  test('current counts along the wire at both ends of a junction', () => {
    const a = plainWire('a', [[0, 0, 0], [1, 0, 0]], 1e-3); // prettier-ignore
    const b = plainWire('b', [[2, 0, 0], [1, 0, 0]], 1e-3); // prettier-ignore
    const m = meshWires(scene([a, b]), { longest: 0.5 });
    const [[ba, sa]] = currentAt(m, { wire: 0, at: 1 });
    const [[bb, sb]] = currentAt(m, { wire: 1, at: 1 });
    // One function carries it through; b runs against a.
    expect(ba).toBe(bb);
    expect(sa).toBe(-sb);
  });
});
