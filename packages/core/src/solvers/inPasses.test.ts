import { describe, expect, test } from '@jest/globals';
import type { TimeEvidence } from '../methods/index.ts';
import { resultOf, type ResultSet } from '../results/index.ts';
import { solveInPasses } from './inPasses.ts';
import type { Progress, SolveOptions } from './solver.ts';

/** A result of one port whose S has a size, on so many cells. */
const result = (size: number, cells: number, seconds = 1): ResultSet<TimeEvidence> =>
  resultOf<TimeEvidence>(
    {
      solver: 'fdtd',
      ports: [{ name: 'feed', resistance: 50 }],
      excitations: [0],
      recordAt: [],
      evidence: { cells: [cells, 1, 1], seconds } as TimeEvidence,
    },
    { frequency: { shape: [1], data: Float64Array.of(1e9) }, s: { shape: [1, 1, 1, 2], data: Float64Array.of(size, 0) } },
  );
/** Models are numbers from 0; each pass halves what is wrong. */
const halving = { first: 0, most: 8, next: (n: number) => n + 1, solve: (n: number) => Promise.resolve(result(0.5 + 0.5 ** (n + 1), 100 * 2 ** n)) };
const options = (more: Partial<SolveOptions> = {}): SolveOptions => ({ host: {} as SolveOptions['host'], ...more });

describe('passes on finer and finer models', () => {
  test('end when the result has changed by less than is asked for, twice in a row', async () => {
    const { model, result: found } = await solveInPasses(halving, 0.05, options());
    // Changes are 1/4, 1/8, 1/16, 1/32, 1/64: the last two lie below 0.05.
    const { passes, asked, seconds } = found.meta.evidence;
    expect(passes!.map((p) => p.change)).toEqual([null, 0.25, 0.125, 0.0625, 0.03125, 0.015625]);
    expect(passes!.map((p) => p.cells)).toEqual([100, 200, 400, 800, 1600, 3200]);
    expect([model, asked, seconds]).toEqual([5, 0.05, 6]);
    // S of each pass is kept beside that of the last.
    expect([1, 2, 3, 4, 5].map((n) => found.arrays[`pass:${n}`].data[0])).toEqual([1, 0.75, 0.625, 0.5625, 0.53125]);
    expect(found.arrays['pass:6']).toBeUndefined();
  });

  test('go no further than they may, and where the next model would be too large', async () => {
    const few = await solveInPasses({ ...halving, most: 3 }, 1e-6, options());
    expect(few.result.meta.evidence.passes).toHaveLength(3);
    const large = await solveInPasses({ ...halving, next: (n: number) => (n < 1 ? n + 1 : null) }, 1e-6, options());
    expect([large.model, large.result.meta.evidence.passes!.length]).toEqual([1, 2]);
  });

  test('that are stopped give the last whole one, and its time counts all', async () => {
    const stop = new AbortController();
    const solve = (n: number): Promise<ResultSet<TimeEvidence>> => {
      if (n === 2) stop.abort();
      return halving.solve(n);
    };
    const { model, result: found } = await solveInPasses({ ...halving, solve }, 1e-6, options({ signal: stop.signal }));
    expect([model, found.meta.evidence.passes!.length, found.meta.evidence.seconds]).toEqual([1, 2, 3]);
    expect(found.arrays.s.data[0]).toBe(0.75);
    // Stopped in the first there is none before it: what it has is given.
    stop.abort();
    expect((await solveInPasses(halving, 1e-6, options({ signal: stop.signal }))).model).toBe(0);
  });

  test('tell which pass is under way and what the one before changed; jobs of one are of no use to another', async () => {
    const told: Partial<Progress>[] = [];
    const given: unknown[] = [];
    const solve = (n: number, o: SolveOptions): Promise<ResultSet<TimeEvidence>> => {
      given.push(o.jobs);
      o.onProgress!({ step: 1 } as Progress);
      return halving.solve(n);
    };
    await solveInPasses({ ...halving, most: 3, solve }, 1e-6, options({ jobs: { have: new Map(), done: () => undefined }, onProgress: (p) => told.push(p) })); // prettier-ignore
    expect(told).toEqual([
      { step: 1, pass: 1, change: null },
      { step: 1, pass: 2, change: null },
      { step: 1, pass: 3, change: 0.25 },
    ]);
    expect(given).toEqual([undefined, undefined, undefined]);
  });

  test('without S or a cross-section there is one: nothing could be compared', async () => {
    const bare = result(0, 10);
    delete bare.arrays.s;
    const { result: found } = await solveInPasses({ ...halving, solve: () => Promise.resolve(bare) }, undefined, options());
    expect(found.meta.evidence).toMatchObject({ passes: [{ cells: 10, change: null }], asked: 0.01 });
  });
});
