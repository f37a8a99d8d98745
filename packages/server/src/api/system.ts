import { machineSchema } from '@jadebell/api';
import { materialSchema } from '@jadebell/core/document';
import { coreVersion } from '@jadebell/core/version';
import { thisMachine } from '@jadebell/node';
import { z } from 'zod';
import { FactRow, RunRow } from '../db/models.ts';
import type { RunQueue } from '../queue/queue.ts';
import { storedList } from '../db/stored.ts';
import { type Route, route } from './route.ts';
import { runViews } from './runs.ts';

/** Fact under which the user's materials are kept. */
const ownMaterials = 'materials';
/** Milliseconds between two messages about the same run. */
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
      const waiting = new Map<string, NodeJS.Timeout>();
      const send = async (id: string): Promise<void> => {
        waiting.delete(id);
        const row = await RunRow.findByPk(id);
        response.write(
          row ? `event: run\ndata: ${JSON.stringify((await runViews([row], queue))[0])}\n\n` : `event: gone\ndata: ${JSON.stringify(id)}\n\n`,
        );
      };
      const onRun = (id: string): void => {
        if (!waiting.has(id))
          waiting.set(
            id,
            setTimeout(() => void send(id).catch(() => undefined), quiet),
          );
      };
      const beat = setInterval(() => response.write(': still here\n\n'), 20_000);
      queue.on('run', onRun);
      await new Promise<void>((resolve) => request.once('close', resolve));
      queue.off('run', onRun);
      clearInterval(beat);
      waiting.forEach(clearTimeout);
      response.end();
    },
  }),
];
