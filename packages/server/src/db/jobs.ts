import { packResult, type ResultMeta, unpackArrays } from '@jadebell/core/results';
import type { Job } from '@jadebell/core/solvers';
import { Op, type Transaction } from 'sequelize';
import { chunkBytes } from './arrays.ts';
import { z } from 'zod';
import { ChunkRow } from './models.ts';

const jobFacts = z.object({ excited: z.int(), facts: z.unknown() });

/** Names of what is kept of the excitations that a run has done. */
const ofJobs = { [Op.like]: 'job:%' };

/** Keeps one excitation that is done, so that a run that is stopped can go on. */
export async function storeJob(runId: string, job: Job): Promise<void> {
  const bytes = packResult({ meta: { excited: job.excited, facts: job.facts } as unknown as ResultMeta, arrays: job.arrays });
  const name = `job:${job.excited}`;
  await ChunkRow.destroy({ where: { runId, name } });
  for (let part = 0; part * chunkBytes < bytes.length; part++)
    await ChunkRow.create({
      runId,
      name,
      part,
      type: 'z1',
      shape: '[]',
      data: Buffer.from(bytes.subarray(part * chunkBytes, (part + 1) * chunkBytes)),
    });
}

/** Excitations of a run that are done. */
export async function loadJobs(runId: string): Promise<Job[]> {
  const rows = await ChunkRow.findAll({ where: { runId, name: ofJobs }, order: [['name', 'ASC'], ['part', 'ASC']] }); // prettier-ignore
  return [...new Set(rows.map((r) => r.name))].map((name) => {
    const { beside, arrays } = unpackArrays(new Uint8Array(Buffer.concat(rows.filter((r) => r.name === name).map((r) => r.data))));
    return { ...jobFacts.parse(beside), arrays };
  });
}

/** How many excitations of each run are done and kept. */
export async function countJobs(runIds: readonly string[]): Promise<Map<string, number>> {
  const rows = runIds.length ? await ChunkRow.findAll({ where: { runId: [...runIds], name: ofJobs, part: 0 }, attributes: ['runId'] }) : [];
  const out = new Map<string, number>();
  for (const { runId } of rows) out.set(runId, (out.get(runId) ?? 0) + 1);
  return out;
}

/** Removes them, once the run is whole. */
export const removeJobs = (runId: string, transaction?: Transaction): Promise<number> =>
  ChunkRow.destroy({ where: { runId, name: ofJobs }, ...(transaction ? { transaction } : {}) });
