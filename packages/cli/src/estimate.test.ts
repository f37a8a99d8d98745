import { describe, expect, test } from '@jest/globals';
import { nodeHost, thisMachine } from '@jadebell/node';
import type { GridScene, SceneDipole } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from '@jadebell/verification/bench';
import { plainWire, wireScene } from '@jadebell/verification/wireBench';

const metal = { name: 'metal', kind: 'conductor', conductivity: 1e5 } as const;
const glass = (permittivity: number, lossTangent = 0) => ({ name: `glass ${permittivity}`, kind: 'dielectric', permittivity, lossTangent }) as const;
const far = { kind: 'far-field', name: 'far', step: Math.PI / 18 } as const;

/** Structures that no constant of the estimate was fitted to. */
const structures: Record<string, GridScene> = {
  'a loop of bars on a lossy block, fed in a gap': plainScene({
    bodies: [
      plainBody('block', 0, glass(4, 0.05), { form: 'box', min: [-0.02, -0.02, -0.01], max: [0.02, 0.02, 0] }),
      plainBody('back', 1, metal, { form: 'box', min: [-0.016, 0.012, 0], max: [0.016, 0.016, 0.004] }),
      plainBody('left', 2, metal, { form: 'box', min: [-0.016, -0.016, 0], max: [-0.012, 0.012, 0.004] }),
      plainBody('right', 3, metal, { form: 'box', min: [0.012, -0.016, 0], max: [0.016, 0.012, 0.004] }),
      plainBody('low', 4, metal, { form: 'box', min: [-0.012, -0.016, 0], max: [-0.002, -0.012, 0.004] }),
      plainBody('high', 5, metal, { form: 'box', min: [0.002, -0.016, 0], max: [0.012, -0.012, 0.004] }),
    ],
    ports: [filament('feed', [-0.002, -0.014, 0.002], 0, 0.004, 50)],
    min: [-0.05, -0.05, -0.04],
    max: [0.05, 0.05, 0.04],
    band: { from: 1.5e9, to: 3e9, points: 3 },
    accuracy: 'draft',
    recorders: [far],
    recordAt: [2e9],
  }),
  'a filled guide with a post, two modes at either end': plainScene({
    bodies: [
      plainBody('fill', 0, glass(2.1), { form: 'box', min: [0, 0, 0], max: [30e-3, 12e-3, 9e-3] }),
      plainBody('post', 1, metal, { form: 'box', min: [12e-3, 5e-3, 0], max: [14e-3, 7e-3, 6e-3] }),
    ],
    ports: [],
    guides: ([1, -1] as const).map((into, i) => ({ name: ['left', 'right'][i], order: i, normal: 0, into, min: [i * 30e-3, 0, 0], max: [i * 30e-3, 12e-3, 9e-3], modes: 2, shift: 0 })), // prettier-ignore
    min: [0, 0, 0],
    max: [30e-3, 12e-3, 9e-3],
    band: { from: 13e9, to: 17e9, points: 5 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy: 'draft',
  }),
  'a ball of glass beside a current dipole': plainScene({
    bodies: [plainBody('ball', 0, glass(6), { form: 'ball', centre: [0, 0, 0], radii: [0.012, 0.012, 0.012] })],
    ports: [],
    source: { kind: 'dipole', name: 'spot', order: 0, of: 'electric', at: [0.025, 0, 0], direction: [0, 0, 1] } satisfies SceneDipole,
    min: [-0.04, -0.04, -0.04],
    max: [0.05, 0.04, 0.04],
    band: { from: 2e9, to: 4e9, points: 3 },
    accuracy: 'draft',
    recorders: [far],
    recordAt: [3e9],
  }),
};

describe('cost estimate of structures that it was not fitted to', () => {
  test.each(Object.entries(structures))(
    '%s: no more than twice as long as told, nor done in a third of it; memory within a factor of two',
    async (_, scene) => {
      const { evidence, excitations } = (await solvers.fdtd.solve(scene, { host: await nodeHost() })).meta;
      const told = solvers.fdtd.plan(scene, { ...thisMachine(), cellsPerSecond: evidence.cellsPerSecond }).ready!.estimate;
      const ratios = [evidence.steps / (told.steps * Math.max(1, excitations.length)), evidence.bytes / told.bytes];
      process.stdout.write(`real over told: steps ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}\n`);
      // How long a structure rings is not known before it is solved: those with loss are done soon after the pulse.
      expect([ratios[0] > 1 / 3, ratios[0] < 2]).toEqual([true, true]);
      expect([ratios[1] > 0.5, ratios[1] < 2]).toEqual([true, true]);
    },
  );

  test('a bent wire over a wide band: frequencies and memory within a factor of two', async () => {
    const bent = plainWire('w', [[0, 0, 0.2], [0.3, 0, 0.5], [0.9, 0.2, 0.6], [0.9, 0.8, 0.9]], 2e-3); // prettier-ignore
    const scene = wireScene({ wires: [bent], ports: [[0, 0.2]], frequency: 200e6, band: { from: 50e6, to: 400e6, points: 201 } });
    const { evidence } = (await solvers.moment.solve(scene, { host: await nodeHost() })).meta;
    const told = solvers.moment.plan(scene, thisMachine()).ready!.estimate;
    const ratios = [evidence.solved / told.frequencies, evidence.bytes / told.bytes];
    process.stdout.write(`real over told: frequencies ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}\n`);
    for (const ratio of ratios) expect([ratio > 0.5, ratio < 2]).toEqual([true, true]);
  });
});
