import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { emptyProject, type Project, solvedDigest } from '@jadebell/core/document';
import { abs, type Complex, div, sub } from '@jadebell/core/numerics';
import { readTouchstone } from '@jadebell/core/formats';
import request from 'supertest';
import { smallDipole, type TestDatabase, testDatabase } from './database.testing.ts';
import { type Running, startServer } from './start.ts';

interface View {
  id: string;
  state: string;
  number: number;
  progress: { turn: number } | null;
  problems: { message: string; fix: string; place: { part: string } }[];
  meta: { evidence: { steps: number; ended: string } } | null;
}

let database: TestDatabase;
let server: Running;

const config = (): Parameters<typeof startServer>[0] => ({
  port: 0,
  database: { port: database.port, password: database.password, name: 'jadebell' },
  log: 'error',
});

/** A guided port on the end of a body that is all metal: only the grid tells that no wave fits in. */
const shortedGuide = (): Project => {
  const p = emptyProject('Shorted');
  p.lines = [
    { kind: 'box', name: 'air', material: 'Air', size: ['20 mm', '10 mm', '30 mm'], anchor: 'centre', at: ['0 mm', '0 mm', '0 mm'] },
    { kind: 'box', name: 'plug', material: 'Copper', size: ['20 mm', '10 mm', '6 mm'], anchor: 'centre', at: ['0 mm', '0 mm', '-12 mm'] },
  ] as Project['lines'];
  p.ports = [{ kind: 'guide-face', name: 'in', face: 'air.zmin', modes: '1', shift: '0 mm' }];
  p.recorders = [];
  p.recordAt = [];
  p.boundaries = { xMin: 'electric', xMax: 'electric', yMin: 'electric', yMax: 'electric', zMin: 'electric', zMax: 'electric' };
  p.solve = { ...p.solve, accuracy: 'draft', from: '9 GHz', to: '11 GHz', points: 11 };
  return p;
};

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
  database = await testDatabase(14471);
  server = await startServer(config());
});
afterAll(async () => {
  await server?.close();
  await database?.close();
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
    expect(shape.body.problems[0].place).toMatchObject({ part: 'lines', name: 'number 1' });
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
    expect(read.references).toEqual([[50, 0]]);
    // The same load seen from 100 ohm: z is what it was.
    const other = readTouchstone((await api().get(`/api/runs/${body.id}/files/touchstone?reference=100`).expect(200)).text, 1);
    expect(other.references).toEqual([[100, 0]]);
    const seen = (v: Complex, r: number): number => r * abs(div([1 + v[0], v[1]], sub([1, 0], v)));
    other.s[0][0].forEach((v, f) => expect(seen(v, 100) / seen(read.s[0][0][f], 50)).toBeCloseTo(1, 6));
    // A dipole of this length resonates in the band: deep reflection minimum, and nowhere above one.
    const size = read.s[0][0].map((v) => abs(v));
    expect(Math.min(...size)).toBeLessThan(0.35);
    expect(Math.max(...size)).toBeLessThan(1);
    // It has a name, a note and a star of its own.
    const told = { name: 'the first', note: 'made for the flat case', starred: true };
    await api().put(`/api/runs/${body.id}/told`).send(told).expect(200);
    await api().put(`/api/runs/${body.id}/told`).send({ name: ' the only one ' }).expect(200);
    expect((await api().get(`/api/runs/${body.id}`)).body).toMatchObject({ ...told, name: 'the only one' });
    await api()
      .put(`/api/runs/${body.id}/told`)
      .send({ name: 'x'.repeat(61) })
      .expect(400);
    const far = await api().get(`/api/runs/${body.id}/arrays/farField`).buffer(true).expect(200);
    expect(JSON.parse(far.headers['x-shape'])).toEqual([1, 37, 72, 4]);
    expect(far.body).toHaveLength(37 * 72 * 4 * 8);
    const part = await api().get(`/api/runs/${body.id}/arrays/farField?from=10&count=5`).buffer(true).expect(200);
    expect(part.body).toEqual(far.body.subarray(80, 120));
    expect((await api().get(`/api/runs/${body.id}/files/pattern`).expect(200)).text.split('\r\n')).toHaveLength(37 * 72 + 2);
    // The shelf draws the newest result from few of its numbers: no dip is lost.
    const { body: sketch } = (await api().get(`/api/projects/${id}/sketch`).expect(200)) as {
      body: { run: number; curves: { name: string; y: number[] }[] };
    };
    expect(sketch).toMatchObject({ run: 1, curves: [{ name: 'S11' }] });
    expect(Math.min(...sketch.curves[0].y)).toBeCloseTo(20 * Math.log10(Math.min(...size)), 5);
    // Facts that were damaged are told with the run; the list and the other runs stand.
    const { RunRow } = await import('./db/models.ts');
    await RunRow.update({ meta: '{"format":"jadebell-result","version":3}', parameters: '[{]' }, { where: { id: body.id } });
    const [hurt] = (await api().get(`/api/projects/${id}/runs`).expect(200)).body as (View & { parameters: unknown[] })[];
    expect(hurt).toMatchObject({ meta: null, parameters: [], problems: [{ message: expect.stringContaining('damaged at solver') }] });
  });

  test('keep the errors of a project away from the queue', async () => {
    const bad = smallDipole();
    bad.parameters[0].expression = '60';
    const { id } = await add(bad);
    const { body } = await api().post(`/api/projects/${id}/runs`).send({ document: bad }).expect(422);
    expect(body.problems[0]).toMatchObject({ code: 'expression.wrong-unit', place: { part: 'lines', name: 'left', chip: 'size.0' } });
    expect((await api().get(`/api/projects/${id}/runs`)).body).toEqual([]);
  });

  test('refuse a model that no memory holds', async () => {
    const huge = smallDipole();
    huge.parameters[0].expression = '60 km';
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
    two.solve = { ...two.solve, details: { ...two.solve.details, stopAt: 1e-10 } };
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
    long.solve = { ...long.solve, details: { ...long.solve.details, stopAt: 1e-12 } };
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

describe('lists and numbers', () => {
  test('runs that are added at once get numbers of their own', async () => {
    const { id } = await add(smallDipole());
    const document = smallDipole();
    const answers = await Promise.all([1, 2, 3, 4].map(() => api().post(`/api/projects/${id}/runs`).send({ document })));
    expect(answers.map((a) => a.status)).toEqual([201, 201, 201, 201]);
    expect(answers.map((a) => (a.body as View).number).sort()).toEqual([1, 2, 3, 4]);
    for (const { body } of answers) await api().post(`/api/runs/${(body as View).id}/stop`);
    for (const { body } of answers) await until((body as View).id, (r) => !['queued', 'running'].includes(r.state));
  }, 120_000);

  test('the shelf tells notes without reading documents, and runs their accuracy', async () => {
    const { ProjectRow } = await import('./db/models.ts');
    const { id } = await add({ ...smallDipole(), title: 'Noted', note: 'by the reed line' });
    // A document that cannot be parsed does not stand in the way of the list.
    await ProjectRow.update({ document: '{' }, { where: { id } });
    const { body } = (await api().get('/api/projects').expect(200)) as { body: { id: string; note?: string; title: string }[] };
    expect(body.find((p) => p.id === id)).toMatchObject({ title: 'Noted', note: 'by the reed line' });
    await api().put(`/api/projects/${id}/folder`).send({ folder: '  Field days ' }).expect(204);
    await api()
      .put(`/api/projects/${id}/folder`)
      .send({ folder: 'x'.repeat(61) })
      .expect(400);
    const moved = ((await api().get('/api/projects')).body as (typeof body)[number][]).find((p) => p.id === id);
    expect(moved).toEqual({ ...body.find((p) => p.id === id), folder: 'Field days' });
    expect((await api().get(`/api/projects/${id}/sketch`).expect(200)).body).toBeNull();
    await api().delete(`/api/projects/${id}`);
  });

  test('a save answers before its picture is drawn, on another thread, and the last state is what is drawn', async () => {
    const { id, revision } = await add(emptyProject('Drawn later'));
    let now = revision;
    for (const arm of ['10 mm', '20 mm', '30 mm']) {
      const document = { ...smallDipole(), parameters: [{ name: 'arm', expression: arm }] };
      now = ((await api().put(`/api/projects/${id}`).send({ revision: now, document }).expect(200)).body as { revision: number }).revision;
    }
    const drawn = (await api().get(`/api/projects/${id}/picture.svg`)).body.toString() as string;
    const alone = await add({ ...smallDipole(), parameters: [{ name: 'arm', expression: '30 mm' }] });
    expect(drawn).toContain('<polygon');
    expect(drawn).toBe((await api().get(`/api/projects/${alone.id}/picture.svg`)).body.toString());
  });

  test('a run is refused for what only its grid shows, as on the command line, and names that stand twice for a save too', async () => {
    const { checkProject } = await import('@jadebell/core/solvers');
    const { loadGeometryKernel } = await import('@jadebell/core/geometry');
    const { denseKernel } = await import('@jadebell/core/solvers/modes');
    const { nodeHost, thisMachine } = await import('@jadebell/node');
    const document = shortedGuide();
    const { id, revision } = await add(document);
    const answer = await api().post(`/api/projects/${id}/runs`).send({ document }).expect(422);
    const kernel = async () => denseKernel((await nodeHost(1)).module);
    const told = (await checkProject(document, thisMachine(), await loadGeometryKernel(), kernel)).problems;
    const errors = told.filter((p) => p.severity === 'error');
    expect(errors.map((p) => p.code)).toEqual(['port.shorted']);
    expect(answer.body.problems).toEqual(errors);
    const twice = { ...smallDipole(), parameters: [{ name: 'arm', expression: '1 mm' }, { name: 'arm', expression: '2 mm' }] }; // prettier-ignore
    expect((await api().put(`/api/projects/${id}`).send({ revision, document: twice }).expect(422)).body.problems[0].code).toBe('name.twice');
    expect((await api().post(`/api/projects/${id}/runs`).send({ document: twice }).expect(422)).body.problems[0].code).toBe('name.twice');
  });
});

test('the password file can be read by its owner only', async () => {
  const { statSync } = await import('node:fs');
  expect(statSync(join(database.folder, 'password')).mode & 0o077).toBe(0);
  expect(readFileSync(join(database.folder, 'password'), 'utf8')).toHaveLength(48);
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
  // One that is damaged does not take the others with it.
  const { FactRow } = await import('./db/models.ts');
  await FactRow.upsert({ name: 'materials', value: JSON.stringify([{ name: 7 }, reed]) });
  expect((await api().get('/api/materials')).body).toEqual([reed]);
});

describe('studies', () => {
  type Points = { points: { values: Record<string, number>; digest: string; run: { id: string; projectId: string; state: string } | null }[] };
  const wire = (title: string, values: string[]): Project =>
    ({
      ...emptyProject(title),
      parameters: [{ name: 'long', expression: '100 mm' }],
      lines: [{ kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: 'long', radius: '0.5 mm', at: ['0 mm', '0 mm', '0 mm'] }],
      ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '73 ohm' }],
      recorders: [],
      recordAt: [],
      solve: { solver: 'moment', from: '1 GHz', to: '2 GHz', points: 51, accuracy: 'draft' },
      measures: [{ name: 'tuned', quantity: 's', take: 'where-least' }, { name: 'gain', quantity: 'gain', take: 'most' }],
      studies: [{ name: 'lengths', moves: [{ parameter: 'long', how: 'list', values }] }],
    }) as unknown as Project; // prettier-ignore
  const of = async (id: string): Promise<Points['points']> =>
    ((await api().get(`/api/projects/${id}/studies/lengths`).expect(200)).body as Points).points;
  const states = async (id: string): Promise<(string | undefined)[]> => (await of(id)).map((p) => p.run?.state);
  const settled = async (id: string): Promise<void> => {
    for (let i = 0; i < 600; i++) {
      if (!(await states(id)).some((s) => s === 'queued' || s === 'running')) return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('The study did not end.');
  };
  const runsOf = async (id: string): Promise<number> => ((await api().get(`/api/projects/${id}/runs`)).body as unknown[]).length;

  test('points are solved once each, whichever project asks, and measures are read from them', async () => {
    const first = await add(wire('Rod', ['80 mm', '100 mm', '0.1 m']));
    const before = await of(first.id);
    expect(before.map((p) => p.run)).toEqual([null, null, null]);
    expect(before[1].digest).toBe(before[2].digest);
    await api().post(`/api/projects/${first.id}/studies/lengths/runs`).expect(201);
    await api().post(`/api/projects/${first.id}/studies/lengths/runs`).expect(201);
    await settled(first.id);
    expect(await states(first.id)).toEqual(['done', 'done', 'done']);
    expect(await runsOf(first.id)).toBe(2);
    const { body } = await api().get(`/api/projects/${first.id}/studies/lengths/measures`).expect(200);
    const read = body as { digest: string; measures: { name: string; value: number | null; unit: string; why?: string }[] }[];
    expect(read.map((r) => r.digest)).toEqual(before.map((p) => p.digest));
    const tuned = read.map((r) => r.measures[0].value!);
    expect(tuned[1]).toBe(tuned[2]);
    expect(tuned[0]).toBeGreaterThan(1.1 * tuned[1]);
    expect(read[0].measures).toMatchObject([{ name: 'tuned', unit: 'Hz' }, { name: 'gain', value: null, why: 'The result has no gain.' }]); // prettier-ignore
    // Measures are read once; a curve of each point, and what all cost.
    expect((await api().get(`/api/projects/${first.id}/studies/lengths/measures`)).body).toEqual(read);
    const curves = (await api().get(`/api/projects/${first.id}/studies/lengths/curves`).query({ quantity: 's', form: 'magnitude' }).expect(200)).body as { unit: string; over: string; curves: { digest: string; x: number[]; y: number[] }[] }; // prettier-ignore
    expect(curves).toMatchObject({ unit: '', over: 'frequency' });
    expect(curves.curves.map((c) => [c.digest, c.x.length, c.y.every((v) => v > 0 && v < 1)])).toEqual(before.map((p) => [p.digest, 51, true]));
    const none = await api().get(`/api/projects/${first.id}/studies/lengths/curves`).query({ quantity: 'gain' }).expect(200);
    expect(none.body).toMatchObject({ curves: [], missing: before.map(({ digest }) => ({ digest, why: 'The result has no gain.' })) });
    const cost = (await api().get(`/api/projects/${first.id}/studies/lengths/cost`).expect(200)).body as { seconds: number; dearest: { at: number; seconds: number }; faults: [] }; // prettier-ignore
    expect(cost.faults).toEqual([]);
    expect(cost.seconds).toBeGreaterThan(cost.dearest.seconds);
    expect(cost.seconds).toBeLessThanOrEqual(3 * cost.dearest.seconds);
    expect(((await api().get(`/api/projects/${first.id}/runs`)).body as { study: string }[]).map((r) => r.study)).toEqual(['lengths', 'lengths']);
    // A copy under another title, with one length more.
    const copy = await add({ ...wire('Rod once more', ['100 mm', '90 mm']), note: 'a copy' });
    expect((await of(copy.id))[0].run).toMatchObject({ projectId: first.id, state: 'done' });
    await api().post(`/api/projects/${copy.id}/studies/lengths/runs`).expect(201);
    await settled(copy.id);
    expect(await runsOf(copy.id)).toBe(1);
  }, 120_000);

  test('the mesh is made finer, and what a measure comes to is told with the error of each', async () => {
    const moves = [{ parameter: 'solve.finer', how: 'list', values: ['1', '2', '4'] }];
    const { id } = await add({ ...wire('Meshes', ['1 mm']), studies: [{ name: 'lengths', moves }] } as unknown as Project);
    const limit = async () => (await api().get(`/api/projects/${id}/studies/lengths/limit`).query({ measure: 'tuned' }).expect(200)).body as { parameter: string; sizes: number[]; figures: number[]; limit: { value: number; errors: number[] } | null }; // prettier-ignore
    expect((await limit()).limit).toBeNull();
    await api().post(`/api/projects/${id}/studies/lengths/runs`).expect(201);
    await settled(id);
    const found = await limit();
    expect(found).toMatchObject({ parameter: 'solve.finer', sizes: [0.25, 0.5, 1] });
    expect(Math.abs(found.limit!.value - found.figures[0])).toBeLessThanOrEqual(found.limit!.errors[0]);
    await api().get(`/api/projects/${id}/studies/lengths/limit`).query({ measure: 'charm' }).expect(404);
  }, 60_000);

  test('wait behind runs that were asked for by themselves, and are stopped together', async () => {
    const rods = wire('Rods', Array.from({ length: 60 }, (_, n) => `${70 + n} mm`)); // prettier-ignore
    // Of so many frequencies that they are not all done before the next thing is asked.
    const { id } = await add({ ...rods, solve: { ...rods.solve, points: 8001 } });
    await api().post(`/api/projects/${id}/studies/lengths/runs`).expect(201);
    const { body: single } = (await api()
      .post(`/api/projects/${id}/runs`)
      .send({ document: { ...wire('Alone', ['1 mm']), solve: { ...wire('', ['1 mm']).solve, points: 21 } } })
      .expect(201)) as { body: View };
    await until(single.id, (r) => r.state === 'done');
    expect((await states(id)).filter((s) => s === 'queued').length).toBeGreaterThan(3);
    await api().post(`/api/projects/${id}/studies/lengths/stop`).expect(202);
    await settled(id);
    expect((await states(id)).filter((s) => s === 'stopped').length).toBeGreaterThan(3);
    // What was stopped is asked for again.
    await api().post(`/api/projects/${id}/studies/lengths/runs`).expect(201);
    expect((await states(id)).every((s) => s === 'done' || s === 'queued' || s === 'running')).toBe(true);
    await api().post(`/api/projects/${id}/studies/lengths/stop`).expect(202);
    await settled(id);
  }, 120_000);

  test('a search asks for points until its goals are met, is stopped, and goes on from what is there', async () => {
    const goals = [{ measure: 'tuned', aim: 'equal', value: '1.6 GHz', within: '1 MHz', weight: 1 }];
    const bounds = [{ parameter: 'long', from: '70 mm', to: '130 mm' }];
    const searches = [
      { name: 'tune', bounds, goals, points: 40 },
      { name: 'vain', bounds, goals: [{ ...goals[0], within: '1 Hz' }], method: 'evolution', points: 2000 },
      { name: 'wrong', bounds, goals: [{ ...goals[0], measure: 'charm' }] },
    ];
    // With other frequencies than before, so that no run of another project stands for its points.
    const base = wire('Tuned', ['80 mm', '90 mm', '110 mm', '120 mm']);
    const variants = [{ name: 'long_one', values: [{ parameter: 'long', expression: '120 mm' }], muted: [] }];
    const { id } = await add({ ...base, solve: { ...base.solve, points: 61 }, searches, variants } as unknown as Project);
    type Searched = { going: boolean; ended: string | null; best: number | null; solved: number; tried: { values: { long: number }; digest: string; reads: { value: number }[]; run: { state: string } }[]; open: unknown[] }; // prettier-ignore
    const see = async (name: string): Promise<Searched> => (await api().get(`/api/projects/${id}/searches/${name}`).expect(200)).body as Searched;
    const seen = async (name: string, so: (s: Searched) => boolean): Promise<Searched> => {
      for (let i = 0; i < 600; i++) {
        const now = await see(name);
        if (so(now)) return now;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
      throw new Error(`The search ${name} did not come so far.`);
    };
    expect(await see('tune')).toMatchObject({
      going: false,
      ended: null,
      best: null,
      solved: 0,
      open: [{ run: null }, { run: null }, { run: null }, { run: null }],
    });
    await api().post(`/api/projects/${id}/searches/tune/start`).expect(202);
    const done = await seen('tune', (s) => s.ended !== null);
    expect(done).toMatchObject({ going: false, ended: 'goals', open: [] });
    const best = done.tried[done.best!];
    expect(Math.abs(best.reads[0].value - 1.6e9)).toBeLessThan(1e6);
    expect(done.tried.every((t) => t.run.state === 'done')).toBe(true);
    expect(await runsOf(id)).toBe(done.solved);
    const curves = await api().get(`/api/projects/${id}/searches/tune/curves`).query({ quantity: 's' }).expect(200);
    expect((curves.body as { curves: { digest: string }[] }).curves.map((c) => c.digest)).toEqual(done.tried.map((t) => t.digest));
    // The project as it stands was where the search began; its variant has not been solved.
    const { body: kinds } = await api().get(`/api/projects/${id}/variants`).expect(200);
    expect(kinds).toMatchObject([{ name: '', run: { state: 'done' }, measures: [{ name: 'tuned', unit: 'Hz' }, { name: 'gain', value: null }] }, { name: 'long_one', run: null, measures: [] }]); // prettier-ignore
    // One that is stopped keeps what it has, and goes on with other points.
    await api().post(`/api/projects/${id}/searches/vain/start`).expect(202);
    await seen('vain', (s) => s.solved >= 1);
    await api().post(`/api/projects/${id}/searches/vain/stop`).expect(202);
    const stopped = await seen('vain', (s) => !s.going);
    expect(stopped.ended).toBeNull();
    await api().post(`/api/projects/${id}/searches/vain/start`).expect(202);
    const more = await seen('vain', (s) => s.solved > stopped.solved);
    expect(more.tried.slice(0, stopped.tried.length).map((t) => t.digest)).toEqual(stopped.tried.map((t) => t.digest));
    await api().post(`/api/projects/${id}/searches/vain/stop`).expect(202);
    // What is solved tells which parameter matters: a resonance falls by as many per cent as the wire grows.
    const influence = async (): Promise<{ points: number; influence: { unit: string; each: { parameter: string; first: number; percent: number }[] } | null }> => (await api().get(`/api/projects/${id}/studies/lengths/influence`).query({ measure: 'tuned' }).expect(200)).body as never; // prettier-ignore
    expect((await influence()).influence).toBeNull();
    await api().post(`/api/projects/${id}/studies/lengths/runs`).expect(201);
    await settled(id);
    const matters = await influence();
    expect(matters).toMatchObject({ points: 4, influence: { unit: 'Hz', each: [{ parameter: 'long' }] } });
    const [only] = matters.influence!.each;
    expect(Math.abs(only.first - 1)).toBeLessThan(0.02);
    expect(Math.abs(only.percent / -14.2e6 - 1)).toBeLessThan(0.1);
    await api().get(`/api/projects/${id}/studies/lengths/influence`).query({ measure: 'charm' }).expect(404);
    // What may come of it: each of its lengths is as likely, so the least and largest resonance are those of its ends.
    const { body: may } = await api().get(`/api/projects/${id}/studies/lengths/tolerance`).expect(200);
    expect(may).toMatchObject({ figures: [{ measure: 'tuned', unit: 'Hz', spread: { points: 4, checked: null } }, { measure: 'gain', spread: null, fewest: 4 }], goals: [], kept: null, centre: null }); // prettier-ignore
    // It is no study of meshes.
    await api().get(`/api/projects/${id}/studies/lengths/limit`).query({ measure: 'tuned' }).expect(422);
    const lengths = (may as { figures: { spread: { worst: { values: { long: number } }[] } }[] }).figures[0].spread.worst.map((w) => w.values.long);
    expect(lengths[0]).toBeGreaterThan(lengths[1]);
    const refused = await api().post(`/api/projects/${id}/searches/wrong/start`).expect(422);
    expect(refused.body).toMatchObject({ detail: 'There is no measure named charm.' });
    await api().get(`/api/projects/${id}/searches/none`).expect(404);
  }, 120_000);

  test('that make no sense are refused with the reason', async () => {
    const { id } = await add(wire('Wrong', ['80']));
    await api().get(`/api/projects/${id}/studies/widths`).expect(404);
    const refused = await api().post(`/api/projects/${id}/studies/lengths/runs`).expect(422);
    expect(refused.body).toMatchObject({ detail: 'long is a length, and ‘80’ is a plain number.', problems: [{ place: { part: 'studies', name: 'lengths', chip: 'moves.0.values.0' } }] }); // prettier-ignore
    expect(await runsOf(id)).toBe(0);
  });
});

test('a database of the first version is brought up: notes, accuracies, parameters, and results of version 2', async () => {
  const { connect } = await import('./db/connect.ts');
  const { migrations } = await import('./db/migrations.ts');
  await server.close();
  const empty = await connect(config());
  for (const table of ['facts', 'chunks', 'runs', 'projects', 'SequelizeMeta']) await empty.query(`DROP TABLE \`${table}\``);
  await empty.close();
  const made = await connect(config(), migrations.slice(0, 1));
  const now = '2026-01-01 00:00:00.000';
  const [project, run] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222'];
  const { parameters: givens, ...same } = smallDipole();
  const document = JSON.stringify({ ...same, version: 1, givens, note: 'kept since then', solve: { ...same.solve, accuracy: 'certain' } });
  const problems = JSON.stringify([{ severity: 'warning', code: 'w', place: { part: 'givens', name: 'arm' }, message: 'm', fix: 'f' }]);
  const meta = JSON.stringify({ format: 'jadebell-result', version: 2, solver: 'fdtd', ports: [{ name: 'feed', resistance: 50 }], excitations: [0], recordAt: [1e9], farField: null, fieldPlanes: [{ name: 'cut', normal: 2, at: 5e-3, u: 0, v: 1 }], fluxes: [{ name: 'up', normal: 2, at: 0, power: [0.5] }], evidence: { steps: 1, ended: 'decayed' } }); // prettier-ignore
  await made.query('INSERT INTO projects (id, title, revision, document, picture, createdAt, updatedAt) VALUES (?, ?, 1, ?, ?, ?, ?)', { replacements: [project, 'Old', document, '', now, now] }); // prettier-ignore
  await made.query('INSERT INTO runs (id, projectId, number, state, document, givens, meta, problems, createdAt) VALUES (?, ?, 1, ?, ?, ?, ?, ?, ?)', { replacements: [run, project, 'done', document, JSON.stringify([{ name: 'arm', expression: '60 mm', si: 0.06, measure: 'length' }]), meta, problems, now] }); // prettier-ignore
  await made.close();
  server = await startServer(config());
  expect(((await api().get('/api/projects')).body as unknown[])[0]).toMatchObject({ id: project, note: 'kept since then', runs: 1 });
  const { body } = await api().get(`/api/runs/${run}`);
  const { RunRow } = await import('./db/models.ts');
  expect((await RunRow.findByPk(run))!.digest).toBe(solvedDigest({ ...smallDipole(), solve: { ...smallDipole().solve, accuracy: 'adaptive' } }));
  expect(body).toMatchObject({
    accuracy: 'adaptive',
    meta: { version: 3 },
    parameters: [{ name: 'arm', si: 0.06 }],
    problems: [{ place: { part: 'parameters', name: 'arm' } }],
  });
  for (const where of [`projects/${project}`, `runs/${run}/document`]) {
    const read = (await api().get(`/api/${where}`)).body as { document?: Project } & Project;
    expect(read.document ?? read).toMatchObject({ version: 3, parameters: [{ name: 'arm', expression: '60 mm' }], solve: { accuracy: 'adaptive' } });
  }
  expect((body as { meta: { recorded: object[] } }).meta.recorded).toEqual([
    { kind: 'field-plane', name: 'cut', normal: 2, at: 5e-3, u: 0, v: 1 },
    { kind: 'flux', name: 'up', normal: 2, at: 0, power: [0.5] },
  ]);
});
