import { describe, expect, test } from '@jest/globals';
import { type ResultSet, sCurve } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { filament, plainBody, plainScene } from '@jadebell/verification/bench';
import type { TimeEvidence } from '@jadebell/core/methods';
import { abs, sub } from '@jadebell/core/numerics';

describe('resonances', () => {
  test('a cavity cut short while it rings gives the S of a run four times as long, and tells its resonances; so does one that ends by itself', async () => {
    const host = await nodeHost();
    const metal = { name: 'metal', kind: 'conductor' } as const;
    const solve = (details: GridScene['details']): Promise<ResultSet<TimeEvidence>> =>
      solvers.fdtd.solve(
        plainScene({
          // A post with a gap at its foot in a closed box, loosely coupled.
          bodies: [plainBody('post', 0, metal, { form: 'box', min: [5e-3, 7e-3, 1e-3], max: [6e-3, 8e-3, 2e-3] })],
          ports: [filament('probe', [5.5e-3, 7.5e-3, 0], 2, 1e-3, 50)],
          min: [0, 0, 0],
          max: [20e-3, 15e-3, 10e-3],
          band: { from: 10e9, to: 14e9, points: 201 },
          boundaries: Array<'electric'>(6).fill('electric'),
          accuracy: 'draft',
          details,
        }),
        { host },
      );
    const short = await solve({ maxSteps: 4000 });
    const long = await solve({ maxSteps: 100_000, stopAt: 1e-11 });
    expect(short.meta.evidence.ended).toBe('steps');
    expect(short.meta.evidence.residualEnergy).toBeGreaterThan(1e-4);
    const usual = await solve({ maxSteps: 100_000 });
    const [s, t] = [short, long].map((r) => sCurve(r.arrays.s, 0, 0));
    const worst = Math.max(...s.map((v, i) => abs(sub(v, t[i]))));
    const { error, resonances } = short.meta.evidence.carriedOn!;
    process.stdout.write(
      `carried on from energy ${short.meta.evidence.residualEnergy.toExponential(1)}: S within ${worst.toExponential(1)}; foretold within ${error.toExponential(1)}; ${resonances.map((r) => `${(r.frequency / 1e9).toFixed(4)} GHz Q ${r.q.toFixed(0)}`).join(', ')}; the long run ended by ${long.meta.evidence.ended}\n`, // prettier-ignore
    );
    expect(worst).toBeLessThan(5e-4);
    expect(usual.meta.evidence.ended).toBe('decayed');
    sCurve(usual.arrays.s, 0, 0).forEach((v, i) => expect(abs(sub(v, t[i]))).toBeLessThan(5e-4));
    // TE101 of the box, 12.491 GHz, is drawn down a little by the post.
    const own = resonances.find((r) => Math.abs(r.frequency / 12.491e9 - 1) < 0.03)!;
    expect(own.q).toBeGreaterThan(30);
    // Nothing is lost in it: |S| is 1.
    for (const v of s) expect(Math.abs(abs(v) - 1)).toBeLessThan(5e-4);
  }, 120_000);
});
