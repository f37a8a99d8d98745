import { expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import type { Point2, Point3 } from '@jadebell/core/document';
import type { Body, Exact } from '@jadebell/core/geometry';
import { type Affine, compose, invert, rotation, translation } from '@jadebell/core/numerics';
import { type Discrete, discretise, isMetal, Simulation, solveScene, steady, timeStep } from '@jadebell/core/solvers/fdtd/parts';
import { filament, plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { nodeHost } from './index.ts';

/** Numbers 0..1 that are the same in every run. */
function numbers(seed: number): () => number {
  let at = seed;
  return () => (at = (at * 16807) % 2147483647) / 2147483647;
}

const cells = 14;
const side = 0.02;

/** Balls, rods and slabs at odd places and angles, of metal or of dense dielectric, that may run through each other. */
function clutter(next: () => number): Body[] {
  return Array.from({ length: 1 + Math.floor(next() * 3) }, (_, n) => {
    const centre = [next(), next(), next()].map((v) => side * (0.2 + 0.6 * v)) as Point3;
    const r = 1e-3 + 5e-3 * next();
    const kind = Math.floor(next() * 3);
    const metal = next() < 0.6;
    const material = metal
      ? { name: 'metal', kind: 'conductor' as const }
      : { name: 'stuff', kind: 'dielectric' as const, permittivity: 2 + 10 * next(), lossTangent: 0 };
    if (kind === 0) return plainBody(`ball ${n}`, n, material, { form: 'ball', centre, radii: [r, r * (0.5 + next()), r] });
    const inner: Exact =
      kind === 1
        ? { form: 'cylinder', axis: 2, base: [0, 0, -8e-3], height: 16e-3, radius: r }
        : { form: 'box', min: [-r, -r / 3, -6e-3], max: [r, r / 3, 6e-3] };
    const matrix: Affine = compose(translation(centre), rotation([next(), next(), next()], 6 * next()));
    return { ...plainBody(`body ${n}`, n, material, { form: 'moved', matrix, inverse: invert(matrix), of: inner }), curved: true };
  });
}

/** Noise on every free edge of a closed box; energies at the start and after `steps`. */
async function noise(bodies: Body[], next: () => number, steps: number, across: Point3 = [cells, cells, cells]): Promise<[number, number]> {
  const grid = uniformGrid([0, 0, 0], [side, side, side], across, 0);
  grid.outerCells = [0, 0, 0, 0, 0, 0];
  const scene = plainScene({
    bodies,
    ports: [filament('probe', grid.lines.map((x) => x[Math.floor(x.length / 2)]) as Point3, 2, side / across[2], 1e9)],
    min: [0, 0, 0],
    max: [side, side, side],
    band: { from: 1e9, to: 10e9, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const discrete = discretise(scene, grid);
  // A port that a sheet across no axis crosses is refused before a run.
  if (discrete.cuts?.splits && discrete.problems.some((p) => p.code === 'port.shorted')) return [1, 1];
  const simulation = await Simulation.create(
    {
      discrete,
      waveform: () => 0,
      resistance: () => 1e9,
      maxSteps: steps + 20,
      regions: [],
      frequencies: [],
      every: 1,
      lowest: 1e9,
      boundaries: scene.boundaries,
    },
    await nodeHost(1),
  );
  simulation.setElectric((c, at) => (isMetal(discrete, c, at) ? 0 : next() - 0.5));
  const before = await simulation.advance(20);
  const after = await simulation.advance(steps);
  simulation.close();
  return [before, after];
}

test('no curved or slanted body, cut or crossed in whatever way, makes the scheme unstable', async () => {
  const next = numbers(20261123);
  for (let n = 0; n < 12; n++) {
    const bodies = clutter(next);
    const [before, after] = await noise(bodies, next, 4000);
    expect({ n, grows: !(after < 4 * before) }).toEqual({ n, grows: false });
  }
});

/** Sheets of odd outlines on one or two planes or, if asked, at any angle, some of copper, which overlap, touch or cross; now and then a rod through them. */
function plates(next: () => number, across: Point3, tilted = false): Body[] {
  const sheet = (n: number): Body => {
    const normal = Math.floor(next() * 3) as 0 | 1 | 2;
    const offset = (side * Math.floor(across[normal] * (0.3 + 0.4 * next()))) / across[normal];
    const [u, w] = [0.3 + 0.4 * next(), 0.3 + 0.4 * next()];
    const corners = 3 + Math.floor(next() * 12);
    const turn = 7 * next();
    const loop = Array.from({ length: corners }, (_, i): Point2 => {
      const r = side * (0.1 + 0.2 * next());
      const a = turn + (2 * Math.PI * i) / corners;
      return [side * u + r * Math.cos(a), side * w + r * Math.sin(a)];
    });
    const material = { name: 'm', kind: 'conductor' as const, ...(next() < 0.5 ? { conductivity: 10 ** (4 + 4 * next()) } : {}) };
    // About the sheet's own middle, where others are near.
    const middle = translation([side / 2, side / 2, offset]);
    const frame = (): Affine =>
      compose(middle, compose(rotation([next() - 0.5, next() - 0.5, next() - 0.5], 6 * next()), translation([-side / 2, -side / 2, 0])));
    return {
      ...plainBody(
        `sheet ${n}`,
        n,
        material,
        tilted && next() < 0.8 ? { form: 'tilted sheet', frame: frame(), loops: [loop] } : { form: 'sheet', normal, offset, loops: [loop] },
      ),
      conductor: { perfect: false, thickness: 1e-5, sides: 2 },
    };
  };
  const all = Array.from({ length: 1 + Math.floor(next() * 3) }, (_, n) => sheet(n));
  const rod: Exact = { form: 'cylinder', axis: 2, base: [side / 2, side / 2, 0], height: side, radius: side * 0.08 };
  return next() < 0.3 ? [...all, plainBody('rod', 9, { name: 'metal', kind: 'conductor' }, rod)] : all;
}

test('no sheet across no axis does, of perfect metal or lossy, whatever its outline and the shape of the cells', async () => {
  const next = numbers(20261201);
  for (let n = 0; n < 15; n++) {
    const across = [14, 9 + Math.floor(10 * next()), 6 + Math.floor(16 * next())] as Point3;
    const [before, after] = await noise(plates(next, across), next, 3000, across);
    expect({ n, grows: !(after < 4 * before) }).toEqual({ n, grows: false });
  }
});

test('nor does a sheet at any angle, alone, joined with others or with solids', async () => {
  const next = numbers(20261202);
  for (let n = 0; n < 10; n++) {
    const across = [14, 9 + Math.floor(10 * next()), 6 + Math.floor(16 * next())] as Point3;
    const [before, after] = await noise(plates(next, across, true), next, 3000, across);
    expect({ n, grows: !(after < 4 * before) }).toEqual({ n, grows: false });
  }
});

/** Shells and tubes of metal much thinner than a cell, some with losses, at any angle, which may cross. */
function shells(next: () => number): Body[] {
  return Array.from({ length: 1 + Math.floor(next() * 3) }, (_, n) => {
    const r = 2e-3 + 4e-3 * next();
    const inner = r - 1e-5 * 10 ** (2 * next());
    const shape: Exact[] = [
      { form: 'cut', from: { form: 'cylinder', axis: 2, base: [0, 0, -5e-3], height: 10e-3, radius: r }, tools: [{ form: 'cylinder', axis: 2, base: [0, 0, -6e-3], height: 12e-3, radius: inner }] }, // prettier-ignore
      { form: 'cut', from: { form: 'ball', centre: [0, 0, 0], radii: [r, r, r] }, tools: [{ form: 'ball', centre: [0, 0, 0], radii: [inner, inner, inner] }] }, // prettier-ignore
      { form: 'cut', from: { form: 'box', min: [-r, -r, -r], max: [r, r, r] }, tools: [{ form: 'box', min: [-inner, -inner, -2 * r], max: [inner, inner, inner] }] }, // prettier-ignore
    ];
    const centre = [next(), next(), next()].map((v) => side * (0.25 + 0.5 * v)) as Point3;
    const matrix: Affine = compose(translation(centre), rotation([next() - 0.5, next() - 0.5, next() - 0.5], 6 * next()));
    const material = { name: 'm', kind: 'conductor' as const, ...(next() < 0.4 ? { conductivity: 10 ** (4 + 3 * next()) } : {}) };
    const of = shape[Math.floor(next() * 3)];
    return { ...plainBody(`shell ${n}`, n, material, { form: 'moved', matrix, inverse: invert(matrix), of }), curved: true };
  });
}

thorough('nor do walls thinner than a cell, which part edges and faces', async () => {
  const next = numbers(20261203);
  let parted = 0;
  for (let n = 0; n < 14; n++) {
    const across = [14, 9 + Math.floor(10 * next()), 6 + Math.floor(16 * next())] as Point3;
    const bodies = shells(next);
    const [before, after] = await noise(bodies, next, 2500, across);
    if (before !== after) parted++;
    expect({ n, grows: !(after < 4 * before) }).toEqual({ n, grows: false });
  }
  expect(parted).toBeGreaterThan(7);
});

test('where the step is too long all the same, the run is made again with a shorter one, and tells', async () => {
  // Of some eight hundred outlines the one that grew.
  const loop: Point2[] = [[12.262, 2.6032], [11.237, 5.689], [10.551, 7.188], [10.868, 10.215], [8.2358, 9.4294], [5.5586, 10.32], [6.1957, 7.0724], [5.7255, 5.7891], [6.6386, 4.7777], [6.537, 0.49496], [9.0939, 3.1136]].map(([u, w]) => [u * 1e-3, w * 1e-3]); // prettier-ignore
  const across: Point3 = [14, 12, 19];
  const grid = uniformGrid([0, 0, 0], [side, side, side], across, 0);
  const from = [0.5, 0.5, 0.5].map((f, a) => grid.lines[a][Math.round(f * across[a])]) as Point3;
  const scene = plainScene({
    bodies: [plainBody('star', 0, { name: 'm', kind: 'conductor' }, { form: 'sheet', normal: 0, offset: (4 * side) / 14, loops: [loop] })], // prettier-ignore
    ports: [filament('probe', from, 0, side / 14, 4e3)],
    min: [0, 0, 0],
    max: [side, side, side],
    band: { from: 5e9, to: 10e9, points: 5 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  // The probe hangs in the air.
  const withStep = (dt?: number): Discrete => ({ ...discretise(scene, grid, undefined, dt), problems: [], withStep });
  // By itself the model takes a step that is short enough; with that of whole cells it grows.
  const long = timeStep(grid, scene);
  expect(withStep().dt).toBeLessThan(0.99 * long);
  const discrete = withStep(long);
  const { meta, arrays } = await steady(solveScene)(scene, discrete, { host: await nodeHost(1) });
  expect(meta.evidence.shortened).toBe(0.85);
  expect(meta.evidence.timeStep).toBeCloseTo(0.85 * discrete.dt, 18);
  expect(Array.from(arrays.s.data).every((x) => Math.abs(x) < 1.01)).toBe(true);
});
