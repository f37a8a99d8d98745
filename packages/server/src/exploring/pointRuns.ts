import type { StudyPoint } from '@jadebell/api';
import { RunRow } from '../db/models.ts';

/** Of states that a run of a point may have, those with a result or on the way to one, the best first. */
const standing: readonly string[] = ['done', 'running', 'queued'];

/** Whether a run stands for its point: it has a result, or will have one. */
export const isStanding = (run: RunRow | undefined): boolean => run !== undefined && standing.includes(run.state);

/** The run that stands for each digest: a result where there is one, of whatever project and study; else one that will be, else the newest. */
export async function runsOf(digests: readonly string[]): Promise<Map<string, RunRow>> {
  const rows = await RunRow.findAll({
    where: { digest: [...digests] },
    attributes: ['id', 'projectId', 'number', 'state', 'digest', 'study', 'problems', 'startedAt', 'endedAt'],
    order: [['createdAt', 'ASC']],
  });
  const rank = (r: RunRow): number => {
    const at = standing.indexOf(r.state);
    return at < 0 ? standing.length : at;
  };
  const best = new Map<string, RunRow>();
  for (const row of rows) {
    const known = best.get(row.digest!);
    if (!known || rank(row) <= rank(known)) best.set(row.digest!, row);
  }
  return best;
}

/** A run as it is told of a point. */
export const pointRun = (run: RunRow | undefined): StudyPoint['run'] =>
  run ? { id: run.id, projectId: run.projectId, number: run.number, state: run.state } : null;
