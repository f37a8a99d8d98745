import { recordedOf, packResult, type ResultMeta, unpackArrays } from '@jadebell/core/results';
import { describe, expect, test } from '@jest/globals';
import type { GridScene } from '@jadebell/core/scene';
import { type Job, solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { plainBody, plainScene } from '@jadebell/verification/bench';

const [a, b, length] = [15.8e-3, 7.9e-3, 24e-3];

/** A guide with a block in it, two modes at each end: four excitations. */
const scene = (more: Partial<GridScene> = {}): GridScene =>
  plainScene({
    bodies: [plainBody('block', 0, { name: 'stuff', kind: 'dielectric', permittivity: 3 }, { form: 'box', min: [10e-3, 2e-3, 0], max: [14e-3, 9e-3, b] })], // prettier-ignore
    ports: [],
    guides: ([1, -1] as const).map((into, i) => ({ name: ['left', 'right'][i], order: i, normal: 0, into, min: [i * length, 0, 0], max: [i * length, a, b], modes: 2, shift: 0 })), // prettier-ignore
    min: [0, 0, 0],
    max: [length, a, b],
    band: { from: 20e9, to: 24e9, points: 9 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy: 'draft',
    recorders: [
      { kind: 'field-plane', name: 'cut', normal: 2, at: b / 2 },
      { kind: 'signal', name: 'point', at: [5e-3, a / 2, b / 2] },
    ],
    recordAt: [22e9],
    details: { cellsPerWavelength: 7, stopAt: 1e-4 },
    ...more,
  });

/** As it comes back from where it was kept. */
const kept = (job: Job): Job => {
  const { beside, arrays } = unpackArrays(
    packResult({ meta: { excited: job.excited, facts: job.facts } as unknown as ResultMeta, arrays: job.arrays }),
  );
  return { ...(beside as Pick<Job, 'excited' | 'facts'>), arrays };
};

describe('excitations as jobs', () => {
  test('a run that goes on solves only what is missing, and gives what the whole run gives', async () => {
    const host = await nodeHost();
    const whole: Job[] = [];
    const full = await solvers.fdtd.solve(scene(), { host, jobs: { have: new Map(), done: (j) => whole.push(kept(j)) } });
    expect(whole.map((j) => j.excited)).toEqual([0, 1, 2, 3]);
    // Stopped while the third was under way: two are kept.
    const stopper = new AbortController();
    const first: Job[] = [];
    const cut = await solvers.fdtd.solve(scene(), {
      host,
      signal: stopper.signal,
      jobs: {
        have: new Map(),
        done(job) {
          first.push(kept(job));
          if (first.length === 2) stopper.abort();
        },
      },
    });
    expect(cut.meta.evidence.ended).toBe('stopped');
    expect(first.map((j) => j.excited)).toEqual([0, 1]);
    const later: number[] = [];
    const rest = await solvers.fdtd.solve(scene(), {
      host,
      jobs: { have: new Map(first.map((j) => [j.excited, j])), done: (j) => later.push(j.excited) },
    });
    expect(later).toEqual([2, 3]);
    expect(Object.keys(rest.arrays).sort()).toEqual(Object.keys(full.arrays).sort());
    for (const name of Object.keys(full.arrays)) expect(rest.arrays[name].data).toEqual(full.arrays[name].data);
    expect(rest.meta).toMatchObject({ excitations: [0, 1, 2, 3], recorded: full.meta.recorded });
    expect(rest.meta.evidence.steps).toBe(full.meta.evidence.steps);
    expect(rest.meta.evidence.ended).toBe(full.meta.evidence.ended);
    // Of another band they are of no use.
    const other: number[] = [];
    await solvers.fdtd.solve(scene({ band: { from: 20e9, to: 24e9, points: 11 } }), { host, jobs: { have: new Map(whole.map((j) => [j.excited, j])), done: (j) => other.push(j.excited) } }); // prettier-ignore
    expect(other).toEqual([0, 1, 2, 3]);
  }, 120_000);

  test('where fields of several waves are added up, those are solved again', async () => {
    const host = await nodeHost();
    const combine = ['left', 'right'].map((port) => ({ port, mode: 1, amplitude: 1, phase: 0 }));
    const jobs: Job[] = [];
    const full = await solvers.fdtd.solve(scene({ combine }), { host, jobs: { have: new Map(), done: (j) => jobs.push(j) } });
    expect(jobs.map((j) => j.excited)).toEqual([1, 3]);
    const again: number[] = [];
    const rest = await solvers.fdtd.solve(scene({ combine }), {
      host,
      jobs: { have: new Map(jobs.map((j) => [j.excited, j])), done: (j) => again.push(j.excited) },
    });
    expect(again).toEqual([]);
    expect(rest.arrays['plane:cut'].data).toEqual(full.arrays['plane:cut'].data);
  }, 120_000);

  test('fields of another excitation than the first are kept with it', async () => {
    const host = await nodeHost();
    const combine = [{ port: 'right', mode: 1, amplitude: 1, phase: 0 }];
    const jobs: Job[] = [];
    const full = await solvers.fdtd.solve(scene({ combine }), { host, jobs: { have: new Map(), done: (j) => jobs.push(kept(j)) } });
    const rest = await solvers.fdtd.solve(scene({ combine }), {
      host,
      jobs: { have: new Map(jobs.map((j) => [j.excited, j])), done: () => undefined },
    });
    expect(recordedOf(rest.meta, 'field-plane')).toEqual(recordedOf(full.meta, 'field-plane'));
    expect(rest.meta.combined).toEqual(full.meta.combined);
    expect(recordedOf(rest.meta, 'signal')).toEqual(recordedOf(full.meta, 'signal'));
    expect(rest.arrays['plane:cut'].data).toEqual(full.arrays['plane:cut'].data);
  }, 120_000);
});
