import { describe, expect, test } from '@jest/globals';
import { nodeHost } from '@jadebell/node';
import type { MaterialEntry, Point3 } from '@jadebell/core/document';
import { c0, type Axis } from '@jadebell/core/numerics';
import { coefficients, type Discrete, isMetal, discretise, Simulation } from '@jadebell/core/solvers/fdtd/parts';
import { plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
const min: Point3 = [-0.02, -0.015, -0.01];
const max: Point3 = [0.02, 0.015, 0.01];
const dielectric = (permittivity: number): MaterialEntry => ({ name: 'board', kind: 'dielectric', permittivity, lossTangent: 0 });

/** Cells of three different sizes, growing differently along each axis, between electric walls, with what is given inside. */
function model(bodies: ReturnType<typeof plainBody>[], cells: Point3 = [11, 9, 7]): Discrete {
  const scene = plainScene({
    bodies,
    ports: [],
    min,
    max,
    band: { from: 2e9, to: 6e9, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const grid = uniformGrid(min, max, cells, 0);
  const bent = [0.2, -0.3, 0.15];
  grid.lines.forEach((x, a) => x.forEach((v, i) => (x[i] = v + (bent[a] * (v * v)) / max[a] - bent[a] * max[a])));
  return discretise(scene, grid);
}

/** A number between -1 and 1, the same each time. */
const chance =
  (seed: number): (() => number) =>
  () =>
    2 * ((seed = (seed * 16807) % 2147483647) / 2147483647) - 1;

/** Yee's equations written down plainly, in double precision, from the coefficients of each edge, for media without memory: E after so many steps. */
function stepped(d: Discrete, start: (c: Axis, at: number) => number, steps: number): Float64Array[] {
  const { lines } = d.grid;
  const n = lines.map((x) => x.length);
  const [sx, sy, sz] = n;
  const at = (i: number, j: number, k: number): number => (k * sy + j) * sx + i;
  const [e, h] = [0, 1].map(() => [0, 1, 2].map(() => new Float64Array(sx * sy * sz)));
  const stride = [1, sx, sx * sy];
  const each = (f: (c: Axis, index: [number, number, number], place: number) => void): void => {
    for (const c of [0, 1, 2] as const)
      for (let k = 0; k < sz; k++) for (let j = 0; j < sy; j++) for (let i = 0; i < sx; i++) f(c, [i, j, k], at(i, j, k));
  };
  /** An edge inside, that is neither metal nor wall. */
  const free = (c: Axis, p: readonly number[]): boolean => p.every((v, a) => (a === c ? v < n[a] - 1 : v > 0 && v < n[a] - 1)) && !isMetal(d, c, p);
  each((c, p, place) => (e[c][place] = free(c, p) ? start(c, place) : 0));
  const step = (a: number, i: number): number => lines[a][i + 1] - lines[a][i];
  const dual = (a: number, i: number): number => (lines[a][i + 1] - lines[a][i - 1]) / 2;
  for (let s = 0; s < steps; s++) {
    // E first, from H half a step before, as in the compiled one.
    each((c, p, place) => {
      if (!free(c, p)) return;
      const [u, v] = [(c + 1) % 3, (c + 2) % 3];
      const [ca, cb] = coefficients(d, c, p);
      const curl = (h[v][place] - h[v][place - stride[u]]) / dual(u, p[u]) - (h[u][place] - h[u][place - stride[v]]) / dual(v, p[v]);
      e[c][place] = ca * e[c][place] + cb * curl;
    });
    each((c, p, place) => {
      const [u, v] = [(c + 1) % 3, (c + 2) % 3];
      if (p[u] === n[u] - 1 || p[v] === n[v] - 1) return;
      h[c][place] -= c0 * d.dt * ((e[v][place + stride[u]] - e[v][place]) / step(u, p[u]) - (e[u][place + stride[v]] - e[u][place]) / step(v, p[v]));
    });
  }
  return e;
}

/** Largest difference of E as the compiled stepping has it from that of the plain one, relative to the largest. */
async function apart(d: Discrete, steps: number, threads: number): Promise<number> {
  const simulation = await Simulation.create(
    { discrete: d, waveform: () => 0, resistance: () => 50, maxSteps: steps, regions: [], frequencies: [], every: 1, lowest: 2e9, boundaries: Array<'electric'>(6).fill('electric') }, // prettier-ignore
    await nodeHost(threads),
  );
  try {
    const { sx, rows } = simulation.shape;
    const [nx, ny] = [d.grid.lines[0].length, d.grid.lines[1].length];
    expect(rows).toBe(ny);
    const next = chance(11);
    const values = new Map<string, number>();
    const start = (c: number, place: number): number => {
      const key = `${c} ${place}`;
      if (!values.has(key)) values.set(key, Math.fround(next()));
      return values.get(key)!;
    };
    const before = stepped(d, start, 0);
    const padded = (place: number): number => Math.floor(place / nx) * sx + (place % nx);
    for (const c of [0, 1, 2] as const) {
      const e = simulation.electric(c);
      before[c].forEach((v, place) => padded(place) < e.length && (e[padded(place)] = v));
    }
    await simulation.advance(steps);
    const after = stepped(d, start, steps);
    let [worst, largest] = [0, 0];
    for (const c of [0, 1, 2] as const) {
      const e = simulation.electric(c);
      after[c].forEach((v, place) => {
        largest = Math.max(largest, Math.abs(v));
        if (padded(place) < e.length) worst = Math.max(worst, Math.abs(e[padded(place)] - v));
      });
    }
    expect(largest).toBeGreaterThan(0.1);
    return worst / largest;
  } finally {
    simulation.close();
  }
}

describe('the compiled stepping does what Yee’s equations say, sample by sample', () => {
  const board = plainBody('board', 0, dielectric(4.4), { form: 'box', min: [-0.02, -0.004, -0.006], max: [0.011, 0.01, 0.003] });
  const plate = plainBody(
    'plate',
    1,
    { name: 'metal', kind: 'conductor' },
    { form: 'box', min: [-0.006, -0.015, -0.002], max: [0.004, 0.002, 0.006] },
  );
  const sheet = plainBody('sheet', 2, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 1, offset: 0.006, loops: [[[-0.008, -0.015], [0.008, -0.015], [0.008, 0.015], [-0.008, 0.015]]] }); // prettier-ignore

  test.each([
    ['vacuum', [], 1],
    ['a dielectric between lines', [board], 1],
    ['a dielectric with metal and a sheet in it', [board, plate, sheet], 1],
    ['the same on two threads', [board, plate, sheet], 2],
  ])('%s', async (_, bodies, threads) => {
    // One part in ten million a step is the arithmetic of single precision.
    for (const steps of [2, 40]) expect(await apart(model(bodies), steps, threads)).toBeLessThan(3e-6);
  });

  test('a row that is one float longer than a multiple of the kernel’s width, and one that is not', async () => {
    for (const nx of [12, 13, 16, 17] as const) expect(await apart(model([board, plate], [nx, 5, 6]), 20, 2)).toBeLessThan(3e-6);
  });
});
