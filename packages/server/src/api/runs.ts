import { type Project, projectSchema, solvedDigest } from '@jadebell/core/document';
import { evaluateParameters } from '@jadebell/core/expressions';
import { z } from 'zod';
import { removeArrays } from '../db/arrays.ts';
import { countJobs } from '../db/jobs.ts';
import { ProjectRow, RunRow } from '../db/models.ts';
import { storedDocument, storedList, storedMeta } from '../db/stored.ts';
import type { ModelService } from '../model/service.ts';
import type { RunQueue } from '../queue/queue.ts';
import { findProject } from './projects.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { activeRunSchema, idParams, problemItem, runSchema, runTold, type Run } from '@jadebell/api';

/** A run in a list comes without the document it solved. */
export const listed = { exclude: ['document'] };

/** Most runs that may wait at once. */
const longestQueue = 200;

/** What is told of a result whose facts cannot be read. */
const damaged = (message: string): Run['problems'][number] => ({
  severity: 'error',
  code: 'result.damaged',
  place: { part: 'solve' },
  message,
  fix: 'Solve it again; its document is whole.',
});

/** A run as the API shows it. */
export function runView(row: RunRow, queue: RunQueue): Run {
  const { meta, fault } = storedMeta(row.meta);
  return {
    id: row.id,
    projectId: row.projectId,
    number: row.number,
    state: row.state,
    createdAt: row.createdAt.toISOString(),
    startedAt: row.startedAt?.toISOString() ?? null,
    endedAt: row.endedAt?.toISOString() ?? null,
    accuracy: row.accuracy,
    study: row.study,
    name: row.name,
    note: row.note,
    starred: row.starred,
    parameters: storedList(runSchema.shape.parameters.element, row.parameters),
    progress: queue.progress(row.id),
    problems: [...storedList(problemItem, row.problems), ...(fault ? [damaged(fault)] : [])],
    kept: 0,
    meta,
  };
}

/** Runs as the API shows them, with how much is kept of those that could go on. */
export async function runViews(rows: readonly RunRow[], queue: RunQueue): Promise<Run[]> {
  const kept = await countJobs(rows.filter((r) => r.state === 'stopped' || r.state === 'interrupted').map((r) => r.id));
  return rows.map((r) => ({ ...runView(r, queue), kept: kept.get(r.id) ?? 0 }));
}

const parametersOf = (project: Project): Run['parameters'] => {
  const { summary } = evaluateParameters(project);
  return project.parameters.map(({ name, expression }) => ({
    name,
    expression,
    si: summary[name]?.si ?? null,
    measure: summary[name]?.measure ?? '',
  }));
};

/** Parts of a document that are the project's, not the run's. */
const projectsOwn = ['boards', 'data', 'lens', 'measures', 'studies', 'searches', 'variants'] as const;

/** Adds runs of documents at the end of the queue, perhaps as points of a study. */
export async function addRuns(projectId: string, given: readonly Project[], study: string | null = null): Promise<RunRow[]> {
  const rows = given.map((project) => {
    const document = { ...project };
    for (const part of projectsOwn) delete document[part];
    return {
      projectId,
      digest: solvedDigest(document),
      study,
      accuracy: document.solve.accuracy,
      document: JSON.stringify(document),
      parameters: JSON.stringify(parametersOf(document)),
    };
  });
  // Who holds the project's row gives out its numbers: two runs at once get two.
  return RunRow.sequelize!.transaction(async (transaction) => {
    await ProjectRow.findByPk(projectId, { attributes: ['id'], transaction, lock: transaction.LOCK.UPDATE });
    const last = ((await RunRow.max('number', { where: { projectId }, transaction })) as number | null) ?? 0;
    return RunRow.bulkCreate(
      rows.map((row, n) => ({ ...row, number: last + 1 + n })),
      { transaction },
    );
  });
}

/** Adds a run of a document at the end of the queue, perhaps as a point of a study. */
export const addRun = async (projectId: string, project: Project, study: string | null = null): Promise<RunRow> =>
  (await addRuns(projectId, [project], study))[0];

export async function findRun(id: string): Promise<RunRow> {
  const row = await RunRow.findByPk(id);
  if (!row) throw notFound('run');
  return row;
}

/** Routes on runs. */
export const runRoutes = (queue: RunQueue, models: ModelService): Route[] => [
  route({
    method: 'get',
    path: '/projects/{id}/runs',
    summary: 'Runs of a project, newest first',
    schemas: { params: idParams, answer: z.array(runSchema) },
    async handle({ params }) {
      const rows = await RunRow.findAll({ where: { projectId: params.id }, order: [['number', 'DESC']], attributes: listed });
      return runViews(rows, queue);
    },
  }),
  route({
    method: 'post',
    path: '/projects/{id}/runs',
    summary: 'Queue a run of the document as sent',
    status: 201,
    schemas: { params: idParams, body: z.object({ document: projectSchema }), answer: runSchema },
    async handle({ params, body }) {
      const project = await findProject(params.id);
      const found = (await models.check(body.document, queue.cellsPerSecond)).problems.filter((p) => p.severity === 'error');
      if (found.length) throw new HttpProblem(422, 'The project has errors', found[0].message, found);
      if ((await RunRow.count({ where: { state: 'queued', study: null } })) >= longestQueue)
        throw new HttpProblem(429, 'Too many runs wait', `${longestQueue} runs wait already. Let some of them end, or stop them.`);
      const row = await addRun(project.id, body.document);
      queue.wake(row.id);
      return runView(row, queue);
    },
  }),
  route({
    method: 'get',
    path: '/runs/active',
    summary: 'Runs that are queued or under way, in all projects',
    schemas: { answer: z.array(activeRunSchema) },
    async handle() {
      const rows = await RunRow.findAll({ where: { state: ['queued', 'running'] }, order: [['createdAt', 'ASC']], attributes: listed });
      const projects = await ProjectRow.findAll({ where: { id: [...new Set(rows.map((r) => r.projectId))] }, attributes: ['id', 'title'] });
      return rows.map((r) => ({ ...runView(r, queue), title: projects.find((p) => p.id === r.projectId)?.title ?? '' }));
    },
  }),
  route({
    method: 'get',
    path: '/runs/{id}',
    summary: 'One run',
    schemas: { params: idParams, answer: runSchema },
    handle: async ({ params }) => (await runViews([await findRun(params.id)], queue))[0],
  }),
  route({
    method: 'put',
    path: '/runs/{id}/told',
    summary: 'Name, note and star of a run',
    schemas: { params: idParams, body: runTold.partial(), answer: runSchema },
    async handle({ params, body }) {
      const row = await (await findRun(params.id)).update(body);
      queue.emit('run', row.id);
      return (await runViews([row], queue))[0];
    },
  }),
  route({
    method: 'get',
    path: '/runs/{id}/document',
    summary: 'The project as this run solved it',
    schemas: { params: idParams, answer: projectSchema },
    handle: async ({ params }) => storedDocument((await findRun(params.id)).document),
  }),
  route({
    method: 'post',
    path: '/runs/{id}/stop',
    summary: 'Stop a run and keep what it has',
    status: 202,
    schemas: { params: idParams },
    async handle({ params }) {
      await queue.stop((await findRun(params.id)).id);
    },
  }),
  route({
    method: 'post',
    path: '/runs/{id}/again',
    summary: 'Queue the same model once more',
    status: 201,
    schemas: { params: idParams, answer: runSchema },
    async handle({ params }) {
      const old = await findRun(params.id);
      const row = await addRun(old.projectId, storedDocument(old.document));
      queue.wake(row.id);
      return runView(row, queue);
    },
  }),
  route({
    method: 'post',
    path: '/runs/{id}/resume',
    summary: 'Go on with a run that was stopped or interrupted: excitations that were done are not solved again',
    status: 202,
    schemas: { params: idParams, answer: runSchema },
    async handle({ params }) {
      const row = await findRun(params.id);
      if (row.state !== 'stopped' && row.state !== 'interrupted')
        throw new HttpProblem(409, 'Nothing to go on with', 'Only a run that was stopped or interrupted can go on.');
      await removeArrays(row.id);
      await row.update({ state: 'queued', meta: null, problems: null, startedAt: null, endedAt: null });
      queue.wake(row.id);
      return runView(row, queue);
    },
  }),
  route({
    method: 'delete',
    path: '/runs/{id}',
    summary: 'Remove a run and its results',
    schemas: { params: idParams },
    async handle({ params }) {
      const row = await findRun(params.id);
      await queue.abandon(row.id);
      await row.destroy();
      queue.emit('run', row.id);
    },
  }),
];
