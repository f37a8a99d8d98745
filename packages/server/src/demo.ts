import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readProject } from '@jadebell/core/document';
import { unpackResult } from '@jadebell/core/results';
import type { Sequelize } from 'sequelize';
import { addProject } from './api/projects.ts';
import { addRun } from './api/runs.ts';
import { storeArrays } from './db/arrays.ts';
import type { Pictures } from './model/pictures.ts';
import { FactRow } from './db/models.ts';

/** Loads the demo projects with their solved runs into a new database; does nothing the next time. */
export async function loadDemo(folder: string, sequelize: Sequelize, pictures: Pictures): Promise<number> {
  if (await FactRow.findByPk('demo-loaded')) return 0;
  const names = (await readdir(folder)).filter((f) => f.endsWith('.json')).sort();
  const solved = await readdir(join(folder, 'results')).catch(() => [] as string[]);
  for (const name of names) {
    const { project, problems } = readProject(await readFile(join(folder, name), 'utf8'));
    if (!project) throw new Error(`${name}: ${problems[0].message}`);
    const row = await addProject(project, pictures);
    const stem = name.replace(/\.json$/, '');
    for (const file of solved.filter((f) => f.startsWith(`${stem}.`) && f.endsWith('.json')).sort()) {
      const { project: model } = readProject(await readFile(join(folder, 'results', file), 'utf8'));
      const result = unpackResult(await readFile(join(folder, 'results', file.replace(/\.json$/, '.zip'))));
      if (!model) continue;
      const run = await addRun(row.id, model);
      await sequelize.transaction((transaction) => storeArrays(run.id, result, transaction));
      await run.update({ state: 'done', meta: JSON.stringify(result.meta), startedAt: run.createdAt, endedAt: run.createdAt });
    }
  }
  await FactRow.upsert({ name: 'demo-loaded', value: new Date().toISOString() });
  return names.length;
}
