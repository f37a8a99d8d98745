import { type Project, projectSchema } from '@jadebell/core/document';
import { evaluateParameters } from '@jadebell/core/expressions';
import { exportKinds, type TouchstoneView } from '@jadebell/core/formats';
import { type Complex, readReference, type ResultSet } from '@jadebell/core/results';
import { z } from 'zod';
import { describeArray, loadArray, readArray, removeArrays } from '../db/arrays.ts';
import { countJobs } from '../db/jobs.ts';
import { ProjectRow, RunRow } from '../db/models.ts';
import { storedDocument, storedList, storedMeta } from '../db/stored.ts';
import type { ModelService } from '../model/service.ts';
import type { RunQueue } from '../queue/queue.ts';
import { fileStem, findProject } from './projects.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { activeRunSchema, idParams, problemItem, runSchema, type Run } from '@jadebell/api';

/** A run in a list comes without the document it solved. */
const listed = { exclude: ['document'] };

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

/** Adds a run of a document at the end of the queue. Boards, lens and data to compare with are the project's, not the run's. */
export async function addRun(projectId: string, { boards: _, data: __, lens: ___, ...document }: Project): Promise<RunRow> {
  const row = {
    projectId,
    accuracy: document.solve.accuracy,
    document: JSON.stringify(document),
    parameters: JSON.stringify(parametersOf(document)),
  };
  // Who holds the project's row gives out its numbers: two runs at once get two.
  return RunRow.sequelize!.transaction(async (transaction) => {
    await ProjectRow.findByPk(projectId, { attributes: ['id'], transaction, lock: transaction.LOCK.UPDATE });
    const last = (await RunRow.max('number', { where: { projectId }, transaction })) as number | null;
    return RunRow.create({ ...row, number: (last ?? 0) + 1 }, { transaction });
  });
}

async function findRun(id: string): Promise<RunRow> {
  const row = await RunRow.findByPk(id);
  if (!row) throw notFound('run');
  return row;
}

async function loadResult(run: RunRow, names: string[]): Promise<ResultSet> {
  const { meta, fault } = storedMeta(run.meta);
  if (fault) throw new HttpProblem(409, 'The result is damaged', fault);
  if (!meta) throw new HttpProblem(409, 'No result yet', 'This run has no result. Wait until it has ended.');
  const arrays: ResultSet['arrays'] = {};
  for (const name of names) {
    const array = await loadArray(run.id, name);
    if (array) arrays[name] = array;
  }
  return { meta, arrays };
}

/** Files that are made of arrays which are the same for all results. */
const fileKinds = exportKinds.filter((k) => k.arrays);

/** One or several 'name:value' of a query; a bare value is that of all. */
function pairs<T>(given: string | string[] | undefined, what: string, read: (text: string) => T | null): Record<string, T> {
  const out: Record<string, T> = {};
  for (const text of given === undefined ? [] : [given].flat()) {
    const cut = text.lastIndexOf(':');
    const value = read(text.slice(cut + 1));
    if (value === null) throw new HttpProblem(422, 'Bad query', `‘${text}’ is no ${what}: write name:value.`);
    out[cut < 0 ? '' : text.slice(0, cut)] = value;
  }
  return out;
}
const several = z.union([z.string().max(120), z.array(z.string().max(120)).max(400)]).optional();

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
      const found = (await models.check(body.document, queue.cellsPerSecond)).filter((p) => p.severity === 'error');
      if (found.length) throw new HttpProblem(422, 'The project has errors', found[0].message, found);
      if ((await RunRow.count({ where: { state: 'queued' } })) >= longestQueue)
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
  route({
    method: 'get',
    path: '/runs/{id}/arrays/{name}',
    summary: 'Numbers of a result, little-endian; from and count select elements. X-Shape and X-Type tell the form.',
    media: 'application/octet-stream',
    schemas: {
      params: z.object({ id: z.uuid(), name: z.string().min(1).max(80) }),
      query: z.object({ from: z.coerce.number().int().min(0).default(0), count: z.coerce.number().int().min(1).optional() }),
    },
    async handle({ params, query, response }) {
      const about = await describeArray(params.id, params.name);
      if (!about) throw notFound('array');
      const size = about.type === 'f4' ? 4 : 8;
      const total = about.shape.reduce((p, n) => p * n, 1);
      const to = Math.min(total, query.from + (query.count ?? total));
      response.set({
        'X-Shape': JSON.stringify(about.shape),
        'X-Type': about.type,
        'Content-Length': String(Math.max(0, to - query.from) * size),
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
      response.type('application/octet-stream');
      for await (const part of readArray(params.id, params.name, query.from * size, to * size))
        if (!response.write(part)) await new Promise((resolve) => response.once('drain', resolve));
      response.end();
    },
  }),
  route({
    method: 'get',
    path: '/runs/{id}/files/{kind}',
    summary: 'A result as a file; of Touchstone: reference=port:ohms and shift=port:metres, several times, gaps=out, version=2',
    media: 'text/plain',
    schemas: {
      params: z.object({ id: z.uuid(), kind: z.enum(fileKinds.map((k) => k.key)) }),
      query: z.object({ reference: several, shift: several, gaps: z.enum(['kept', 'out']).optional(), version: z.enum(['1', '2']).optional() }),
    },
    async handle({ params, query, response }) {
      const run = await findRun(params.id);
      const { title } = JSON.parse(run.document) as Project;
      const kind = fileKinds.find((k) => k.key === params.kind)!;
      const view: TouchstoneView = {
        references: pairs<Complex>(query.reference, 'reference impedance', readReference),
        shifts: pairs(query.shift, 'length in metres', (t) => (t !== '' && Number.isFinite(Number(t)) ? Number(t) : null)),
        ...(query.gaps ? { gaps: query.gaps } : {}),
        ...(query.version ? { version: query.version } : {}),
      };
      const [file] = kind.files({ result: await loadResult(run, [...kind.arrays!]), title, view });
      if (!file) throw notFound('result of that kind');
      response
        .attachment(`${fileStem(title)}-run${run.number}${file.ending}`)
        .type(kind.type)
        .send(await file.write());
    },
  }),
];
