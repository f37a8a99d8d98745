import { mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type Port, type Project, readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { packResult } from '@jadebell/core/results';
import { buildScene } from '@jadebell/core/scene';
import { solverOf } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { makeBuoy } from './buoy.ts';
import { applyChanges } from './load.ts';
import { effortText } from '@jadebell/core/methods';

/** The mast line with lumped ports at the ends of its strip in place of the guided ones. */
const lumped = (project: Project): Project => ({
  ...project,
  ports: ['-l / 2', 'l / 2'].map((x, i): Port => ({ kind: 'path', name: ['left', 'right'][i], from: [x, '0 mm', '0 mm'], to: [x, '0 mm', 'h'], width: 'w', across: 'y', resistance: '50 ohm', gap: 'out' })), // prettier-ignore
});

/** The nest watch patch with a lumped port at the end of its strip, at the board's edge, in place of the guided one. */
const atEdge = (project: Project): Project => {
  const y = '-(l / 2 + run) * sin(turn)';
  return {
    ...project,
    ports: [
      { kind: 'path', name: 'feed', from: ['-side / 2', y, '0 mm'], to: ['-side / 2', y, 'h'], width: 'w50', across: 'y', resistance: '50 ohm' },
    ],
  };
};

/** Runs that each demo project is shown with, oldest first: changes of parameters, or of the project. */
const runs: Record<string, (Record<string, string> | ((p: Project) => Project))[]> = {
  'tag-868': [{ bend: '30 mm' }, {}],
  'beacon-array': [{}],
  'beacon-element': [{}],
  'gauge-feed-guide': [{}],
  'gauge-feed-bend': [{}],
  'gauge-feed-filter': [{}],
  'gauge-feed-horn': [{}],
  'mast-cable': [{}, (p) => ({ ...p, solve: { ...p.solve, excite: ['radio'] } })],
  'mast-line': [lumped, {}],
  'mooring-reflector': [{}],
  'nest-patch': [atEdge, {}],
  'patch-wall-element': [{ inset: '0.2 * l' }, {}],
};

/** Solves the demo projects anew, or one of them, and writes their results beside them, so that a fresh start has something to read. */
export async function solveDemo(folder: string, only: string | undefined, print: (line: string) => void): Promise<void> {
  const results = join(folder, 'results');
  await makeBuoy(folder);
  await mkdir(results, { recursive: true });
  const host = await nodeHost();
  for (const name of (await readdir(folder)).filter((f) => f.endsWith('.json')).sort()) {
    const stem = name.replace(/\.json$/, '');
    if (only !== undefined && only !== stem) continue;
    for (const old of await readdir(results)) if (old.startsWith(`${stem}.`)) await rm(join(results, old));
    const { project } = readProject(await readFile(join(folder, name), 'utf8'));
    if (!project) throw new Error(`${name} is no project.`);
    for (const [n, set] of (runs[stem] ?? []).entries()) {
      const changed = typeof set === 'function' ? set(project) : applyChanges(project, { set }).project;
      const { scene, problems } = buildScene(changed, await loadGeometryKernel());
      if (!scene) throw new Error(`${name}: ${problems[0].message}`);
      const result = await solverOf(scene).solve(scene, { host });
      await writeFile(join(results, `${stem}.${n + 1}.json`), `${JSON.stringify(changed, null, 2)}\n`);
      await writeFile(join(results, `${stem}.${n + 1}.zip`), packResult(result));
      print(`${stem} run ${n + 1}: ${result.meta.evidence.seconds.toFixed(1)} s, ${effortText(result.meta)}`);
    }
  }
}
