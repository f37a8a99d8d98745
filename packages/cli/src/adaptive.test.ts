import { describe, expect, test } from '@jest/globals';
import { evidenceRows } from '@jadebell/core/reading';
import type { ResultSet } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { type Progress, solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { irisReflection } from '@jadebell/verification/modeMatching';

const [width, opening, thickness, height, length] = [15.8e-3, 8e-3, 1e-3, 1.5e-3, 25e-3];
const metal = { name: 'metal', kind: 'conductor' } as const;

/** An inductive iris in the middle of a guide. */
function iris(accuracy: GridScene['accuracy'], change?: number): GridScene {
  const side = (n: number, from: number, to: number) => plainBody(`side ${n}`, n, metal, { form: 'box', min: [from, -1, (length - thickness) / 2], max: [to, 1, (length + thickness) / 2] }); // prettier-ignore
  return plainScene({
    bodies: [side(0, -1, -opening / 2), side(1, opening / 2, 1)],
    ports: [],
    guides: ([1, -1] as const).map((into, i) => ({ name: `port${i + 1}`, order: i, normal: 2, into, min: [-width / 2, 0, i * length], max: [width / 2, height, i * length], modes: 1, shift: 0 })), // prettier-ignore
    excite: ['port1'],
    min: [-width / 2, 0, 0],
    max: [width / 2, height, length],
    band: { from: 11.5e9, to: 15e9, points: 8 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy,
    details: change === undefined ? {} : { change },
  });
}

/** Largest error of |S11| against mode matching. */
function error({ arrays }: ResultSet): number {
  return Array.from(arrays.frequency.data).reduce((worst, f, i) => {
    const size = Math.hypot(arrays.s.data[4 * i], arrays.s.data[4 * i + 1]);
    return Math.max(worst, Math.abs(size - Math.hypot(...irisReflection({ width, openings: [opening], thickness, cavities: [] }, f))));
  }, 0);
}

describe('adaptive accuracy', () => {
  test('refines until S changes by less than asked, tells each pass, and comes closer to the reference', async () => {
    const host = await nodeHost();
    const seen: Progress[] = [];
    const once = await solvers.fdtd.solve(iris('normal'), { host });
    const result = await solvers.fdtd.solve(iris('adaptive', 0.01), { host, onProgress: (p) => seen.push(p) });
    const passes = result.meta.evidence.passes!;
    process.stdout.write(`passes ${JSON.stringify(passes)}, error ${error(once).toFixed(4)} once, ${error(result).toFixed(4)} after them\n`);
    expect(passes.length).toBeGreaterThan(2);
    expect(passes[0].change).toBeNull();
    expect(result.meta.evidence.asked).toBe(0.01);
    const rows = Object.fromEntries(evidenceRows(result.meta));
    expect(rows['adaptive accuracy']).toMatch(
      /^\d passes to [\d,]+ cells: the last changed the result by 0\.\d+; 0\.0[01]\d* is to come .* Below 0\.01 was asked for, and is reached\.$/,
    );
    expect(result.arrays['pass:1'].shape).toEqual(result.arrays.s.shape);
    for (const p of passes.slice(-2)) expect(p.change).toBeLessThan(0.01);
    for (let n = 1; n < passes.length; n++) expect(passes[n].cells / passes[n - 1].cells).toBeGreaterThan(1.6);
    expect(error(result)).toBeLessThan(0.01);
    expect(error(result)).toBeLessThan(error(once));
    expect(seen.every((p) => p.pass! >= 1 && p.pass! <= passes.length)).toBe(true);
  }, 200_000);

  test('a run stopped by hand gives what was finished', async () => {
    const host = await nodeHost();
    const stop = new AbortController();
    const result = await solvers.fdtd.solve(iris('adaptive', 1e-4), { host, signal: stop.signal, onProgress: (p) => p.pass! >= 2 && stop.abort() });
    // The second pass may have been too quick to be seen, but hardly the fifth.
    expect(result.meta.evidence.passes!.length).toBeLessThan(8);
    expect(result.meta.evidence.ended).not.toBe('stopped');
    expect(error(result)).toBeLessThan(0.05);
  }, 200_000);
});
