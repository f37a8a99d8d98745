import type { Project } from '@jadebell/core/document';
import { exportKinds, type TouchstoneView } from '@jadebell/core/formats';
import { type Complex, readReference, type ResultSet } from '@jadebell/core/results';
import { z } from 'zod';
import { describeArray, loadArray, readArray } from '../db/arrays.ts';
import type { RunRow } from '../db/models.ts';
import { storedMeta } from '../db/stored.ts';
import { fileStem } from './projects.ts';
import { findRun } from './runs.ts';
import { HttpProblem, notFound, type Route, route } from './route.ts';

/**
 * Facts and arrays of a result.
 * @throws HttpProblem where there is none.
 */
export async function loadResult(run: RunRow, names: string[]): Promise<ResultSet> {
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

/** Routes on the results of runs: their numbers, and files made of them. */
export const resultRoutes: Route[] = [
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
