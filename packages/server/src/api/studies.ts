import { type Project, type Study } from '@jadebell/core/document';
import { arraysOfMeasure, type Plan, planStudy, readingOf, readMeasure } from '@jadebell/core/exploring';
import { evaluateParameters } from '@jadebell/core/expressions';
import { studyMeasuresSchema, studyParams, type StudyPoint, studyViewSchema } from '@jadebell/api';
import type { z } from 'zod';
import { RunRow } from '../db/models.ts';
import { storedDocument } from '../db/stored.ts';
import type { RunQueue } from '../queue/queue.ts';
import { findProject } from './projects.ts';
import { loadResult } from './results.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { addRun } from './runs.ts';

interface Found {
  project: Project;
  study: Study;
  plan: Plan;
}

async function findStudy({ id, name }: z.infer<typeof studyParams>): Promise<Found> {
  const project = storedDocument((await findProject(id)).document);
  const study = project.studies?.find((s) => s.name === name);
  if (!study) throw notFound('study');
  return { project, study, plan: planStudy(project, study) };
}

/** Of states that a run of a point may have, those with a result or on the way to one, the best first. */
const standing = ['done', 'running', 'queued'] as const;

/** The run that stands for each digest: a result where there is one, of whatever project and study; else one that will be, else the newest. */
async function runsOf(plan: Plan): Promise<Map<string, RunRow>> {
  const rows = await RunRow.findAll({
    where: { digest: plan.points.map((p) => p.digest) },
    attributes: ['id', 'projectId', 'number', 'state', 'digest', 'study', 'problems', 'startedAt', 'endedAt'],
    order: [['createdAt', 'ASC']],
  });
  const rank = (r: RunRow): number => {
    const at = (standing as readonly string[]).indexOf(r.state);
    return at < 0 ? standing.length : at;
  };
  const best = new Map<string, RunRow>();
  for (const row of rows) {
    const known = best.get(row.digest!);
    if (!known || rank(row) <= rank(known)) best.set(row.digest!, row);
  }
  return best;
}

async function viewOf({ plan }: Found): Promise<z.infer<typeof studyViewSchema>> {
  const runs = await runsOf(plan);
  const points = plan.points.map(({ values, digest }): StudyPoint => {
    const run = runs.get(digest);
    return { values, digest, run: run ? { id: run.id, projectId: run.projectId, number: run.number, state: run.state } : null };
  });
  return { moved: plan.moved, points, problems: plan.problems };
}

/** Routes on the studies of a project as it is stored. */
export const studyRoutes = (queue: RunQueue): Route[] => [
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}',
    summary: 'Points of a study with the runs that stand for them, of whatever project: a point is known by a digest of what it solves',
    schemas: { params: studyParams, answer: studyViewSchema },
    handle: async ({ params }) => viewOf(await findStudy(params)),
  }),
  route({
    method: 'post',
    path: '/projects/{id}/studies/{name}/runs',
    summary: 'Queue a run for each point that has no result and none on the way; they wait behind runs that were asked for by themselves',
    status: 201,
    schemas: { params: studyParams, answer: studyViewSchema },
    async handle({ params }) {
      const found = await findStudy(params);
      const fault = found.plan.problems.find((p) => p.severity === 'error');
      if (fault) throw new HttpProblem(422, 'The study has errors', fault.message, found.plan.problems);
      const runs = await runsOf(found.plan);
      const asked = new Set<string>();
      for (const { digest, project } of found.plan.points) {
        const run = runs.get(digest);
        if (asked.has(digest) || (run && (standing as readonly string[]).includes(run.state))) continue;
        asked.add(digest);
        queue.wake((await addRun(params.id, project, params.name)).id);
      }
      return viewOf(found);
    },
  }),
  route({
    method: 'post',
    path: '/projects/{id}/studies/{name}/stop',
    summary: 'Stop the runs of a study that wait or are under way; what is done stays',
    status: 202,
    schemas: { params: studyParams },
    async handle({ params }) {
      const rows = await RunRow.findAll({ where: { projectId: params.id, study: params.name, state: ['queued', 'running'] }, attributes: ['id'] });
      // Those that wait first, so that none of them starts meanwhile.
      for (const { id } of rows.toReversed()) await queue.stop(id);
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/measures',
    summary: 'The measures of the project, read from each point of a study that has a result',
    schemas: { params: studyParams, answer: studyMeasuresSchema },
    async handle({ params }) {
      const { project, plan } = await findStudy(params);
      const measures = project.measures ?? [];
      const runs = await runsOf(plan);
      const out: z.infer<typeof studyMeasuresSchema> = [];
      for (const { digest, project: point } of plan.points) {
        const run = runs.get(digest);
        if (run?.state !== 'done') continue;
        const { meta } = await loadResult(await run.reload(), []);
        const { arrays } = await loadResult(run, [...new Set(measures.flatMap((m) => arraysOfMeasure(m, meta)))]);
        const reading = readingOf({ meta, arrays });
        const scope = evaluateParameters(point);
        out.push({ digest, measures: measures.map((m) => readMeasure(m, reading, scope)) });
      }
      return out;
    },
  }),
];
