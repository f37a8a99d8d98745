import { duplicateNames, emptyProject, type Project, projectSchema, readProjectData } from '@jadebell/core/document';
import { fn, col } from 'sequelize';
import { z } from 'zod';
import { ProjectRow, RunRow } from '../db/models.ts';
import type { Pictures } from '../model/pictures.ts';
import { storedDocument } from '../db/stored.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { folderName, idParams, projectFull, projectSummary, sketchSchema } from '@jadebell/api';
import { sketchOf } from './sketch.ts';

const full = (row: ProjectRow): z.infer<typeof projectFull> => ({
  id: row.id,
  revision: row.revision,
  updatedAt: row.updatedAt.toISOString(),
  document: storedDocument(row.document),
});

export async function findProject(id: string): Promise<ProjectRow> {
  const row = await ProjectRow.findByPk(id);
  if (!row) throw notFound('project');
  return row;
}

/** What a row holds of a document: the whole, and what the shelf tells of it without reading the whole. */
const columns = (document: Project): { title: string; note: string | null; document: string } => ({
  title: document.title,
  note: document.note ?? null,
  document: JSON.stringify(document),
});

/** Stores a new project; its picture follows. */
export async function addProject(document: Project, pictures: Pictures): Promise<ProjectRow> {
  const row = await ProjectRow.create(columns(document));
  pictures.redraw(row.id, document);
  return row;
}

/** Refuses a document in which names stand twice. */
function refuseTwice(document: Project): void {
  const twice = duplicateNames(document);
  if (twice.length) throw new HttpProblem(422, 'Names stand twice', twice[0].message, twice);
}

/** Safe file name from a title. */
export const fileStem = (title: string): string =>
  title
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '') || 'project';

/** Routes on projects. */
export const projectRoutes = (pictures: Pictures): Route[] => [
  route({
    method: 'get',
    path: '/projects',
    summary: 'All projects, newest change first',
    schemas: { answer: z.array(projectSummary) },
    async handle() {
      const rows = await ProjectRow.findAll({
        order: [['updatedAt', 'DESC']],
        attributes: ['id', 'title', 'note', 'folder', 'revision', 'updatedAt'],
      });
      const counts = (await RunRow.findAll({ attributes: ['projectId', [fn('COUNT', col('id')), 'number']], group: ['projectId'] })) as {
        projectId: string;
        number: number;
      }[];
      return rows.map((r) => ({
        id: r.id,
        title: r.title,
        ...(r.note === null ? {} : { note: r.note }),
        revision: r.revision,
        updatedAt: r.updatedAt.toISOString(),
        folder: r.folder,
        runs: Number(counts.find((c) => c.projectId === r.id)?.number ?? 0),
      }));
    },
  }),
  route({
    method: 'post',
    path: '/projects',
    summary: 'Add a project: empty with a title, or from a project file',
    status: 201,
    schemas: { body: z.object({ title: z.string().min(1).max(120).optional(), document: z.unknown().optional() }), answer: projectFull },
    async handle({ body }) {
      if (body.document === undefined) return full(await addProject(emptyProject(body.title ?? 'New project'), pictures));
      const reading = readProjectData(body.document);
      if (!reading.project) throw new HttpProblem(422, 'Not a project', reading.problems[0].message, reading.problems);
      return full(await addProject(reading.project, pictures));
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}',
    summary: 'One project with its document',
    schemas: { params: idParams, answer: projectFull },
    handle: async ({ params }) => full(await findProject(params.id)),
  }),
  route({
    method: 'put',
    path: '/projects/{id}',
    summary: 'Replace a project’s document; the revision must be the one that was read',
    schemas: { params: idParams, body: z.object({ revision: z.int(), document: projectSchema }), answer: z.object({ revision: z.int() }) },
    async handle({ params, body }) {
      refuseTwice(body.document);
      const row = await findProject(params.id);
      const conflict = new HttpProblem(
        409,
        'Changed elsewhere',
        'The project was changed in another window since it was read here. Reload the page to see that change.',
      );
      if (row.revision !== body.revision) throw conflict;
      const [count] = await ProjectRow.update(
        { ...columns(body.document), revision: body.revision + 1 },
        { where: { id: row.id, revision: body.revision } },
      );
      if (!count) throw conflict;
      pictures.redraw(row.id, body.document);
      return { revision: body.revision + 1 };
    },
  }),
  route({
    method: 'put',
    path: '/projects/{id}/folder',
    summary: 'Puts a project into a folder of the shelf; empty: into none',
    schemas: { params: idParams, body: z.object({ folder: folderName }) },
    async handle({ params, body }) {
      const row = await findProject(params.id);
      // Where it stands is no change of the project.
      await row.update({ folder: body.folder }, { silent: true });
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/sketch',
    summary: 'Curves of the newest result, for a small picture; null where there is none',
    schemas: { params: idParams, answer: sketchSchema.nullable() },
    handle: async ({ params }) => sketchOf((await findProject(params.id)).id),
  }),
  route({
    method: 'delete',
    path: '/projects/{id}',
    summary: 'Remove a project with its runs',
    schemas: { params: idParams },
    async handle({ params }) {
      const row = await findProject(params.id);
      const busy = await RunRow.count({ where: { projectId: row.id, state: 'running' } });
      if (busy) throw new HttpProblem(409, 'A run is under way', 'A run of this project is under way. Stop it first, then remove the project.');
      await row.destroy();
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/picture.svg',
    summary: 'A small picture of the model',
    media: 'image/svg+xml',
    schemas: { params: idParams },
    async handle({ params, response }) {
      await pictures.settled(params.id);
      const { picture } = await findProject(params.id);
      response
        .type('image/svg+xml')
        .set('Cache-Control', 'no-cache')
        .send(picture || '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 180"/>');
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/export',
    summary: 'The project as one JSON file',
    media: 'application/json',
    schemas: { params: idParams },
    async handle({ params, response }) {
      const row = await findProject(params.id);
      response
        .attachment(`${fileStem(row.title)}.json`)
        .type('application/json')
        .send(`${JSON.stringify(storedDocument(row.document), null, 2)}\n`);
    },
  }),
];
