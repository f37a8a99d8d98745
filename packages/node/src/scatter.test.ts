import { describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { nodeHost } from '@jadebell/node';
import type { MaterialEntry, Point3 } from '@jadebell/core/document';
import { buildGrid } from '@jadebell/core/grid';
import { type GridScene, type SceneWave, waveOf } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { litBall } from '@jadebell/verification/energy';

const wet: MaterialEntry = { name: 'wet', kind: 'dielectric', permittivity: 6, lossTangent: 0.4 };
const dry: MaterialEntry = { name: 'dry', kind: 'dielectric', permittivity: 6, lossTangent: 0 };
const frequencies = [2.2e9, 3e9];

/** Two blocks of unlike size, one with a metal plate on it: nothing that looks alike from two sides. */
function lit(material: MaterialEntry, from: [theta: number, phi: number], angle: number, more: Partial<GridScene> = {}): GridScene {
  const far = 0.05;
  return plainScene({
    bodies: [
      plainBody('low', 0, material, { form: 'box', min: [-0.02, -0.01, -0.015], max: [0.008, 0.014, 0.002] }),
      plainBody('high', 1, material, { form: 'box', min: [0.002, -0.012, 0.002], max: [0.02, 0.004, 0.02] }),
      plainBody('plate', 2, { name: 'metal', kind: 'conductor' }, { form: 'box', min: [-0.02, 0.014, -0.015], max: [0, 0.018, 0.002] }),
    ],
    ports: [],
    source: waveOf('wave', 0, from[0], from[1], angle, 0),
    min: [-far, -far, -far],
    max: [far, far, far],
    band: { from: frequencies[0], to: frequencies[1], points: 2 },
    recorders: [{ kind: 'far-field', name: 'far', step: Math.PI / 36 }],
    recordAt: frequencies,
    accuracy: 'draft',
    ...more,
  });
}
const solve = async (scene: GridScene): ReturnType<typeof solvers.fdtd.solve> => solvers.fdtd.solve(scene, { host: await nodeHost(2) });

// At draft a wavelength has twelve cells, in the blocks too: a percent is its error.
describe('a structure lit by a plane wave', () => {
  /** The wet blocks from one side; the tests share it. */
  let wetRun: ReturnType<typeof solve> | undefined;
  const wetOnce = (): ReturnType<typeof solve> => (wetRun ??= solve(lit(wet, [0.8, 0.5], 0.3)));

  test('takes out of the wave what it scatters and absorbs, and without loss absorbs nothing', async () => {
    for (const material of [wet, dry]) {
      const { meta } = await (material === wet ? wetOnce() : solve(lit(material, [0.8, 0.5], 0.3)));
      for (const f of meta.scattered!.figures) {
        process.stdout.write(`${material.name}: scatters ${(f.scattering * 1e4).toFixed(3)} cm2, absorbs ${(f.absorption * 1e4).toFixed(3)}, extinction ${(f.extinction * 1e4).toFixed(3)}\n`); // prettier-ignore
        expect(Math.abs((f.extinction - f.scattering - f.absorption) / f.extinction)).toBeLessThan(0.01);
        expect(Math.abs(f.fromPattern / f.scattering - 1)).toBeLessThan(0.01);
        if (material === dry) expect(Math.abs(f.absorption / f.extinction)).toBeLessThan(0.01);
        else expect(f.absorption / f.extinction).toBeGreaterThan(0.1);
      }
    }
  });

  thorough('takes as much out of the wave from the opposite side, though it scatters it otherwise', async () => {
    // Extinction is reciprocal: the same E, propagation turned round.
    const [theta, phi, angle] = [0.8, 0.5, 0.3];
    const there = lit(wet, [theta, phi], angle);
    const back = lit(wet, [Math.PI - theta, phi + Math.PI], 0);
    const [{ re, im }, lit2] = [there, back].map((s) => s.source as SceneWave);
    back.source = { ...lit2, re, im };
    const [a, b] = [(await wetOnce()).meta.scattered!.figures, (await solve(back)).meta.scattered!.figures];
    const differs: number[] = [];
    a.forEach((f, n) => {
      process.stdout.write(`extinction ${(f.extinction * 1e4).toFixed(3)} and ${(b[n].extinction * 1e4).toFixed(3)} cm2; back ${(f.back * 1e4).toFixed(3)} and ${(b[n].back * 1e4).toFixed(3)}\n`); // prettier-ignore
      expect(Math.abs(b[n].extinction / f.extinction - 1)).toBeLessThan(0.005);
      differs.push(Math.abs(b[n].back / f.back - 1));
    });
    expect(Math.max(...differs)).toBeGreaterThan(0.05);
  });

  test('that is not there scatters nothing', async () => {
    const { meta } = await solve(lit(dry, [0.8, 0.5], 0.3, { bodies: [] }));
    // Against what a disc as large as the region would.
    for (const f of meta.scattered!.figures) expect(Math.abs(f.scattering)).toBeLessThan(1e-6 * 0.05 ** 2);
  });

  test('must have room around it', async () => {
    const bodies = [plainBody('long', 0, dry, { form: 'box', min: [-0.06, -0.002, -0.002], max: [0.06, 0.002, 0.002] as Point3 })];
    await expect(solve(lit(dry, [0.8, 0.5], 0.3, { bodies }))).rejects.toMatchObject({ problems: [{ code: 'wave.room', place: { name: 'wave' } }] });
  });

  test('must not touch the rim of the box in which the wave is: a ball that did held forty times its energy', async () => {
    const told = (cell: number): string[] => solvers.fdtd.checkOnMesh!(litBall(cell), buildGrid(litBall(cell))).map((p) => p.code);
    expect([0.5e-3, 0.4e-3].map(told)).toEqual([['wave.room'], []]);
    await expect(solve(litBall(0.5e-3))).rejects.toMatchObject({ problems: [{ code: 'wave.room' }] });
  });
});
