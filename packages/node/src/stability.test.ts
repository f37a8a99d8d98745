import { expect, test } from '@jest/globals';
import type { Point3 } from '@jadebell/core/document';
import type { Body, Exact } from '@jadebell/core/geometry';
import { type Affine, compose, invert, rotation, translation } from '@jadebell/core/numerics';
import { discretise, Simulation, isMetal } from '@jadebell/core/solvers/fdtd/parts';
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
async function noise(bodies: Body[], next: () => number, steps: number): Promise<[number, number]> {
  const grid = uniformGrid([0, 0, 0], [side, side, side], [cells, cells, cells], 0);
  grid.outerCells = [0, 0, 0, 0, 0, 0];
  const scene = plainScene({
    bodies,
    ports: [filament('probe', grid.lines.map((x) => x[7]) as Point3, 2, side / cells, 1e9)],
    min: [0, 0, 0],
    max: [side, side, side],
    band: { from: 1e9, to: 10e9, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const discrete = discretise(scene, grid);
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
  for (let n = 0; n < 24; n++) {
    const bodies = clutter(next);
    const [before, after] = await noise(bodies, next, 4000);
    expect({ n, grows: !(after < 4 * before) }).toEqual({ n, grows: false });
  }
});
