import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { emptyProject } from '@jadebell/core/document';
import { randomOf } from '@jadebell/core/searching';
import { thorough } from '@jadebell/verification/thorough';
import { type TestDatabase, testDatabase } from './database.testing.ts';

let database: TestDatabase;
let server: ChildProcess | null = null;
let address = '';

/** Starts the server as the start command does, in a process that can be killed. */
async function start(): Promise<void> {
  const env = { ...process.env, JADEBELL_PORT: '14811', JADEBELL_DB_PORT: String(database.port), JADEBELL_DB_PASSWORD: database.password };
  server = spawn(process.execPath, ['packages/node/dist/server.mjs'], { env, stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
  address = await new Promise((resolve, reject) => {
    server!.once('message', (m: { address: string }) => resolve(m.address));
    server!.once('exit', () => reject(new Error('The server did not start.')));
  });
}
/** Ends a process as a power cut does. */
async function kill(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
}
async function ask<T>(method: string, path: string, body?: unknown): Promise<T> {
  const answer = await fetch(`${address}/api${path}`, { method, headers: { 'Content-Type': 'application/json' }, ...(body ? { body: JSON.stringify(body) } : {}) }); // prettier-ignore
  return (await answer.json()) as T;
}

beforeAll(async () => {
  database = await testDatabase(14821);
}, 120_000);
afterAll(async () => {
  if (server) await kill(server);
  await database.close();
}, 60_000);

/** A study of so many wires, of so many frequencies that a point takes a while. */
const study = (points: number, frequencies: number) => ({
  ...emptyProject('Kills'),
  parameters: [{ name: 'long', expression: '100 mm' }],
  lines: [{ kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: 'long', radius: '0.5 mm', at: ['0 mm', '0 mm', '0 mm'] }],
  ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '73 ohm' }],
  recorders: [],
  recordAt: [],
  solve: { solver: 'moment', from: '1 GHz', to: '9 GHz', points: frequencies, accuracy: 'fine' },
  studies: [{ name: 'lengths', moves: [{ parameter: 'long', how: 'count', from: '60 mm', to: '140 mm', points }] }],
}); // prettier-ignore

interface Run {
  state: string;
  number: number;
}

/** Kills server or database at random moments while a study goes on, so many times at most, and looks at what came of its points. */
async function survives(points: number, frequencies: number, most: number): Promise<void> {
  const random = randomOf(most);
  const killed = { server: 0, database: 0 };
  await start();
  const { id } = await ask<{ id: string }>('POST', '/projects', { document: study(points, frequencies) });
  await ask('POST', `/projects/${id}/studies/lengths/runs`);
  const runs = (): Promise<Run[]> => ask<Run[]>('GET', `/projects/${id}/runs`);
  const over = (r: Run): boolean => r.state !== 'queued' && r.state !== 'running';
  while (killed.server + killed.database < most && !(await runs()).every(over)) {
    await sleep(100 + 900 * random());
    if ((killed.server + killed.database) % 3 < 2) {
      killed.server++;
      await kill(server!);
      await start();
    } else {
      killed.database++;
      process.kill(Number(readFileSync(join(database.folder, 'mysql', 'own.pid'), 'utf8')), 'SIGKILL');
      await database.restart(() => sleep(500 * random()));
      // The queue waits for the database by itself, the page's questions do not.
      for (let i = 0; i < 100 && !Array.isArray(await runs().catch(() => null)); i++) await sleep(100);
    }
  }
  for (let i = 0; i < 1200 && !(await runs()).every(over); i++) await sleep(100);
  const all = await runs();
  const states = [...new Set(all.map((r) => r.state))].map((s) => `${all.filter((r) => r.state === s).length} ${s}`);
  process.stdout.write(`killed the server ${killed.server} times and the database ${killed.database} times: ${states.join(', ')} of ${points}\n`);
  expect(killed.server + killed.database).toBeGreaterThan(0);
  // Each point has one run, which is done: none is lost, none stuck, none solved twice.
  expect(all).toHaveLength(points);
  expect(states).toEqual([`${points} done`]);
  const { points: view } = await ask<{ points: { run: Run | null }[] }>('GET', `/projects/${id}/studies/lengths`);
  expect(new Set(view.map((p) => p.run?.number)).size).toBe(points);
  await kill(server!);
  server = null;
}

test('a study outlives the end of the server and of the database: each point is solved once', () => survives(10, 6001, 3), 200_000);

thorough('a study outlives fifty such ends', () => survives(300, 10_001, 50), 900_000);
