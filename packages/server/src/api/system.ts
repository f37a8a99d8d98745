import { machineSchema } from '@jadebell/api';
import { materialSchema } from '@jadebell/core/document';
import { coreVersion } from '@jadebell/core/version';
import { thisMachine } from '@jadebell/node';
import { z } from 'zod';
import { FactRow, RunRow } from '../db/models.ts';
import type { RunQueue } from '../queue/queue.ts';
import { storedList } from '../db/stored.ts';
import { type Route, route } from './route.ts';
import { listed, runViews } from './runs.ts';

/** Fact under which the user's materials are kept. */
const ownMaterials = 'materials';
/** Milliseconds for which changes are gathered. */
const quiet = 250;

/** Routes on the machine and on what is going on. */
export const systemRoutes = (queue: RunQueue): Route[] => [
  route({
    method: 'get',
    path: '/materials',
    summary: 'Materials that the user keeps in the library, for all projects',
    schemas: { answer: z.array(materialSchema) },
    handle: async () => storedList(materialSchema, (await FactRow.findByPk(ownMaterials))?.value ?? null),
  }),
  route({
    method: 'put',
    path: '/materials',
    summary: 'Replaces the materials that the user keeps in the library',
    schemas: { body: z.array(materialSchema).max(100), answer: z.array(materialSchema) },
    async handle({ body }) {
      await FactRow.upsert({ name: ownMaterials, value: JSON.stringify(body) });
      return body;
    },
  }),
  route({
    method: 'get',
    path: '/machine',
    summary: 'Memory, threads and speed that estimates count with',
    schemas: { answer: machineSchema },
    handle: async () => ({ ...thisMachine(queue.cellsPerSecond), version: coreVersion }),
  }),
  route({
    method: 'get',
    path: '/events',
    summary: 'Server-sent events: ‘run’ with a run whenever it changes, ‘gone’ with its id when it is removed',
    media: 'text/event-stream',
    schemas: {},
    async handle({ request, response }) {
      response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache', 'X-Accel-Buffering': 'no' });
      response.flushHeaders();
      response.write('retry: 1000\n\n');
      const changed = new Set<string>();
      let waiting: NodeJS.Timeout | null = null;
      const tell = (event: string, data: unknown): void => void response.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
      // What changed in a short while is looked up together.
      const send = async (): Promise<void> => {
        waiting = null;
        const ids = [...changed];
        changed.clear();
        const rows = await RunRow.findAll({ where: { id: ids }, attributes: listed });
        const known = new Set(rows.map((r) => r.id));
        for (const id of ids) if (!known.has(id)) tell('gone', id);
        for (const run of await runViews(rows, queue)) tell('run', run);
      };
      const onRun = (id: string): void => {
        changed.add(id);
        waiting ??= setTimeout(() => void send().catch(() => undefined), quiet);
      };
      const beat = setInterval(() => response.write(': still here\n\n'), 20_000);
      queue.on('run', onRun);
      await new Promise<void>((resolve) => request.once('close', resolve));
      queue.off('run', onRun);
      clearInterval(beat);
      if (waiting) clearTimeout(waiting);
      response.end();
    },
  }),
];
