import { expect, test } from '@jest/globals';
import type { Point3 } from '@jadebell/core/document';
import type { GridScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from '@jadebell/verification/bench';

const metal = { name: 'metal', kind: 'conductor' } as const;
const plate = (name: string, order: number, min: Point3, max: Point3): ReturnType<typeof plainBody> =>
  plainBody(name, order, metal, { form: 'box', min, max });
/** Two plates whose upper faces differ by `slip`. */
const scene = (slip: number, more: Partial<GridScene> = {}): GridScene =>
  plainScene({
    bodies: [plate('left', 0, [-20e-3, -5e-3, 0], [-1e-3, 5e-3, 2e-3]), plate('right', 1, [1e-3, -5e-3, 0], [20e-3, 5e-3, 2e-3 + slip])],
    ports: [filament('feed', [-1e-3, 0, 1e-3], 0, 2e-3, 50)],
    min: [-40e-3, -25e-3, -20e-3],
    max: [40e-3, 25e-3, 22e-3],
    band: { from: 1e9, to: 3e9, points: 5 },
    ...more,
  });
const machine = { memory: 8e9, threads: 2, cellsPerSecond: 1e8 };
const told = (s: GridScene): string[] => solvers.fdtd.plan(s, machine).problems.filter((p) => p.code === 'grid.sliver').map((p) => p.message); // prettier-ignore

test('a sliver of a cell that makes the time step absurd is told with its place', () => {
  // The floor of cells keeps slivers out; only a smallest cell set by hand lets one in.
  expect(told(scene(0))).toEqual([]);
  expect(told(scene(10e-6))).toEqual([]);
  const [message] = told(scene(10e-6, { details: { smallestCell: 1e-6 } }));
  expect(message).toMatch(/only 0\.01 mm along z, at z = 2 mm \(.*right.*\): it makes the time step 555 times shorter/);
});
