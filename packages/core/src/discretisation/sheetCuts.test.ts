import { describe, expect, test } from '@jest/globals';
import type { MaterialEntry, Point2 } from '../document/index.ts';
import type { Body } from '../geometry/index.ts';
import { plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { Cuts, joined } from './cuts.ts';
import { enlargeFaces } from './enlarge.ts';
import { collectMedia } from './media.ts';
import { commonOutline } from './outline.ts';
import { SheetCuts } from './sheetCuts.ts';

const metal: MaterialEntry = { name: 'metal', kind: 'conductor' };
const grid = uniformGrid([-10, -10, -5], [10, 10, 5], [20, 20, 10], 0);
const turned = ([x, y]: Point2): Point2 => [x * Math.cos(0.5) - y * Math.sin(0.5), x * Math.sin(0.5) + y * Math.cos(0.5)];
const rectangle = (x0: number, x1: number): Point2[] => ([[x0, -3], [x1, -3], [x1, 3], [x0, 3]] as Point2[]).map(turned); // prettier-ignore
const sheet = (name: string, loop: Point2[], material = metal): Body =>
  plainBody(name, 0, material, { form: 'sheet', normal: 2, offset: 0, loops: [loop] });
const sceneOf = (...bodies: Body[]) =>
  plainScene({ bodies, ports: [], min: [-10, -10, -5], max: [10, 10, 5], band: { from: 1e6, to: 2e6, points: 2 }, boundaries: Array<'electric'>(6).fill('electric') }); // prettier-ignore
const cutsOf = (...bodies: Body[]): SheetCuts => {
  const scene = sceneOf(...bodies);
  return new SheetCuts(scene, grid, collectMedia(scene));
};
/** Parts of all edges that are told, by row and place. */
const told = (c: SheetCuts): Map<string, number> =>
  new Map([...c.rows].flatMap(([name, { part }]) => [...part].flatMap((p, i): [string, number][] => (Number.isNaN(p) ? [] : [[`${name} ${i}`, p]]))));

describe('sheets across no axis', () => {
  test('those that touch or overlap have one outline', () => {
    const length = (shapes: Point2[][][]): number => commonOutline(shapes).reduce((s, { a, b }) => s + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);
    expect(length([[rectangle(-5, 5)]])).toBeCloseTo(32, 9);
    expect(length([[rectangle(-5, 1)], [rectangle(1, 5)]])).toBeCloseTo(32, 6);
    // What two share comes twice.
    expect(length([[rectangle(-5, 2)], [rectangle(-1, 5)]])).toBeCloseTo(32 + 2 * 3, 6);
    // A hole counts, and one that another sheet fills does not.
    const hole: Point2[] = ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as Point2[]).map(turned); // prettier-ignore
    expect(length([[rectangle(-5, 5), hole]])).toBeCloseTo(40, 9);
    expect(length([[rectangle(-5, 5), hole], [hole]])).toBeCloseTo(32, 6);
  });

  test('and the grid sees them as one sheet, in whichever order and of however many parts', () => {
    const one = told(cutsOf(sheet('whole', rectangle(-5, 5))));
    for (const parts of [
      [sheet('left', rectangle(-5, 0.7)), sheet('right', rectangle(0.7, 5))],
      [sheet('right', rectangle(-1, 5)), sheet('left', rectangle(-5, 0.3))],
    ]) {
      const two = told(cutsOf(...parts));
      expect(two.size).toBe(one.size);
      for (const [name, part] of one) expect(two.get(name)).toBeCloseTo(part, 6);
    }
    expect([...one.values()].some((p) => p > 0 && p < 0.9)).toBe(true);
    expect([...one.values()].every((p) => p >= 0 && p <= 2)).toBe(true);
  });

  test('what lies along the axes, touches a solid or stands across another axis stays as it is', () => {
    const straight: Point2[] = [[-5, -3], [5, -3], [5, 3], [-5, 3]]; // prettier-ignore
    expect(told(cutsOf(sheet('straight', straight))).size).toBe(0);
    const alone = cutsOf(sheet('turned', rectangle(-5, 5)));
    const wall = plainBody('wall', 1, metal, { form: 'sheet', normal: 0, offset: 4, loops: [[[-9, -4], [9, -4], [9, 4], [-9, 4]]] }); // prettier-ignore
    const block = plainBody('block', 2, metal, { form: 'box', min: [-9, -9, -1], max: [-3, 9, 1] });
    for (const [body, at] of [
      [wall, 14],
      [block, 5],
    ] as const) {
      const both = cutsOf(sheet('turned', rectangle(-5, 5)), body);
      // Edges across x that lie in the other metal.
      const inside = [...told(alone).keys()].filter((n) => n.startsWith('1 ') && Number(n.split(' ')[3]) === at);
      expect(inside.length).toBeGreaterThan(2);
      for (const name of inside) expect(told(both).has(name)).toBe(false);
    }
  });

  test('a film of many ohms has no field to speak of at its edge; energy counts a part once', () => {
    const film = (conductivity: number): SheetCuts =>
      cutsOf({ ...sheet('film', rectangle(-5, 5), { ...metal, conductivity }), conductor: { perfect: false, thickness: 1e-6, sides: 2 } });
    expect(told(film(1e4)).size).toBe(0);
    const copper = film(5.8e7);
    expect(told(copper).size).toBeGreaterThan(50);
    // Edges in a lossy sheet keep a part, as they carry its current.
    expect([...copper.rows.values()].some(({ part, mark }) => mark.some((m, i) => m > 1 && part[i] > 0))).toBe(true);
    const scene = sceneOf(sheet('turned', rectangle(-5, 5)));
    const cuts = Cuts.of(scene, grid, collectMedia(scene))!;
    for (const [name, part] of told(cuts.sheets!)) {
      const [c, j, k, i] = name.split(' ').map(Number);
      expect(cuts.energyPart(c as 0, i, j, k)).toBe(part);
    }
  });

  test('a film beside a sheet keeps its edges, though the sheet is cut there', () => {
    const film = {
      ...sheet('film', rectangle(1, 5), { ...metal, conductivity: 1e4 }),
      conductor: { perfect: false, thickness: 1e-6, sides: 2 as const },
    };
    const [alone, both] = [told(cutsOf(sheet('plate', rectangle(-5, 1)))), told(cutsOf(sheet('plate', rectangle(-5, 1)), film))];
    expect(both.size).toBeLessThan(alone.size);
    for (const [name, part] of both) expect(part).toBe(alone.get(name));
  });

  test('faces of solids and of sheets are joined however many there are', () => {
    const many = (count: number) =>
      enlargeFaces(
        { field: Array<number>(count).fill(5), index: Array<number>(3 * count).fill(1), area: Array<number>(count).fill(0.5), metal: Array<number>(count).fill(0), wall: Array<number>(count).fill(0) },
        Array<number>(count).fill(0.4),
        { grid, free: () => 1, inside: () => true },
      ); // prettier-ignore
    const all = joined(many(300_000), many(2));
    expect([all.count, all.index.length, all.start.length, all.own[300_001]]).toEqual([300_002, 900_006, 300_003, 2]);
  });
});
