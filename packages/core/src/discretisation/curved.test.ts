import { describe, expect, test } from '@jest/globals';
import type { Point3 } from '../document/index.ts';
import type { Exact } from '../geometry/index.ts';
import { mie } from '@jadebell/verification/mie';
import { plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { CutCells, cutsCells, faceArea } from './cutCells.ts';
import { permittivityOf } from '../solvers/fdtd/discrete.ts';
import { discretise } from '../solvers/fdtd/discretise.ts';
import { collectMedia } from './media.ts';
import { Subpixel } from './subpixel.ts';
import type { Axis } from '../numerics/axis.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const glass = { name: 'glass', kind: 'dielectric', permittivity: 4, lossTangent: 0 } as const;
const radius = 7.3;
const cells = 20;
const grid = uniformGrid([-10, -10, -10], [10, 10, 10], [cells, cells, cells], 0);
grid.outerCells = [0, 0, 0, 0, 0, 0];
const ball: Exact = { form: 'ball', centre: [0.13, -0.21, 0.37], radii: [radius, radius, radius] };
const sceneWith = (material: typeof metal | typeof glass, shape: Exact = ball): ReturnType<typeof plainScene> =>
  plainScene({
    bodies: [plainBody('body', 0, material, shape)],
    ports: [],
    min: [-10, -10, -10],
    max: [10, 10, 10],
    band: { from: 1e6, to: 2e6, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });

describe('faces cut by metal', () => {
  test('areas and walls of simple cuts', () => {
    // Lower half in metal; a corner; all but a corner.
    expect(faceArea([1, 1, 0, 0], [0, 0.5, 1, 0.5], 2, 1)).toEqual({ free: 0.5, cut: 2 });
    expect(faceArea([1, 0, 0, 0], [0.5, 1, 1, 0.5], 1, 1)).toEqual({ free: 0.875, cut: Math.SQRT1_2 });
    expect(faceArea([1, 1, 0, 1], [0, 0.5, 0.5, 0], 1, 1).free).toBeCloseTo(0.125, 12);
    // A slot between metal on both sides.
    expect(faceArea([1, 1, 1, 1], [0.3, 0, 0.3, 0], 1, 2)).toEqual({ free: 0.3, cut: 4 });
    // Whole.
    expect(faceArea([0, 0, 0, 0], [1, 1, 1, 1], 1, 1)).toEqual({ free: 1, cut: 0 });
  });

  test('free areas across a ball add up to its discs, free edges to its chords', () => {
    const scene = sceneWith(metal);
    expect(cutsCells(scene)).toBe(true);
    const cuts = new CutCells(scene, grid, collectMedia(scene));
    for (const n of [0, 1, 2] as const) {
      const at: Point3 = [0, 0, 0];
      at[n] = 8;
      let area = 0;
      let chord = 0;
      for (let u = 0; u < cells; u++)
        for (let v = 0; v < cells; v++) {
          const p = [...at];
          [p[(n + 1) % 3], p[(n + 2) % 3]] = [u, v];
          area += 1 - cuts.area(n, p);
        }
      const centre = [0.13, -0.21, 0.37];
      const h = grid.lines[n][8] - centre[n];
      expect(Math.abs(area / (Math.PI * (radius ** 2 - h * h)) - 1)).toBeLessThan(0.01);
      const line = [9, 9, 9];
      for (let i = 0; i < cells; i++) {
        line[n] = i;
        chord += 1 - cuts.free(n, line[0], line[1], line[2]);
      }
      const off = [0, 1, 2].reduce((s, a) => (a === n ? s : s + (grid.lines[a][9] - centre[a]) ** 2), 0);
      expect(chord).toBeCloseTo(2 * Math.sqrt(radius ** 2 - off), 2);
    }
  });

  test('what is lent keeps a uniform field: links and own factor make up the free area', () => {
    const scene = sceneWith(metal);
    const { faces } = new CutCells(scene, grid, collectMedia(scene));
    const change = (f: number, plain: (n: number) => number): number => {
      let sum = faces.own[f] * plain(f);
      for (let l = faces.start[f]; l < faces.start[f + 1]; l++) sum += faces.factor[l] * plain(faces.other[l]);
      return sum;
    };
    expect(faces.count).toBeGreaterThan(500);
    let lent = 0;
    for (let f = 0; f < faces.count; f++) {
      // In a uniform field the circulation of each face is its free area.
      expect(change(f, (n) => faces.area[n])).toBeCloseTo(1, 6);
      if (faces.start[f + 1] > faces.start[f]) lent++;
      // And the coupling is symmetric.
      for (let l = faces.start[f]; l < faces.start[f + 1]; l++) {
        const other = faces.other[l];
        let back = NaN;
        for (let m = faces.start[other]; m < faces.start[other + 1]; m++) if (faces.other[m] === f) back = faces.factor[m];
        expect(back).toBeCloseTo(faces.factor[l], 12);
      }
    }
    expect(lent).toBeGreaterThan(20);
  });

  test('a shell thinner than a cell lets nothing through, however it lies across the cells', () => {
    const shell: Exact = { form: 'cut', from: ball, tools: [{ form: 'ball', centre: [0.13, -0.21, 0.37], radii: [6.8, 6.8, 6.8] }] };
    const scene = sceneWith(metal, shell);
    const cuts = new CutCells(scene, grid, collectMedia(scene));
    // Edges are linked by the faces that they bound; from the middle no edge outside may be reached.
    const seen = new Set<string>();
    const todo: [Axis, number[]][] = [[0, [10, 10, 10]]];
    const live = (c: Axis, at: number[]): boolean => cuts.free(c, at[0], at[1], at[2]) > 0;
    let farthest = 0;
    while (todo.length) {
      const [c, at] = todo.pop()!;
      const name = `${c} ${at.join(' ')}`;
      if (seen.has(name) || !live(c, at) || at.some((x) => x < 1 || x > cells - 2)) continue;
      seen.add(name);
      farthest = Math.max(farthest, Math.hypot(...at.map((x, a) => grid.lines[a][x] + (a === c ? 0.5 : 0) - [0.13, -0.21, 0.37][a])));
      for (const n of [0, 1, 2] as const) {
        if (n === c) continue;
        const across = (3 - c - n) as Axis;
        for (const back of [0, 1]) {
          const face = at.map((x, a) => x - (a === across ? back : 0));
          const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
          const beyond = (a: number): number[] => face.map((x, b) => x + (a === b ? 1 : 0));
          todo.push([u, face], [v, face], [u, beyond(v)], [v, beyond(u)]);
        }
      }
    }
    expect(seen.size).toBeGreaterThan(2000);
    expect(farthest).toBeLessThan(8.5);
  });

  test('a box on the grid’s lines cuts nothing', () => {
    expect(cutsCells(sceneWith(metal, { form: 'box', min: [-5, -5, -5], max: [5, 5, 5] }))).toBe(false);
  });
});

describe('cells that curved dielectrics share', () => {
  test('a slanted face has the harmonic mean across it and the arithmetic one along it', () => {
    const scene = sceneWith(glass);
    const subpixel = new Subpixel(scene, grid, [collectMedia(scene)]);
    let seen = 0;
    for (let k = 0; k < cells; k++) {
      subpixel.plane(k);
      for (let j = 1; j < cells; j++)
        for (let i = 1; i < cells; i++)
          for (const c of [0, 1, 2] as const) {
            const range = subpixel.range(c, j, k);
            if (!range || i < range[0] || i >= range[1]) continue;
            const e = subpixel.edge(c, i, j, k);
            if (!e) continue;
            seen++;
            expect(e[0]).toBeGreaterThan(1 - 1e-9);
            expect(e[0]).toBeLessThan(4 + 1e-9);
          }
    }
    expect(seen).toBeGreaterThan(1000);
    for (const { at, across } of subpixel.nodes) {
      // The off-diagonal entries have the signs of n n times (<1/e> - 1/<e>), which is positive.
      const n = at.map((x, a) => grid.lines[a][x] - [0.13, -0.21, 0.37][a]);
      const sure = (p: number, q: number): boolean => Math.min(Math.abs(n[p]), Math.abs(n[q])) > 2;
      [[0, 1], [1, 2], [2, 0]].forEach(([p, q], m) => {
        if (sure(p, q)) expect(Math.sign(across[m])).toBe(Math.sign(n[p] * n[q]));
      }); // prettier-ignore
    }
  });

  test('the mixing of edges is symmetric in energy', () => {
    const d = discretise(sceneWith(glass), grid);
    const m = d.mixing!;
    expect(m.count).toBeGreaterThan(1000);
    const e = (n: number): number => permittivityOf(d, m.component[n] as 0, Array.from(m.index.subarray(3 * n, 3 * n + 3)));
    for (let n = 0; n < m.count; n += 7)
      for (let l = m.start[n]; l < m.start[n + 1]; l++) {
        const other = m.other[l];
        let back = 0;
        let own = 0;
        for (let k = m.start[other]; k < m.start[other + 1]; k++) if (m.other[k] === n) back += m.factor[k];
        for (let k = m.start[n]; k < m.start[n + 1]; k++) if (m.other[k] === other) own += m.factor[k];
        // factor = inverse permittivity between the two times the other's permittivity; cells are cubes.
        expect(own / e(other)).toBeCloseTo(back / e(n), 9);
      }
  });
});

describe('series of Mie', () => {
  test('a published value of a dielectric sphere', () => {
    // Bohren and Huffman 1983, appendix A: index 1.55, size 5.213, Qsca = 3.1054.
    expect(mie(5.212816, 1.55).scattering).toBeCloseTo(3.10543, 3);
  });
  test('no loss: extinction is scattering; small metal spheres scatter back nine times their geometric value times x^4', () => {
    for (const [x, index] of [[0.3, null], [2, null], [5, null], [0.7, 2], [3, 2]] as const) expect(mie(x, index).extinction).toBeCloseTo(mie(x, index).scattering, 9); // prettier-ignore
    expect(mie(0.05, null).radar(Math.PI, 'E') / (9 * 0.05 ** 4)).toBeCloseTo(1, 1);
    // Large ones send back their disc.
    expect(Math.abs(mie(60, null).radar(Math.PI, 'H') - 1)).toBeLessThan(0.05);
  });
});
