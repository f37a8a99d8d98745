import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { isOf, unpackResult } from '@jadebell/core/results';
import { buildScene, sceneFor } from '@jadebell/core/scene';
import { solverOf, solvers } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';

const folder = new URL('../../../demo/results/', import.meta.url).pathname;

const resultOf = (name: string): ReturnType<typeof unpackResult> => unpackResult(readFileSync(`${folder}${name}.zip`));

describe('demo results', () => {
  test.each(process.env.JADEBELL_THOROUGH ? ['beacon-array.1', 'mooring-reflector.1'] : ['beacon-array.1'])(
    '%s as it ships is what the program solves today, passive and balanced',
    async (name) => {
      const shipped = resultOf(name);
      const { project } = readProject(readFileSync(`${folder}${name}.json`, 'utf8'));
      const { scene } = buildScene(project!, await loadGeometryKernel());
      const { meta, arrays } = await solverOf(scene!).solve(scene!, { host: await nodeHost() });
      expect(meta.evidence.largestReflection).toBeLessThan(1.001);
      for (const b of meta.evidence.powerBalance ?? []) expect(Math.abs(b)).toBeLessThan(0.03);
      for (const array of ['s', 'farField']) {
        const [now, then] = [arrays[array]?.data, shipped.arrays[array]?.data] as (Float64Array | undefined)[];
        expect(now?.length).toBe(then?.length);
        if (!now || !then) continue;
        const most = now.reduce((m, v, i) => Math.max(m, Math.abs(v - then[i])), 0);
        const size = now.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
        process.stdout.write(`${name}, ${array}: differs by ${(most / size).toExponential(1)} from what ships\n`);
        expect(most / size).toBeLessThan(1e-4);
      }
    },
    120_000,
  );
});

describe('cost estimate', () => {
  test('steps and memory of the demo runs were told within a factor of two, their time at the speed they had as well', async () => {
    const kernel = await loadGeometryKernel();
    for (const name of readdirSync(folder).filter((f) => f.endsWith('.json'))) {
      const { project } = readProject(readFileSync(folder + name, 'utf8'));
      const { meta } = unpackResult(readFileSync(folder + name.replace('.json', '.zip')));
      const { scene } = buildScene(project!, kernel);
      if (isOf('moment', meta)) {
        const { evidence } = meta;
        const told = solvers.moment.plan(sceneFor('moment', scene), thisMachine()).ready!.estimate;
        const ratios = [evidence.solved / told.frequencies, evidence.bytes / told.bytes];
        process.stdout.write(`${name}: real over told: frequencies ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}\n`);
        for (const ratio of ratios) expect([name, ratio > 0.5, ratio < 2]).toEqual([name, true, true]);
        continue;
      }
      if (!isOf('fdtd', meta)) throw new Error(name);
      const { evidence, excitations } = meta;
      const told = solvers.fdtd.plan(sceneFor('fdtd', scene), { ...thisMachine(), cellsPerSecond: evidence.cellsPerSecond }).ready!.estimate;
      const ratios = [evidence.steps / (told.steps * Math.max(1, excitations.length)), evidence.bytes / told.bytes, evidence.seconds / told.seconds];
      process.stdout.write(
        `${name}: real over told: steps ${ratios[0].toFixed(2)}, bytes ${ratios[1].toFixed(2)}, seconds ${ratios[2].toFixed(2)}\n`,
      );
      for (const ratio of ratios) expect([name, ratio > 0.5, ratio < 2]).toEqual([name, true, true]);
    }
  }, 60_000);
});
