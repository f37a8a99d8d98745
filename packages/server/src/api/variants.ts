import { digester, withVariant } from '@jadebell/core/document';
import { idParams, variantsSchema } from '@jadebell/api';
import type { z } from 'zod';
import { storedDocument } from '../db/stored.ts';
import { measured } from '../exploring/measured.ts';
import { pointRun, runsOf } from '../exploring/pointRuns.ts';
import { findProject } from './projects.ts';
import { type Route, route } from './route.ts';

/** Routes on the variants of a project as it is stored. */
export const variantRoutes: Route[] = [
  route({
    method: 'get',
    path: '/projects/{id}/variants',
    summary: 'The project as it stands and each of its variants, with the runs that stand for them and the measures of those',
    schemas: { params: idParams, answer: variantsSchema },
    async handle({ params }) {
      const project = storedDocument((await findProject(params.id)).document);
      const digestOf = digester();
      const all = [{ name: '', project }, ...(project.variants ?? []).map((v) => ({ name: v.name, project: withVariant(project, v) }))].map((v) => ({
        ...v,
        digest: digestOf(v.project),
      }));
      const runs = await runsOf(all.map((v) => v.digest));
      const out: z.infer<typeof variantsSchema> = [];
      for (const { name, digest, project: own } of all) {
        const run = runs.get(digest);
        out.push({ name, digest, run: pointRun(run), measures: run?.state === 'done' ? await measured.of(run, project.measures ?? [], own) : [] });
      }
      return out;
    },
  }),
];
