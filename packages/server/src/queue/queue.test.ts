import { afterAll, beforeAll, beforeEach, afterEach, describe, expect, test } from '@jest/globals';
import type { Problem } from '@jadebell/core/document';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import { addRun } from '../api/runs.ts';
import { loadArray } from '../db/arrays.ts';
import { connect } from '../db/connect.ts';
import { ChunkRow, ProjectRow, RunRow } from '../db/models.ts';
import { smallDipole, type TestDatabase, testDatabase } from '../database.testing.ts';
import { RunQueue } from './queue.ts';

let database: TestDatabase;
let sequelize: Sequelize;
let queue: RunQueue;
const log = pino({ level: 'silent' });

const open = async (limits?: ConstructorParameters<typeof RunQueue>[3]): Promise<void> => {
  queue = new RunQueue(sequelize, log, 100, limits);
  await queue.open();
};

/** A run in the queue, of the small dipole unless something longer is wanted. */
async function add(stopAt?: number, study?: string): Promise<string> {
  const document = smallDipole();
  if (stopAt) document.solve = { ...document.solve, details: { stopAt } };
  const project = await ProjectRow.create({ title: document.title, note: '', document: JSON.stringify(document) });
  const run = await addRun(project.id, document, study);
  queue.wake(run.id);
  return run.id;
}

async function until(id: string, good: (r: RunRow) => boolean): Promise<RunRow> {
  for (let i = 0; i < 600; i++) {
    const run = await RunRow.findByPk(id);
    if (run && good(run)) return run;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('The run did not come to the expected state.');
}
const ended = (id: string): Promise<RunRow> => until(id, (r) => !['queued', 'running'].includes(r.state));
const said = (run: RunRow): string[] => (JSON.parse(run.problems ?? '[]') as Problem[]).map((p) => p.code);

beforeAll(async () => {
  database = await testDatabase(14571);
  sequelize = await connect({ database: { ...database, name: 'jadebell' } });
});
afterAll(async () => {
  await sequelize?.close();
  await database?.close();
});
beforeEach(() => open());
afterEach(() => queue.close());

describe('the queue', () => {
  test('takes the next run when the thread of one is ended from outside, and shows that one as interrupted', async () => {
    const [first, second] = [await add(1e-14), await add()];
    await until(first, (r) => r.state === 'running');
    await queue.abandon(first);
    expect((await ended(first)).state).toBe('interrupted');
    expect((await ended(second)).state).toBe('done');
  });

  test('solves points beside each other, one made ready besides, and a run by itself once those are done', async () => {
    process.env.JADEBELL_THREADS = '2';
    try {
      const points: string[] = [];
      for (let n = 0; n < 4; n++) points.push(await add(1e-4, 'points'));
      const states = async (): Promise<string[]> =>
        Promise.all(points.map(async (id) => (await RunRow.findByPk(id, { attributes: ['state'] }))!.state));
      await until(points[2], (r) => r.state === 'running');
      const alone = await add();
      expect(await states()).toEqual(['running', 'running', 'running', 'queued']);
      // It goes before the last point, which was there sooner, when the others are done, and has all cores.
      await until(alone, (r) => r.state === 'running');
      expect((await states()).slice(2)).toContain('queued');
      for (const id of [...points, alone]) expect((await ended(id)).state).toBe('done');
      const [first, second, , last, own] = (await Promise.all([...points, alone].map((id) => RunRow.findByPk(id)))).map((r) => r!);
      expect(Math.max(+first.startedAt!, +second.startedAt!)).toBeLessThan(Math.min(+first.endedAt!, +second.endedAt!));
      expect(+last.startedAt!).toBeGreaterThanOrEqual(+own.startedAt!);
    } finally {
      delete process.env.JADEBELL_THREADS;
    }
  });

  test('tries points again whose thread or server was ended, but not for ever', async () => {
    const point = await add(1e-5, 'points');
    await until(point, (r) => r.state === 'running');
    await queue.close();
    expect((await RunRow.findByPk(point))!).toMatchObject({ state: 'queued', attempts: 1 });
    await open();
    expect(await ended(point)).toMatchObject({ state: 'done', attempts: 2 });
    // One that was taken so often already stays as it is.
    const bad = await add(1e-7, 'points');
    await until(bad, (r) => r.state === 'running');
    await queue.close();
    await RunRow.update({ state: 'running', attempts: 5 }, { where: { id: bad } });
    await open();
    expect((await ended(bad)).state).toBe('interrupted');
    // What is removed is not.
    const gone = await add(1e-7, 'points');
    await until(gone, (r) => r.state === 'running');
    await queue.abandon(gone);
    expect((await RunRow.findByPk(gone))!.state).toBe('interrupted');
  });

  test('tells of a thread that runs out of memory, and goes on', async () => {
    await queue.close();
    await open({ maxOldGenerationSizeMb: 8 });
    const run = await ended(await add());
    expect(run.state).toBe('failed');
    expect(said(run)).toEqual(['machine.memory']);
    await queue.close();
    await open();
    expect((await ended(await add())).state).toBe('done');
  });

  test('tells of a full disk, keeps nothing half, and goes on when there is room', async () => {
    await sequelize.query(
      "CREATE TRIGGER no_room BEFORE INSERT ON chunks FOR EACH ROW IF NEW.name = 's' THEN SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = 1021, MESSAGE_TEXT = 'Disk full'; END IF",
    );
    const run = await ended(await add()).finally(() => sequelize.query('DROP TRIGGER no_room'));
    expect(run.state).toBe('failed');
    expect(said(run)).toEqual(['machine.disk']);
    expect(await ChunkRow.count({ where: { runId: run.id, name: 'frequency' } })).toBe(0);
    expect((await ended(await add())).state).toBe('done');
  });

  test('keeps what a run found while the database could not be reached', async () => {
    const id = await add();
    await until(id, (r) => r.state === 'running');
    // Longer than the run takes: it ends while nobody is there to keep it.
    await database.restart(() => new Promise((resolve) => setTimeout(resolve, 5000)));
    const run = await ended(id);
    expect(run.state).toBe('done');
    expect((await loadArray(id, 's'))!.shape).toEqual([51, 1, 1, 2]);
    expect((await ended(await add())).state).toBe('done');
  });
});
