import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mu0 } from '../../numerics/constants.ts';
import type { MaterialEntry } from '../../document/index.ts';
import { plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { type Branches, branchRuns } from './branches.ts';
import { discretise } from './discretise.ts';

const tin: MaterialEntry = { name: 'tin', kind: 'conductor', conductivity: 8e6 };
const band = { from: 1e9, to: 2e9, points: 2 };
const half = 0.02;

/** What a body of lossy metal in a box of 4 cm loads. */
function branchesOf(shape: Parameters<typeof plainBody>[3], cells: number): Branches {
  const min: [number, number, number] = [-half, -half, -half];
  const max: [number, number, number] = [half, half, half];
  const scene = plainScene({
    bodies: [plainBody('body', 0, tin, shape)],
    ports: [],
    min,
    max,
    band,
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  return discretise(scene, uniformGrid(min, max, [cells, cells, cells], 0)).branches;
}
const areaIn = ({ field, area }: Branches, f: number): number => area.reduce((sum, a, n) => sum + (field[n] === f ? a : 0), 0);

describe('what lossy metal loads', () => {
  test.each([20, 40])('a block: H along each axis sees the faces that run along it, over their lengths and half a cell beyond; %d cells', (cells) => {
    const size = [0.012, 0.008, 0.016];
    const b = branchesOf({ form: 'box', min: size.map((s) => -s / 2) as [number, number, number], max: size.map((s) => s / 2) as [number, number, number] }, cells); // prettier-ignore
    const h = (2 * half) / cells;
    expect([...new Set(b.field)].sort()).toEqual([3, 4, 5]);
    for (const c of [0, 1, 2]) {
      const [across, other] = [(c + 1) % 3, (c + 2) % 3];
      // H stands on the nodes along itself, those of both edges with a whole cell.
      expect(areaIn(b, 3 + c)).toBeCloseTo(2 * (size[c] + h) * (size[across] + size[other]), 9);
    }
    // A face beside the metal has one edge on it: dt times its length over mu0 times its area.
    const { dt } = discretise(plainScene({ bodies: [], ports: [], min: [-half, -half, -half], max: [half, half, half], band }), uniformGrid([-half, -half, -half], [half, half, half], [cells, cells, cells], 0)); // prettier-ignore
    const single = [...b.q].filter((q) => Math.abs(q / (dt / (mu0 * h)) - 1) < 1e-5).length;
    expect(single).toBe(b.count);
    expect(b.onCuts).toBe(0);
  });

  test('a sheet: its edges, over its area, as a metal of its own', () => {
    const loops: [number, number][][] = [[[-0.008, -0.006], [0.008, -0.006], [0.008, 0.006], [-0.008, 0.006]]]; // prettier-ignore
    const b = branchesOf({ form: 'sheet', normal: 2, offset: 0, loops }, 20);
    expect([...new Set(b.field)].sort()).toEqual([0, 1]);
    expect(b.metals).toHaveLength(1);
    expect(b.metals[0].normal).toBe(2);
    for (const c of [0, 1]) expect(Math.abs(areaIn(b, c) / (0.016 * 0.012) - 1)).toBeLessThan(0.2);
  });

  test('a perfect body loads nothing', () => {
    const block = { ...plainBody('body', 0, tin, { form: 'box', min: [-0.004, -0.004, -0.004], max: [0.004, 0.004, 0.004] }) };
    block.conductor = { ...block.conductor, perfect: true };
    const scene = plainScene({ bodies: [block], ports: [], min: [-half, -half, -half], max: [half, half, half], band });
    expect(discretise(scene, uniformGrid(scene.min, scene.max, [10, 10, 10], 0)).branches.count).toBe(0);
  });

  test('a round body: the faces it cuts come first, over the area of its surface', () => {
    const radius = 0.01;
    const b = branchesOf({ form: 'cylinder', axis: 2, base: [0, 0, -0.008], height: 0.016, radius }, 40);
    expect(b.onCuts).toBeGreaterThan(0);
    expect([...b.field.subarray(0, b.onCuts)].every((f) => f >= 3)).toBe(true);
    // H along the axis goes round the shell: 2 pi r l, half a cell beyond each end.
    expect(Math.abs(areaIn(b, 5) / (2 * Math.PI * radius * (0.016 + 0.001)) - 1)).toBeLessThan(0.03);
  });
});

describe('straight runs of branches', () => {
  const entry = fc.record({ field: fc.constantFrom(0, 3, 4), at: fc.tuple(fc.nat(5), fc.nat(4), fc.nat(5)), metal: fc.nat(1) });
  test('hold every branch once, one after the other along an axis, of one field and one metal', () => {
    fc.assert(
      fc.property(fc.uniqueArray(entry, { selector: (e) => `${e.field} ${e.at.join(' ')}`, minLength: 1, maxLength: 150 }), (all) => {
        const list: Branches = {
          metals: [],
          count: all.length,
          onCuts: 0,
          field: Uint8Array.from(all, (e) => e.field),
          index: Int32Array.from(all.flatMap((e) => e.at)),
          metal: Uint16Array.from(all, (e) => e.metal),
          q: new Float32Array(all.length),
          area: new Float32Array(all.length),
        };
        const runs = branchRuns(list);
        expect(runs.flatMap((r) => r.entries).sort((a, b) => a - b)).toEqual(all.map((_, n) => n));
        for (const { axis, entries } of runs)
          entries.forEach((n, i) => {
            if (i === 0) return;
            const [a, b] = [all[entries[i - 1]], all[n]];
            expect([b.field, b.metal]).toEqual([a.field, a.metal]);
            expect(b.at.map((v, x) => v - a.at[x])).toEqual([0, 1, 2].map((x) => (x === axis ? 1 : 0)));
          });
      }),
    );
  });

  test('a filled plane is rows, not single samples', () => {
    const at = Array.from({ length: 60 }, (_, n) => [n % 10, Math.floor(n / 10), 3]);
    const list: Branches = { metals: [], count: 60, onCuts: 0, field: new Uint8Array(60).fill(4), index: Int32Array.from(at.flat()), metal: new Uint16Array(60), q: new Float32Array(60), area: new Float32Array(60) }; // prettier-ignore
    expect(branchRuns(list)).toHaveLength(6);
  });
});
