import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { emptyProject, type Project } from '@jadebell/core/document';
import { normalBelow } from '@jadebell/core/searching';
import { main } from './main.ts';

let folder: string;
let said: string[] = [];
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'jadebell-study-'));
  const hear = (text: unknown): boolean => said.push(String(text).trim()) > 0;
  for (const stream of [process.stdout, process.stderr]) jest.spyOn(stream, 'write').mockImplementation(hear);
});
afterAll(() => {
  jest.restoreAllMocks();
  rmSync(folder, { recursive: true, force: true });
});
const told = async (...args: string[]): Promise<{ code: number; text: string }> => {
  said = [];
  const code = await main(args);
  return { code, text: said.join('\n') };
};

/** A dipole of perfect wire whose length and radius move together. */
const dipole = (): Project =>
  ({
    ...emptyProject('Dipole'),
    parameters: [
      { name: 'long', expression: '100 mm' },
      { name: 'thick', expression: 'long / 200' },
    ],
    lines: [{ kind: 'straight-wire', name: 'rod', material: 'Copper', conductor: { as: 'perfect' }, axis: 'z', length: 'long', radius: 'thick', at: ['0 mm', '0 mm', '0 mm'] }],
    ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '73 ohm' }],
    recorders: [],
    recordAt: [],
    solve: { solver: 'moment', from: '1 GHz', to: '2 GHz', points: 501, accuracy: 'normal' },
    measures: [
      { name: 'match', quantity: 's', take: 'least' },
      { name: 'tuned', quantity: 's', take: 'where-least' },
      { name: 'gain', quantity: 'gain', take: 'most' },
    ],
    searches: [
      {
        name: 'tune',
        bounds: [{ parameter: 'long', from: '70 mm', to: '130 mm' }],
        goals: [{ measure: 'tuned', aim: 'equal', value: '1.5 GHz', within: '0.5 MHz' }],
        points: 12,
      },
      { name: 'both', bounds: [{ parameter: 'long', from: '70 GHz', to: '130 mm' }], goals: [] },
    ],
    studies: [
      { name: 'lengths', moves: [{ parameter: 'long', how: 'list', values: ['80 mm', '100 mm', '0.1 m', '120 mm'] }] },
      { name: 'made', moves: [{ parameter: 'long', how: 'normal', by: '1 mm', shift: '3 mm' }], together: 'latin', points: 9, checks: 4, goals: [{ measure: 'tuned', aim: 'equal', value: '1.4 GHz', within: '14 MHz' }] },
      { name: 'meshes', moves: [{ parameter: 'solve.finer', how: 'list', values: ['0.5', '1', '2', '4'] }] },
      { name: 'thin', moves: [{ parameter: 'thick', how: 'list', values: ['0.5 mm', '0 mm'] }] },
    ],
  }) as unknown as Project; // prettier-ignore
const fileOf = (project: Project, name: string): string => {
  const path = join(folder, `${name}.json`);
  writeFileSync(path, JSON.stringify(project));
  return path;
};
const table = (out: string, name: string): string[][] =>
  readFileSync(join(out, name), 'utf8').trim().split('\r\n').map((row) => row.split(',')); // prettier-ignore

test('a study is told with its cost, solved point by point, and gone on with from what is there', async () => {
  const file = fileOf(dipole(), 'dipole');
  const plan = await told('study', file, '--study', 'lengths');
  expect(plan).toMatchObject({ code: 0, text: expect.stringMatching(/^lengths: long from 80 mm to 120 mm, 4 values; 4 points, about \d+ s in all; the longest, long \d+ mm, \d+ s$/) }); // prettier-ignore
  const out = join(folder, 'out');
  expect(await told('study', file, '--study', 'lengths', '--out', out)).toMatchObject({ code: 0, text: expect.stringContaining('4 of 4: long 120 mm: match -') }); // prettier-ignore
  // The same length written in another way is the same point.
  expect(readdirSync(join(out, 'points'))).toHaveLength(3);
  const [heads, ...rows] = table(out, 'dipole-lengths.csv');
  expect(heads).toEqual(['long (m)', 'match (dB)', 'tuned (Hz)', 'gain']);
  // Of one shape in perfect metal: all lengths over the wavelength stay, and so does the match.
  const [first, , , last] = rows.map((r) => r.map(Number));
  for (const [long, match, tuned] of rows.map((r) => r.map(Number))) {
    expect(Math.abs((long * tuned) / (first[0] * first[2]) - 1)).toBeLessThan(2e-4);
    // Beside its least the reflection grows by some 0.06 a percent of frequency, and samples lie 0.2 % apart.
    expect(Math.abs(10 ** (match / 20) - 10 ** (first[1] / 20))).toBeLessThan(6e-3);
  }
  // A thin half-wave dipole resonates at some 0.47 to 0.48 of the wavelength (Balanis, Antenna Theory, 4.5.6).
  expect((last[0] * last[2]) / 299792458).toBeGreaterThan(0.46);
  expect((last[0] * last[2]) / 299792458).toBeLessThan(0.49);
  const json = JSON.parse(readFileSync(join(out, 'dipole-lengths.json'), 'utf8')) as { points: { state: string; measures: Record<string, { why?: string }> }[] }; // prettier-ignore
  expect(json.points.map((p) => p.state)).toEqual(['done', 'done', 'done', 'done']);
  // Nothing was recorded that has a gain.
  expect(json.points[0].measures.gain.why).toBe('The result has no gain.');
  // One more length, and a measure that was not read before: what is there is not solved again.
  const more = dipole();
  (more.studies![0].moves[0] as { values: string[] }).values.push('90 mm');
  more.measures!.push({ name: 'band', quantity: 's', of: '', take: 'width', level: -10, side: 'below' });
  // One that was cut off while it was written is solved again.
  const [broken] = readdirSync(join(out, 'points'));
  const whole = readFileSync(join(out, 'points', broken));
  writeFileSync(join(out, 'points', broken), whole.subarray(0, whole.length / 2));
  const kept = readdirSync(join(out, 'points'))
    .filter((f) => f !== broken)
    .map((f) => [f, readFileSync(join(out, 'points', f)).length]);
  expect((await told('study', fileOf(more, 'dipole'), '--study', 'lengths', '--out', out, '--resume')).code).toBe(0);
  expect(readdirSync(join(out, 'points'))).toHaveLength(4);
  expect(readFileSync(join(out, 'points', broken)).length).toBeGreaterThan(whole.length / 2);
  for (const [f, size] of kept) expect(readFileSync(join(out, 'points', String(f))).length).toBe(size);
  const again = table(out, 'dipole-lengths.csv');
  expect(again.slice(1, 5).map((r) => r.slice(0, 3))).toEqual(rows.map((r) => r.slice(0, 3)));
  expect(again[0][4]).toBe('band (Hz)');
  for (const row of again.slice(1)) expect(Number(row[4])).toBeGreaterThan(5e7);
}, 240_000);

test('a point that cannot be solved says why, and the rest goes on', async () => {
  const out = join(folder, 'thin');
  const { code, text } = await told('study', fileOf(dipole(), 'thin'), '--study', 'thin', '--out', out);
  expect(code).toBe(1);
  expect(text).toMatch(/1 of 2: thick 500 um: match -/);
  expect(text).toMatch(/2 of 2: thick 0 mm: error: line rod/);
  expect(table(out, 'thin-thin.csv').map((r) => r.length)).toEqual([4, 4, 4]);
  expect(JSON.parse(readFileSync(join(out, 'thin-thin.json'), 'utf8')).points[1]).toMatchObject({ state: 'failed', problems: expect.arrayContaining([expect.objectContaining({ code: 'value.not-positive' })]) }); // prettier-ignore
}, 120_000);

test('what is asked wrongly is told', async () => {
  const file = fileOf(dipole(), 'wrong');
  expect(await told('study', file)).toMatchObject({
    code: 2,
    text: expect.stringContaining('study needs --study NAME. There are: lengths, made, meshes, thin.'),
  });
  expect(await told('study', file, '--study', 'widths')).toMatchObject({ code: 2, text: expect.stringContaining('no study named widths') });
  const bare = dipole();
  bare.studies = [
    { name: 'bare', together: 'all', moves: [{ parameter: 'long', how: 'count', from: '80', to: '120', points: 3, spacing: 'linear' }] },
  ];
  expect(await told('study', fileOf(bare, 'bare'))).toMatchObject({ code: 1, text: expect.stringMatching(/study bare, moves\.0\.from: long is a length, and ‘80’ is a plain number\. Give a length, such as 100 mm\./) }); // prettier-ignore
});

test('a search is told, finds the length at which a dipole is tuned to a frequency, and goes on from what is there', async () => {
  const file = fileOf(dipole(), 'rod');
  const plan = await told('search', file, '--search', 'tune');
  expect(plan).toMatchObject({ code: 0, text: expect.stringMatching(/^tune: long from 70 mm to 130 mm; so that tuned equal to 1.5 GHz; at most 12 points, about \d+ s as the project stands$/) }); // prettier-ignore
  const out = join(folder, 'search');
  const done = await told('search', file, '--search', 'tune', '--out', out);
  expect(done).toMatchObject({ code: 0, text: expect.stringMatching(/Ended, as all goals are met\. Best: long \S+ mm, cost 0?\.\d+\.$/) });
  const [heads, ...rows] = table(out, 'rod-tune.csv');
  expect(heads).toEqual(['long (m)', 'tuned (Hz)', 'cost']);
  const [long, tuned, cost] = rows.at(-1)!.map(Number);
  expect(cost).toBeLessThanOrEqual(1);
  expect(Math.abs(tuned - 1.5e9)).toBeLessThanOrEqual(0.5e6);
  // All lengths over the wavelength stay: it is the length of 100 mm and its resonance, brought to 1.5 GHz.
  const hundred = rows.find((r) => Math.abs(Number(r[0]) - 0.1) < 1e-9)!;
  expect(Math.abs((long * tuned) / (0.1 * Number(hundred[1])) - 1)).toBeLessThan(2e-4);
  const files = readdirSync(join(out, 'points'));
  expect(files).toHaveLength(rows.length);
  // What is known is not solved again, and leads to the same.
  rmSync(join(out, 'points', files[0]));
  await told('search', file, '--search', 'tune', '--out', out, '--resume');
  expect(table(out, 'rod-tune.csv')).toEqual([heads, ...rows]);
  expect(await told('search', file)).toMatchObject({ code: 2, text: expect.stringContaining('search needs --search NAME. There are: tune, both.') });
  expect(await told('search', file, '--search', 'both')).toMatchObject({
    code: 1,
    text: expect.stringContaining('long is a length, and ‘70 GHz’ is a frequency.'),
  });
}, 240_000);

test('a length that varies makes the yield of its closed form: resonance is its inverse, as its radius goes along', async () => {
  const out = join(folder, 'made');
  const { code, text } = await told('study', fileOf(dipole(), 'made'), '--study', 'made', '--out', out, '--quiet');
  expect(code).toBe(0);
  const { points, tolerance } = JSON.parse(readFileSync(join(out, 'made-made.json'), 'utf8'));
  expect(points).toHaveLength(13);
  const [product] = points.map((p: { values: { long: number }; measures: { tuned: { value: number } } }) => p.values.long * p.measures.tuned.value);
  const figure = tolerance.figures.find((f: { measure: string }) => f.measure === 'tuned').spread;
  const middle = product / 0.1;
  // Of a normal length of 1 % the frequency deviates by 1 % of what it is in the middle.
  expect(figure.deviation / middle).toBeCloseTo(0.01, 3);
  expect(figure.mean / middle).toBeCloseTo(1, 3);
  expect(figure.worst[0].value / middle).toBeCloseTo(100 / 103, 3);
  expect(figure.checked.error).toBeLessThan(1e6);
  const below = (f: number): number => normalBelow((product / f - 0.1) / 1e-3);
  const exact = below(1.386e9) - below(1.414e9);
  expect(Math.abs(tolerance.kept.share - exact)).toBeLessThan(0.02);
  // The best middle is that at which the goal lies, where nearly 7 in 10 keep it.
  expect(tolerance.centre.values.long).toBeCloseTo(product / 1.4e9, 4);
  expect(tolerance.centre.kept.share).toBeCloseTo(0.68, 1);
  expect(text).toMatch(/yield \d/);
});

test('the mesh is made finer step by step, and the limit of what is read lies within the error that is told of each', async () => {
  const out = join(folder, 'meshes');
  const { code, text } = await told('study', fileOf(dipole(), 'meshes'), '--study', 'meshes', '--out', out, '--quiet');
  expect(code).toBe(0);
  const { points } = JSON.parse(readFileSync(join(out, 'meshes-meshes.json'), 'utf8'));
  const tuned = points.map((p: { measures: { tuned: { value: number } } }) => p.measures.tuned.value);
  // Each mesh is finer than the one before, and changes less.
  const steps = [1, 2, 3].map((i) => Math.abs(tuned[i] - tuned[i - 1]));
  expect(steps[2]).toBeLessThan(steps[0]);
  const [, limit, , errors] = /tuned comes to ([\d.]+) GHz by order ([\d.]+).*?; solve.finer (.*)/.exec(text)!;
  const widest = /0\.500 within ([\d.]+) (k|M)Hz/.exec(errors)!;
  expect(Math.abs(Number(limit) * 1e9 - tuned[0])).toBeLessThan(Number(widest[1]) * (widest[2] === 'M' ? 1e6 : 1e3) + 1e4);
});
