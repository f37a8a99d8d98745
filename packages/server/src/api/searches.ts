import { type SearchPlan, type Project } from '@jadebell/core/document';
import { searchViewSchema, studyCurvesSchema, studyParams } from '@jadebell/api';
import type { z } from 'zod';
import { storedDocument } from '../db/stored.ts';
import { pointRun } from '../exploring/pointRuns.ts';
import { rowsOf, type Searches } from '../exploring/searches.ts';
import type { RunQueue } from '../queue/queue.ts';
import { findProject } from './projects.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { curvesOf, curvesQuery, stopRuns } from './studies.ts';

async function findSearch({ id, name }: z.infer<typeof studyParams>): Promise<{ project: Project; plan: SearchPlan }> {
  const project = storedDocument((await findProject(id)).document);
  const plan = project.searches?.find((s) => s.name === name);
  if (!plan) throw notFound('search');
  return { project, plan };
}

/** Routes on the searches of a project as it is stored. */
export const searchRoutes = (queue: RunQueue, searches: Searches): Route[] => {
  const view = async (params: z.infer<typeof studyParams>, go?: boolean): Promise<z.infer<typeof searchViewSchema>> => {
    const { project, plan } = await findSearch(params);
    const search = await searches.of(params.id, project, plan, go);
    const { run, setup } = search;
    const rows = await rowsOf(search);
    return {
      bounded: setup.bounded,
      sought: setup.sought,
      problems: setup.problems,
      going: search.going,
      ended: run.ended,
      best: run.best,
      solved: run.solved,
      tried: run.tried.map((t) => ({
        ...t,
        cost: Number.isFinite(t.cost) ? t.cost : null,
        misses: t.misses.map((m) => (Number.isFinite(m) ? m : null)),
        reads: [...t.reads],
        run: pointRun(rows.get(t.digest)),
      })),
      open: run.open.map((p) => ({ values: p.values, digest: p.digest, run: pointRun(rows.get(p.digest)) })),
    };
  };
  return [
    route({
      method: 'get',
      path: '/projects/{id}/searches/{name}',
      summary: 'A search: what it has tried, its best, what it asks for now; it follows from the runs that are there',
      schemas: { params: studyParams, answer: searchViewSchema },
      handle: ({ params }) => view(params),
    }),
    route({
      method: 'post',
      path: '/projects/{id}/searches/{name}/start',
      summary: 'Have a search ask for its points until it ends or is stopped; they wait behind runs that were asked for by themselves',
      status: 202,
      schemas: { params: studyParams, answer: searchViewSchema },
      async handle({ params }) {
        const { problems } = await view(params);
        const fault = problems.find((p) => p.severity === 'error');
        if (fault) throw new HttpProblem(422, 'The search has errors', fault.message, problems);
        return view(params, true);
      },
    }),
    route({
      method: 'post',
      path: '/projects/{id}/searches/{name}/stop',
      summary: 'Have a search ask no more, and stop its runs; what is done stays',
      status: 202,
      schemas: { params: studyParams },
      async handle({ params }) {
        await view(params, false);
        await stopRuns(queue, params.id, params.name);
      },
    }),
    route({
      method: 'get',
      path: '/projects/{id}/searches/{name}/curves',
      summary: 'A curve of each point of a search that has a result',
      schemas: { params: studyParams, query: curvesQuery, answer: studyCurvesSchema },
      async handle({ params, query }) {
        const { project, plan } = await findSearch(params);
        const search = await searches.of(params.id, project, plan);
        const rows = await rowsOf(search);
        const solved = search.run.tried.flatMap((point) => {
          const run = rows.get(point.digest);
          return run?.state === 'done' ? [{ point, run }] : [];
        });
        return curvesOf(solved, query);
      },
    }),
  ];
};
