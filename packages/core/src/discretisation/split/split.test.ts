import { describe, expect, test } from '@jest/globals';
import { plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import type { Point2, Point3 } from '../../document/index.ts';
import type { Body } from '../../geometry/index.ts';
import { type Affine, compose, rotation } from '../../numerics/affine.ts';
import type { Axis } from '../../numerics/axis.ts';
import { isMetal } from '../../solvers/fdtd/discrete.ts';
import { discretise } from '../../solvers/fdtd/discretise.ts';
import { shifted } from '../enlarge.ts';
import { partsOfFace, sameWith } from './face.ts';
import type { SplitEdge } from './types.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;

describe('parts of a face', () => {
  const areas = (...args: Parameters<typeof partsOfFace>): number[] => partsOfFace(...args).map((p) => p.area);
  const at = (...places: number[]) => places.map((t) => ({ from: t, to: t }));

  test('a wall from side to side parts it, one that ends in it does not', () => {
    expect(areas([], sameWith([]), [1, 1])).toEqual([1]);
    expect(areas(at(0.25, 2.5), sameWith([0, 0]), [1, 1])).toEqual([expect.closeTo(0.625, 12), expect.closeTo(0.375, 12)]);
    expect(areas(at(0.25, 2.5), sameWith([0, 1]), [1, 1])).toEqual([1]);
    expect(areas(at(0.25), sameWith([0]), [1, 1])).toEqual([1]);
    // From corner to corner.
    expect(areas(at(0, 2), sameWith([0, 0]), [1, 1])).toEqual([0.5, 0.5]);
  });

  test('three walls from one point leave three parts, two that pass each other three as well', () => {
    expect(areas(at(0.5, 1.5, 2.5), sameWith([0, 0, 0]), [1, 1], () => [[0.5, 0.5]])).toEqual([expect.closeTo(0.25, 12), expect.closeTo(0.25, 12), expect.closeTo(0.5, 12)]); // prettier-ignore
    expect(areas(at(0.2, 0.6, 2.4, 2.8), sameWith([0, 1, 1, 0]), [1, 1]).map((a) => Number(a.toFixed(9)))).toEqual([0.4, 0.4, 0.2]);
  });

  test('solid metal in a corner, and a wall as thick as it is, take their area', () => {
    expect(areas([{ from: 3.5, to: 4.5 }], sameWith([0]), [1, 1])).toEqual([expect.closeTo(1 - 0.125, 12)]);
    const [left, right] = partsOfFace([{ from: 0.4, to: 0.5 }, { from: 2.5, to: 2.6 }], sameWith([0, 0]), [2, 1]); // prettier-ignore
    expect([left.area, right.area]).toEqual([expect.closeTo(0.5, 12), expect.closeTo(0.4, 12)]);
    expect(left.walls).toEqual([{ from: 1, to: 0, length: 1 }]);
    expect(right.walls[0]).toMatchObject({ from: 0, to: 1 });
  });
});

const half = 10;
const grid = uniformGrid([-half, -half, -half], [half, half, half], [20, 20, 20], 0);
const sceneOf = (bodies: Body[]) =>
  plainScene({ bodies, ports: [], min: [-half, -half, -half], max: [half, half, half], band: { from: 1e6, to: 2e6, points: 2 }, boundaries: Array<'electric'>(6).fill('electric') }); // prettier-ignore
/** Six squares that close a box of an odd size about the origin, turned. */
function box(turn: Affine, s = 5.3): Body[] {
  const square: Point2[] = [[-s, -s], [s, -s], [s, s], [-s, s]]; // prettier-ignore
  return [0, 1, 2].flatMap((n) =>
    [-s, s].map((offset) => {
      const frame = [0, 1, 2].flatMap((r) => [r === (n + 1) % 3 ? 1 : 0, r === (n + 2) % 3 ? 1 : 0, r === n ? 1 : 0, r === n ? offset : 0]);
      return plainBody(`wall ${n} ${offset}`, n, metal, { form: 'tilted sheet', frame: compose(turn, frame), loops: [square] });
    }),
  );
}
/** The n-th of a series of turns about all axes. */
function atRandom(n: number): Affine {
  let seed = 5;
  const next = (): number => (6 * (seed = (seed * 16807) % 2147483647)) / 2147483647;
  const all = Array.from({ length: n + 1 }, () => [next(), next(), next()]);
  const [z, y, x] = all[n];
  return compose(rotation([0, 0, 1], z), compose(rotation([0, 1, 0], y), rotation([1, 0, 0], x)));
}
const turns: [string, Affine][] = [
  ['by 45 degrees', rotation([0, 0, 1], Math.PI / 4)],
  ['at a slant to all axes', compose(rotation([0, 0, 1], 0.7), compose(rotation([0, 1, 0], 0.4), rotation([1, 0, 0], 0.3)))],
  ['by next to nothing', rotation([1, 0, 0], 1e-7)],
  // Among 60 at random these were the ones with nodes on sheets beside a fold.
  ...[8, 10, 11, 21].map((n): [string, Affine] => [`at random, ${n}`, atRandom(n)]),
];

/** Boxes of them by their turn; two tests look at each. */
const boxes = new Map<Affine, ReturnType<typeof discretise>>();
function boxOf(turn: Affine): ReturnType<typeof discretise> {
  if (!boxes.has(turn)) boxes.set(turn, discretise(sceneOf(box(turn)), grid));
  return boxes.get(turn)!;
}

describe('sheets across no axis', () => {
  test.each(turns)('a box of them, turned %s, lets nothing through', (_, turn) => {
    const discrete = boxOf(turn);
    const splits = discrete.cuts!.splits!;
    const held = new Map(discrete.splitEdges.map(({ edge }) => [`${edge.component} ${edge.at}`, edge]));
    // Parts of edges are linked by the parts of faces that they bound; from the middle none outside may be reached.
    const seen = new Set<string>();
    const todo: [SplitEdge, number][] = [[{ component: 0, at: [10, 10, 10], parts: [{ from: 0, to: 1, sample: null }] }, 0]];
    let farthest = 0;
    const inBox = compose(rotation([0, 0, 1], 0), turn);
    while (todo.length) {
      const [edge, part] = todo.pop()!;
      const { component: c, at, parts } = edge;
      const name = `${c} ${at} ${part}`;
      if (seen.has(name) || at.some((x) => x < 1 || x > 18)) continue;
      seen.add(name);
      const place = at.map((x, a) => grid.lines[a][x] + (a === c ? (parts[part].from + parts[part].to) / 2 : 0));
      // Along the box's own axes.
      farthest = Math.max(farthest, ...[0, 1, 2].map((k) => Math.abs(place.reduce((sum, x, r) => sum + x * inBox[4 * r + k], 0))));
      for (const n of [0, 1, 2] as const) {
        if (n === c) continue;
        for (const back of [0, -1]) {
          const face = shifted(at, 3 - c - n, back) as Point3;
          const own = splits.faceAt(n, face);
          if (own) {
            for (const s of splits.partBeside(n, face, edge, part)!.sides) todo.push([s.edge, s.part]);
            continue;
          }
          const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
          for (const [e, p] of [
            [u, face],
            [v, face],
            [u, shifted(face, v, 1)],
            [v, shifted(face, u, 1)],
          ] as [Axis, Point3][]) {
            // prettier-ignore
            const other = held.get(`${e} ${p}`);
            if (!isMetal(discrete, e, p))
              (other?.parts ?? [0]).forEach((_p, i) => todo.push([other ?? { component: e, at: p, parts: [{ from: 0, to: 1, sample: null }] }, i]));
          }
        }
      }
    }
    expect(seen.size).toBeGreaterThan(2000);
    expect(farthest).toBeLessThan(5.3 + 1e-3);
  });

  test.each(turns)('turned %s, parts of a face make up the whole, and what drives an edge is driven by it', (_, turn) => {
    const { cuts, splitEdges } = boxOf(turn);
    const splits = cuts!.splits!;
    expect(splits.faces.length).toBeGreaterThan(300);
    const gaps = splits.faces.map(({ parts }) => Math.abs(parts.reduce((sum, p) => sum + p.area, 0) - 1));
    expect(Math.max(...gaps)).toBeLessThan(0.02);
    const alone: string[] = [];
    for (const { edge } of splitEdges)
      edge.parts.forEach((__, part) => {
        for (const n of [0, 1, 2] as const)
          for (const back of [0, -1]) {
            const face = shifted(edge.at, 3 - edge.component - n, back);
            if (n !== edge.component && splits.faceAt(n, face) && !splits.partBeside(n, face, edge, part)) alone.push(`${edge.component} ${edge.at}`);
          }
      });
    expect(alone).toEqual([]);
  });

  test('a port may end on one, and is shorted where one crosses it', () => {
    const plate = plainBody('plate', 0, metal, { form: 'tilted sheet', frame: rotation([0, 1, 0], 0.5), loops: [[[-6, -6], [6, -6], [6, 6], [-6, 6]]] }); // prettier-ignore
    const ground = plainBody('ground', 1, metal, { form: 'box', min: [-9, -9, -9], max: [9, 9, -4] });
    const codes = (from: number, to: number): string[] => {
      const port = { name: 'p', order: 0, resistance: 50, axis: 2, direction: 1, min: [0, 0, from], max: [0, 0, to], across: 0 } as const;
      return discretise({ ...sceneOf([plate, ground]), ports: [{ ...port, min: [0, 0, from], max: [0, 0, to] }] }, grid).problems.map((p) => p.code);
    };
    expect(codes(-4, 0)).toEqual([]);
    expect(codes(-4, -1)).toEqual(['port.touches-nothing']);
    expect(codes(-4, 3)).toContain('port.touches-nothing');
    const crossed = { name: 'p', order: 0, resistance: 50, axis: 2, direction: 1, min: [1, 0, -4], max: [1, 0, 3], across: 0 } as const;
    expect(discretise({ ...sceneOf([plate, ground]), ports: [{ ...crossed, min: [1, 0, -4], max: [1, 0, 3] }] }, grid).problems.map((p) => p.code)).toContain('port.shorted'); // prettier-ignore
  });

  test('a web that two round holes leave of a block along the axes parts cells, though no metal is curved', () => {
    const glass = { name: 'glass', kind: 'dielectric', permittivity: 2 } as const;
    const hole = (n: number, x: number) => ({ ...plainBody(`hole ${n}`, n, glass, { form: 'cylinder', axis: 2, base: [x, 0.2, -11], height: 22, radius: 3 }), curved: true }); // prettier-ignore
    const { cuts, splitEdges } = discretise(sceneOf([plainBody('block', 0, metal, { form: 'box', min: [-8, -8, -11], max: [8, 8, 11] }), hole(1, -2.6), hole(2, 3.6)]), grid); // prettier-ignore
    const splits = cuts!.splits!;
    expect(splits.faces.length).toBeGreaterThan(20);
    expect(splitEdges.length).toBeGreaterThan(20);
    for (const { at, parts } of splits.faces) {
      expect(at.every((x) => x >= 0 && x < 20)).toBe(true);
      expect(parts.every((p) => p.area > 0 && p.area < 1)).toBe(true);
    }
  });
});
