import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { emptyProject, type Project } from '@jadebell/core/document';
import { readTouchstone } from '@jadebell/core/formats';
import request from 'supertest';
import { type Running, startServer } from './start.ts';

interface Database {
  port: number;
  password: string;
  stop(): Promise<void>;
}
interface View {
  id: string;
  state: string;
  number: number;
  progress: { turn: number } | null;
  problems: { message: string; fix: string; place: { part: string } }[];
  meta: { evidence: { steps: number; ended: string } } | null;
}

let folder: string;
let database: Database;
let server: Running;

const config = (): Parameters<typeof startServer>[0] => ({
  port: 0,
  database: { port: database.port, password: database.password, name: 'jadebell' },
  log: 'error',
});

/** A small dipole that solves in about a second. */
export function smallDipole(): Project {
  const p = emptyProject('Small dipole');
  p.givens = [{ name: 'arm', expression: '60 mm' }];
  p.lines = [
    {
      kind: 'rectangle',
      name: 'left',
      material: 'Copper',
      plane: 'xy',
      size: ['arm', '8 mm'],
      anchor: 'corner',
      at: ['-arm - 3 mm', '-4 mm', '0 mm'],
    },
    { kind: 'rectangle', name: 'right', material: 'Copper', plane: 'xy', size: ['arm', '8 mm'], anchor: 'corner', at: ['3 mm', '-4 mm', '0 mm'] },
  ];
  p.ports = [{ kind: 'gap', name: 'feed', between: ['left', 'right'], resistance: '50 ohm' }];
  p.recorders.push({ kind: 'field-plane', name: 'cut', normal: 'z', at: '5 mm' });
  p.solve = { ...p.solve, accuracy: 'draft', from: '0.9 GHz', to: '1.4 GHz', points: 51 };
  return p;
}

const api = (): ReturnType<typeof request> => request(server.address);

async function until(id: string, good: (r: View) => boolean): Promise<View> {
  for (let i = 0; i < 600; i++) {
    const { body } = (await api().get(`/api/runs/${id}`)) as { body: View };
    if (good(body)) return body;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('The run did not come to the expected state.');
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jadebell-server-'));
  const scripts = '../../../scripts/database.mjs';
  const { startDatabase } = (await import(scripts)) as { startDatabase(folder: string, port: number): Promise<Database> };
  database = await startDatabase(folder, 14471);
  server = await startServer(config());
});
afterAll(async () => {
  await server?.close();
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const add = async (document: unknown): Promise<{ id: string; revision: number }> => {
  const { body } = (await api().post('/api/projects').send({ document }).expect(201)) as { body: { id: string; revision: number } };
  return body;
};

describe('projects', () => {
  test('are added, changed with a revision, exported and imported again unchanged', async () => {
    const { id, revision } = await add(smallDipole());
    const changed = { ...smallDipole(), title: 'Renamed' };
    await api()
      .put(`/api/projects/${id}`)
      .send({ revision, document: changed })
      .expect(200, { revision: revision + 1 });
    const stale = await api().put(`/api/projects/${id}`).send({ revision, document: changed }).expect(409);
    expect(stale.body).toMatchObject({ status: 409, title: 'Changed elsewhere' });
    const file = await api().get(`/api/projects/${id}/export`).expect(200);
    expect(file.headers['content-disposition']).toContain('renamed.json');
    const again = await add(JSON.parse(file.text));
    const { body } = (await api().get(`/api/projects/${again.id}`)) as { body: { document: Project } };
    expect(body.document).toEqual(changed);
    expect((await api().get(`/api/projects/${id}/picture.svg`)).body.toString()).toContain('<polygon');
  });

  test('refuse what is no project, and say where', async () => {
    const wrong = await api()
      .post('/api/projects')
      .send({ document: { hello: 1 } })
      .expect(422);
    expect(wrong.headers['content-type']).toContain('application/problem+json');
    expect(wrong.body.detail).toContain('not a Jade Bell project');
    const shape = await api()
      .post('/api/projects')
      .send({ document: { ...smallDipole(), lines: [{ kind: 'box' }] } })
      .expect(422);
    expect(shape.body.problems[0].place.chip).toContain('lines.0');
    await api().post('/api/projects').set('Content-Type', 'application/json').send('{nope').expect(400);
    await api().get('/api/projects/not-an-id').expect(400);
    await api().get('/api/projects/7b5aaf0c-0000-4000-8000-000000000000').expect(404);
  });

  test('are refused to other pages and other host names', async () => {
    await api().get('/api/projects').set('Origin', 'http://example.org').expect(403);
    await api().get('/api/projects').set('Host', 'example.org').expect(403);
    await api().get('/api/projects').set('Sec-Fetch-Site', 'cross-site').expect(403);
    await api().get('/api/projects').set('Origin', server.address).expect(200);
  });

  test('OpenAPI describes every route', async () => {
    const { body } = await api().get('/api/openapi.json').expect(200);
    expect(Object.keys(body.paths)).toEqual(expect.arrayContaining(['/api/projects/{id}', '/api/runs/{id}/arrays/{name}', '/api/events']));
    expect(body.paths['/api/projects/{id}'].put.requestBody).toBeDefined();
  });
});

describe('runs', () => {
  test('are solved, stored and read back', async () => {
    const { id } = await add(smallDipole());
    const { body } = (await api().post(`/api/projects/${id}/runs`).send({ document: smallDipole() }).expect(201)) as { body: View };
    const done = await until(body.id, (r) => !['queued', 'running'].includes(r.state));
    expect(done.state).toBe('done');
    const s = await api().get(`/api/runs/${body.id}/files/touchstone`).expect(200);
    const read = readTouchstone(s.text, 1);
    expect(read.frequency).toHaveLength(51);
    expect(read.references).toEqual([{ re: 50, im: 0 }]);
    // The same load seen from 100 ohm: z is what it was.
    const other = readTouchstone((await api().get(`/api/runs/${body.id}/files/touchstone?reference=100`).expect(200)).text, 1);
    expect(other.references).toEqual([{ re: 100, im: 0 }]);
    const seen = (v: { re: number; im: number }, r: number): number => (r * Math.hypot(1 + v.re, v.im)) / Math.hypot(1 - v.re, v.im);
    other.s[0][0].forEach((v, f) => expect(seen(v, 100) / seen(read.s[0][0][f], 50)).toBeCloseTo(1, 6));
    // A dipole of this length resonates in the band: deep reflection minimum, and nowhere above one.
    const size = read.s[0][0].map((v) => Math.hypot(v.re, v.im));
    expect(Math.min(...size)).toBeLessThan(0.35);
    expect(Math.max(...size)).toBeLessThan(1);
    const far = await api().get(`/api/runs/${body.id}/arrays/farField`).buffer(true).expect(200);
    expect(JSON.parse(far.headers['x-shape'])).toEqual([1, 37, 72, 4]);
    expect(far.body).toHaveLength(37 * 72 * 4 * 8);
    const part = await api().get(`/api/runs/${body.id}/arrays/farField?from=10&count=5`).buffer(true).expect(200);
    expect(part.body).toEqual(far.body.subarray(80, 120));
    expect((await api().get(`/api/runs/${body.id}/files/pattern`).expect(200)).text.split('\r\n')).toHaveLength(37 * 72 + 2);
  });

  test('keep the errors of a project away from the queue', async () => {
    const bad = smallDipole();
    bad.givens[0].expression = '60';
    const { id } = await add(bad);
    const { body } = await api().post(`/api/projects/${id}/runs`).send({ document: bad }).expect(422);
    expect(body.problems[0]).toMatchObject({ code: 'expression.wrong-unit', place: { part: 'lines', name: 'left', chip: 'size.0' } });
    expect((await api().get(`/api/projects/${id}/runs`)).body).toEqual([]);
  });

  test('refuse a model that no memory holds', async () => {
    const huge = smallDipole();
    huge.givens[0].expression = '60 km';
    const { id } = await add(huge);
    const { body } = await api().post(`/api/projects/${id}/runs`).send({ document: huge }).expect(422);
    expect(body.problems[0].code).toBe('machine.memory');
    expect(body.problems[0].fix).toContain('wrong unit');
  });

  test('are stopped with what they have, and interrupted by the end of the server', async () => {
    const long = smallDipole();
    long.solve = { ...long.solve, accuracy: 'fine', details: { stopAt: 1e-12 } };
    const { id } = await add(long);
    const first = ((await api().post(`/api/projects/${id}/runs`).send({ document: long })).body as View).id;
    const second = ((await api().post(`/api/projects/${id}/runs`).send({ document: long })).body as View).id;
    const third = ((await api().post(`/api/projects/${id}/runs`).send({ document: smallDipole() })).body as View).id;
    await until(first, (r) => r.state === 'running');
    await api().post(`/api/runs/${first}/stop`).expect(202);
    const stopped = await until(first, (r) => r.state !== 'running');
    expect(stopped.state).toBe('stopped');
    expect(stopped.meta!.evidence.ended).toBe('stopped');
    await until(second, (r) => r.state === 'running');
    await server.close();
    server = await startServer(config());
    expect((await until(second, () => true)).state).toBe('interrupted');
    // The one that waited goes on, and the interrupted one can be run again.
    await until(third, (r) => r.state === 'done');
    const again = (await api().post(`/api/runs/${second}/again`).expect(201)).body as View;
    expect(again.number).toBe(4);
    await api().post(`/api/runs/${again.id}/stop`).expect(202);
    await until(again.id, (r) => r.state === 'stopped');
    await api().delete(`/api/runs/${again.id}`).expect(204);
    await api().get(`/api/runs/${again.id}`).expect(404);
  });

  test('go on where they were when the server ended: an excitation that was done is not solved again', async () => {
    const two = smallDipole();
    two.lines.push(...two.lines.map((l) => ({ ...l, name: `${l.name}2`, at: (l as { at: string[] }).at.map((x, i) => (i === 1 ? '40 mm' : x)) }) as typeof l)); // prettier-ignore
    two.ports.push({ kind: 'gap', name: 'feed2', between: ['left2', 'right2'], resistance: '50 ohm' });
    two.solve = { ...two.solve, details: { stopAt: 1e-12, cellsPerWavelength: 18 } };
    const { body: project } = (await api().post('/api/projects').send({ document: two }).expect(201)) as { body: { id: string } };
    const { body: run } = (await api().post(`/api/projects/${project.id}/runs`).send({ document: two }).expect(201)) as { body: View };
    await until(run.id, (r) => r.progress?.turn === 1);
    await server.close();
    server = await startServer(config());
    const listed = async (): Promise<View & { kept: number }> =>
      ((await api().get(`/api/projects/${project.id}/runs`)) as { body: (View & { kept: number })[] }).body[0];
    expect(await listed()).toMatchObject({ state: 'interrupted', kept: 1 });
    await api().post(`/api/runs/${run.id}/resume`).expect(202);
    const turns = new Set<number>();
    const done = await until(run.id, (r) => {
      if (r.progress) turns.add(r.progress.turn);
      return r.state === 'done';
    });
    expect([...turns]).toEqual([1]);
    expect(done.meta).toMatchObject({ excitations: [0, 1] });
    expect(await listed()).toMatchObject({ state: 'done', kept: 0 });
    // A run that is whole has nothing to go on with.
    await api().post(`/api/runs/${run.id}/resume`).expect(409);
  }, 240_000);

  test('stop though they are just being taken from the queue', async () => {
    const long = smallDipole();
    long.solve = { ...long.solve, details: { stopAt: 1e-12 } };
    const { id } = await add(long);
    for (const delay of [0, 10]) {
      const run = (await api().post(`/api/projects/${id}/runs`).send({ document: long }).expect(201)).body as View;
      await new Promise((resolve) => setTimeout(resolve, delay));
      await api().post(`/api/runs/${run.id}/stop`).expect(202);
      const ended = await until(run.id, (r) => !['queued', 'running'].includes(r.state));
      expect(ended.state).toBe('stopped');
    }
  });
});

test('a project and a run that an older version stored are read with what it left unsaid', async () => {
  const { ProjectRow } = await import('./db/models.ts');
  const { addRun } = await import('./api/runs.ts');
  const box = {
    kind: 'field-box',
    name: 'inside',
    from: ['0 mm', '0 mm', '0 mm'],
    to: ['1 mm', '1 mm', '1 mm'],
    fields: 'e',
    where: 'nodes',
    every: '1',
  };
  const old = { ...smallDipole(), recorders: [box] } as unknown as Project;
  const row = await ProjectRow.create({ title: 'Old', document: JSON.stringify(old), picture: '' });
  const { body } = await api().get(`/api/projects/${row.id}`).expect(200);
  expect(body.document.recorders).toEqual([{ ...box, components: 'all' }]);
  const run = await addRun(row.id, old);
  const solved = (await api().get(`/api/runs/${run.id}/document`).expect(200)).body as Project;
  expect(solved.recorders).toEqual(body.document.recorders);
  await api().post(`/api/runs/${run.id}/stop`).expect(202);
});

test('the password file can be read by its owner only', async () => {
  const { statSync } = await import('node:fs');
  expect(statSync(join(folder, 'password')).mode & 0o077).toBe(0);
  expect(readFileSync(join(folder, 'password'), 'utf8')).toHaveLength(48);
});

test('materials of one’s own are kept for all projects, and nonsense is refused', async () => {
  expect((await api().get('/api/materials')).body).toEqual([]);
  const reed = { name: 'Reed', kind: 'dielectric', permittivity: 2.1, lossTangent: 0.02 };
  expect((await api().put('/api/materials').send([reed])).status).toBe(200);
  const refused = await api()
    .put('/api/materials')
    .send([{ ...reed, permittivity: 0.5 }]);
  expect(refused.status).toBe(400);
  expect(refused.body.detail).toMatch(/permittivity/);
  expect((await api().get('/api/materials')).body).toEqual([reed]);
});
