import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { sCurve, unpackResult } from '@jadebell/core/results';
import { buildScene, sceneFor } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { thisMachine } from '@jadebell/node';

const folder = new URL('../../../demo/results/', import.meta.url).pathname;

const resultOf = (name: string): ReturnType<typeof unpackResult> => unpackResult(readFileSync(`${folder}${name}.zip`));

describe('demo results', () => {
  test('no run gives more power than it takes, and the balances of those that radiate hold', () => {
    for (const file of readdirSync(folder).filter((f) => f.endsWith('.zip'))) {
      const { evidence } = resultOf(file.replace('.zip', '')).meta;
      expect([file, evidence.largestReflection < 1.001]).toEqual([file, true]);
      for (const b of evidence.powerBalance ?? []) expect([file, Math.abs(b) < 0.03]).toEqual([file, true]);
    }
  });

  test('the mast line fed by lumped and by guided ports is the same line: S differs by what the strip’s open ends add to run 1', () => {
    const runs = [resultOf('mast-line.1'), resultOf('mast-line.2')];
    const f = runs[0].arrays.frequency.data;
    for (const to of [0, 1]) {
      const [s, t] = runs.map((r) => sCurve(r.arrays.s, to, 0));
      const worst = Math.max(...s.map((v, i) => Math.hypot(v.re - t[i].re, v.im - t[i].im)));
      process.stdout.write(`S${to + 1}1: lumped against guided within ${worst.toFixed(3)} from ${f[0] / 1e9} to ${f[f.length - 1] / 1e9} GHz\n`);
      expect(worst).toBeLessThan(0.12);
    }
  });
});

describe('cost estimate', () => {
  test('steps and memory of the demo runs were told within a factor of two, their time at the speed they had as well', async () => {
    const kernel = await loadGeometryKernel();
    for (const name of readdirSync(folder).filter((f) => f.endsWith('.json'))) {
      const { project } = readProject(readFileSync(folder + name, 'utf8'));
      const { evidence, excitations } = unpackResult(readFileSync(folder + name.replace('.json', '.zip'))).meta;
      const { scene } = buildScene(project!, kernel);
      if (evidence.method === 'wires') {
        const told = solvers.moment.estimate(sceneFor('moment', scene), thisMachine());
        const ratios = [evidence.solved / told.frequencies, evidence.bytes / told.bytes];
        process.stdout.write(`${name}: real over told: frequencies ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}\n`);
        for (const ratio of ratios) expect([name, ratio > 0.5, ratio < 2]).toEqual([name, true, true]);
        continue;
      }
      const told = solvers.fdtd.estimate(sceneFor('fdtd', scene), { ...thisMachine(), cellsPerSecond: evidence.cellsPerSecond });
      const ratios = [evidence.steps / (told.steps * Math.max(1, excitations.length)), evidence.bytes / told.bytes, evidence.seconds / told.seconds];
      process.stdout.write(
        `${name}: real over told: steps ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}, seconds ${ratios[2].toFixed(2)}\n`,
      );
      for (const ratio of ratios) expect([name, ratio > 0.5, ratio < 2]).toEqual([name, true, true]);
    }
  }, 60_000);
});
