import { type Measure, problemText, type Project, type Study } from '@jadebell/core/document';
import {
  arraysOfCurve,
  askTolerance,
  costOf,
  cubeSpreads,
  edgesOf,
  meshLimit,
  meshMoved,
  placeOf,
  type Plan,
  planStudy,
  type Point,
  type PointCost,
  pointsLookedAt,
  type Read,
  readCurve,
} from '@jadebell/core/exploring';
import { forms } from '@jadebell/core/cards';
import {
  studyCostSchema,
  studyCurvesSchema,
  studyInfluenceSchema,
  studyLimitSchema,
  studyMeasuresSchema,
  studyParams,
  studyToleranceSchema,
  type StudyPoint,
  studyViewSchema,
} from '@jadebell/api';
import { z } from 'zod';
import { RunRow } from '../db/models.ts';
import { storedDocument } from '../db/stored.ts';
import { measured, readingOfRun } from '../exploring/measured.ts';
import { isStanding, pointRun, runsOf } from '../exploring/pointRuns.ts';
import type { ModelService } from '../model/service.ts';
import type { RunQueue } from '../queue/queue.ts';
import { findProject } from './projects.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';
import { addRuns } from './runs.ts';

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

async function viewOf({ plan }: Found): Promise<z.infer<typeof studyViewSchema>> {
  const runs = await runsOf(plan.points.map((p) => p.digest));
  const points = plan.points.map(({ values, digest, check }): StudyPoint => ({
    values,
    digest,
    run: pointRun(runs.get(digest)),
    ...(check ? { check } : {}),
  }));
  return { moved: plan.moved, points, problems: plan.problems };
}

/** Stops the runs of a study or search that wait or are under way. */
export async function stopRuns(queue: RunQueue, projectId: string, study: string): Promise<void> {
  const rows = await RunRow.findAll({ where: { projectId, study, state: ['queued', 'running'] }, attributes: ['id'] });
  // Those that wait first, so that none of them starts meanwhile.
  for (const { id } of rows.toReversed()) await queue.stop(id);
}

/** Points of a study that have a result, with the run that it is of. */
async function solvedPoints({ plan }: Found): Promise<{ point: Point; run: RunRow }[]> {
  const runs = await runsOf(plan.points.map((p) => p.digest));
  return plan.points.flatMap((point) => {
    const run = runs.get(point.digest);
    return run?.state === 'done' ? [{ point, run }] : [];
  });
}

/** Points of a study that have a result, with measures that were read from it. */
async function readPoints(found: Found, measures: readonly Measure[]): Promise<{ point: Point; reads: Read[] }[]> {
  const out: { point: Point; reads: Read[] }[] = [];
  for (const { point, run } of await solvedPoints(found)) out.push({ point, reads: await measured.of(run, measures, point.project) });
  return out;
}

/** Points that are put into the queue at once: others are answered between. */
const together = 100;

/** Of what curves are asked for. */
export const curvesQuery = z.object({ quantity: z.string().max(40), of: z.string().max(300).default(''), form: z.enum(forms).optional() });

/** A curve of each of some results. */
export async function curvesOf(
  solved: readonly { point: Pick<Point, 'digest'>; run: RunRow }[],
  query: z.infer<typeof curvesQuery>,
): Promise<z.infer<typeof studyCurvesSchema>> {
  const out: z.infer<typeof studyCurvesSchema> = { unit: '', over: 'frequency', curves: [], missing: [] };
  for (const { point, run } of solved) {
    const { digest } = point;
    const curve = readCurve(query, await readingOfRun(run, (meta) => arraysOfCurve(query, meta)));
    if ('why' in curve) {
      out.missing.push({ digest, why: curve.why });
      continue;
    }
    Object.assign(out, { unit: curve.unit, over: curve.over });
    out.curves.push({ digest, x: Array.from(curve.x), y: Array.from(curve.y, (v) => (Number.isFinite(v) ? v : null)) });
  }
  return out;
}

/** Routes on the studies of a project as it is stored. */
export const studyRoutes = (queue: RunQueue, models: ModelService): Route[] => [
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
      const runs = await runsOf(found.plan.points.map((p) => p.digest));
      const missing = new Map(found.plan.points.filter((p) => !isStanding(runs.get(p.digest))).map((p) => [p.digest, p.project]));
      const projects = [...missing.values()];
      for (let n = 0; n < projects.length; n += together)
        for (const { id } of await addRuns(params.id, projects.slice(n, n + together), params.name)) queue.wake(id);
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
      await stopRuns(queue, params.id, params.name);
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/cost',
    summary: 'What the points of a study cost: of many those that are looked at, spread over them',
    schemas: { params: studyParams, answer: studyCostSchema },
    async handle({ params }) {
      const { plan } = await findStudy(params);
      const looks: PointCost[] = [];
      for (const at of pointsLookedAt(plan.points)) {
        const { problems, seconds } = await models.check(plan.points[at].project, queue.cellsPerSecond);
        looks.push(seconds === null ? { at, fault: problems.filter((p) => p.severity === 'error').map(problemText)[0] } : { at, seconds });
      }
      return costOf(looks, plan.points.length);
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/measures',
    summary: 'The measures of the project, read from each point of a study that has a result',
    schemas: { params: studyParams, answer: studyMeasuresSchema },
    async handle({ params }) {
      const found = await findStudy(params);
      const read = await readPoints(found, found.project.measures ?? []);
      return read.map(({ point, reads }) => ({ digest: point.digest, measures: reads }));
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/influence',
    summary: 'Which parameters of a study make a measure what it is, by a Gaussian process through its points',
    schemas: { params: studyParams, query: z.object({ measure: z.string().max(40) }), answer: studyInfluenceSchema },
    async handle({ params, query }) {
      const found = await findStudy(params);
      const measure = found.project.measures?.find((m) => m.name === query.measure);
      if (!measure) throw notFound('measure');
      const edges = edgesOf(found.plan.moved);
      const x: number[][] = [];
      const y: number[] = [];
      let unit = '';
      for (const { point, reads } of await readPoints(found, [measure])) {
        const [read] = reads;
        if (read.value === null) continue;
        unit = read.unit;
        x.push(placeOf(edges, point.values));
        y.push(read.value);
      }
      const influence = await models.influence(x, y, cubeSpreads(found.plan.moved, edges));
      return {
        points: y.length,
        influence: influence && {
          ...influence,
          unit,
          each: influence.each.map(({ slope, ...shares }, i) => {
            const { parameter, from, to } = edges[i];
            const percent = (0.01 * Math.abs(from + to)) / 2 / (to - from || 1);
            return { parameter, ...shares, percent: percent ? slope * percent : null };
          }),
        },
      };
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/tolerance',
    summary: 'What parameters that vary make of the measures: yield, spread and worst case by Gaussian processes through the points of a study',
    schemas: { params: studyParams, answer: studyToleranceSchema },
    async handle({ params }) {
      const found = await findStudy(params);
      // Of a study that makes no sense nothing is known.
      if (!found.plan.points.length) throw new HttpProblem(422, 'The study has errors', found.plan.problems.map(problemText)[0], found.plan.problems);
      const { task, tell } = askTolerance(found.project, found.study, found.plan.moved, await readPoints(found, found.project.measures ?? []));
      return tell(await models.tolerance(task));
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/limit',
    summary: 'What a measure comes to on ever finer meshes, of a study in which a setting of Solve moves alone',
    schemas: { params: studyParams, query: z.object({ measure: z.string().max(40) }), answer: studyLimitSchema },
    async handle({ params, query }) {
      const found = await findStudy(params);
      const measure = found.project.measures?.find((m) => m.name === query.measure);
      if (!measure) throw notFound('measure');
      const parameter = meshMoved(found.plan.moved);
      if (!parameter)
        throw new HttpProblem(422, 'No mesh gets finer', 'A study tells a limit where solve.finer, or another setting of Solve, moves alone.');
      return { parameter, ...meshLimit(parameter, measure.name, await readPoints(found, [measure])) };
    },
  }),
  route({
    method: 'get',
    path: '/projects/{id}/studies/{name}/curves',
    summary: 'A curve of each point of a study that has a result',
    schemas: {
      params: studyParams,
      query: curvesQuery,
      answer: studyCurvesSchema,
    },
    async handle({ params, query }) {
      return curvesOf(await solvedPoints(await findStudy(params)), query);
    },
  }),
];
