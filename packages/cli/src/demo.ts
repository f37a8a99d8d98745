import { mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { packResult } from '@jadebell/core/results';
import { buildScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { applyChanges } from './load.ts';

/** Runs that each demo project is shown with: changes of givens, oldest first. */
const runs: Record<string, Record<string, string>[]> = {
  'tag-868': [{ bend: '30 mm' }, {}],
  'beacon-element': [{}],
  'patch-wall-element': [{ offset: '0.2 * l' }, {}],
};

/** Solves the demo projects anew and writes their results beside them, so that a fresh start has something to read. */
export async function solveDemo(folder: string, print: (line: string) => void): Promise<void> {
  const results = join(folder, 'results');
  await rm(results, { recursive: true, force: true });
  await mkdir(results);
  const host = await nodeHost();
  for (const name of (await readdir(folder)).filter((f) => f.endsWith('.json')).sort()) {
    const stem = name.replace(/\.json$/, '');
    const { project } = readProject(await readFile(join(folder, name), 'utf8'));
    if (!project) throw new Error(`${name} is no project.`);
    for (const [n, set] of (runs[stem] ?? [{}]).entries()) {
      const changed = applyChanges(project, { set }).project;
      const { scene, problems } = buildScene(changed, await loadGeometryKernel());
      if (!scene) throw new Error(`${name}: ${problems[0].message}`);
      const result = await solvers[changed.solve.solver].solve(scene, { host });
      await writeFile(join(results, `${stem}.${n + 1}.json`), `${JSON.stringify(changed, null, 2)}\n`);
      await writeFile(join(results, `${stem}.${n + 1}.zip`), packResult(result));
      print(`${stem} run ${n + 1}: ${result.meta.evidence.seconds.toFixed(1)} s, ${result.meta.evidence.steps} steps`);
    }
  }
}
