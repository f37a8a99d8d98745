import { beforeAll, describe, expect, test } from '@jest/globals';
import { type ResultSet, sCurve } from '@jadebell/core/results';
import { cautionsOf } from '@jadebell/core/reading';
import type { GridScene } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import type { TimeEvidence } from '@jadebell/core/methods';
import { abs, sub } from '@jadebell/core/numerics';
import { plainBody } from '@jadebell/verification/bench';
import { cutoff, narrow as b, tube, wide as a } from '@jadebell/verification/nearCutoff';
import { buildGrid } from '@jadebell/core/grid';
import { Space } from '@jadebell/core/solvers/fdtd/parts';
import { nodeHost, thisMachine } from './index.ts';

let host: SolverHost;
beforeAll(async () => {
  host = await nodeHost();
});

const solve = (scene: GridScene): Promise<ResultSet<TimeEvidence>> => solvers.fdtd.solve(scene, { host });
const worst = (p: ResultSet, q: ResultSet): number =>
  Math.max(...[0, 1].flatMap((to) => sCurve(p.arrays.s, to, 0).map((v, n) => abs(sub(v, sCurve(q.arrays.s, to, 0)[n])))));

describe('guides whose cutoff lies just below the band', () => {
  test.each([
    [1.02, false],
    [1.05, true],
  ])('from %d cutoffs on, iris %s: the run ends once S is known, and is that of a run many times as long', async (above, iris) => {
    const scene = tube(above, { iris });
    const own = await solve(scene);
    const long = await solve(tube(above, { iris, excite: ['left'], details: { stopAt: 1e-12, maxSteps: 12_000 } }));
    const off = worst(own, long);
    const { evidence } = own.meta;
    const told = solvers.fdtd.plan(scene, { ...thisMachine(), cellsPerSecond: evidence.cellsPerSecond }).ready!.estimate;
    const steps = evidence.steps / 2;
    process.stdout.write(
      `${steps} steps of ${told.maxSteps} at most, ${told.steps} told; energy left ${evidence.residualEnergy.toExponential(1)}; S off by ${off.toExponential(1)}\n`,
    );
    expect(evidence.ended).toBe('settled');
    expect(off).toBeLessThan(1e-4);
    expect(steps).toBeLessThan(0.4 * told.maxSteps);
    expect([steps > told.steps / 2, steps < 2 * told.steps]).toEqual([true, true]);
    // What creeps at the cutoff is no resonance.
    for (const r of evidence.carriedOn!.resonances) expect(Math.abs(r.frequency / cutoff - 1)).toBeGreaterThan(0.03);
    expect(cautionsOf(own.meta)).toEqual([]);
  });

  test('a run does not end while what was sent in is still on its way, though no port sees anything change', async () => {
    const [band, length] = [{ from: 1.35 * cutoff, to: 1.5 * cutoff, points: 5 }, 0.45];
    const { arrays, meta } = await solve({ ...tube(1.35, { length }), band });
    const s = sCurve(arrays.s, 1, 0);
    process.stdout.write(`${meta.evidence.steps / 2} steps along ${length} m: |S| ${s.map((v) => abs(v).toFixed(5)).join(', ')}\n`);
    for (const v of s) expect(Math.abs(abs(v) - 1)).toBeLessThan(1e-3);
    // Beyond a far wall: all comes back.
    const shorted = tube(1.35, { length });
    const back = await solve({ ...shorted, band, guides: [shorted.guides[0]] });
    for (const v of sCurve(back.arrays.s, 0, 0)) expect(Math.abs(abs(v) - 1)).toBeLessThan(1e-3);
  });

  test('nor along a line without a cutoff, on which nothing creeps meanwhile', async () => {
    const walls: GridScene['boundaries'] = ['electric', 'electric', 'magnetic', 'magnetic', 'electric', 'electric'];
    const line = tube(1.3, { length: 0.45, boundaries: walls });
    const [through, back] = [await solve(line), await solve({ ...line, guides: [line.guides[0]] })];
    expect(through.meta.ports[0].family).toBe('TEM');
    for (const v of sCurve(through.arrays.s, 1, 0)) expect(Math.abs(abs(v) - 1)).toBeLessThan(1e-3);
    for (const v of sCurve(back.arrays.s, 0, 0)) expect(Math.abs(abs(v) - 1)).toBeLessThan(1e-3);
    // What was made of space: the way from a port to the farthest place, around a wall that closes half of it.
    const grid = buildGrid(line);
    expect(new Space(line, grid).drawnOut(line.guides)).toBeCloseTo(0.45, 6);
    const wall = plainBody('wall', 0, { name: 'metal', kind: 'conductor' }, { form: 'box', min: [0.1, 0, 0], max: [0.11, a - 1.2e-3, b] });
    const folded = { ...line, bodies: [wall] };
    const far = new Space(folded, buildGrid(folded)).farthest({ ...line.guides[0], max: [0, 1e-3, 1e-3] });
    expect(far).toBeGreaterThan(0.45 + 2 * (a - 2.5e-3));
    expect(far).toBeLessThan(0.45 + 2 * a + b);
  });

  test('fields, which can only be faded out, take their time, and how far off they are is told', async () => {
    const record = (at: number, maxSteps?: number): GridScene =>
      tube(1.02, {
        excite: ['left'],
        recorders: [{ kind: 'field-line', name: 'along', axis: 0, at: [0, a / 2, b / 2], from: 0, to: 30e-3 }],
        recordAt: [at * cutoff],
        details: maxSteps ? { maxSteps } : {},
      });
    const [far, near] = [await solve(record(1.3)), await solve(record(1.02, 1500))];
    process.stdout.write(`fields off by ${far.meta.evidence.fieldsOff}, and beside the cutoff, cut short, by ${near.meta.evidence.fieldsOff}\n`);
    expect(far.meta.evidence.fieldsOff).toBeLessThan(1e-3);
    expect(cautionsOf(far.meta)).toEqual([]);
    expect(near.meta.evidence.fieldsOff).toBeGreaterThan(5e-3);
    expect(cautionsOf(near.meta).join()).toContain('the recorded fields still hold some of what creeps at a cutoff');
    // E of the wave is as strong all along the line.
    const e = far.arrays['line:along'].data;
    const size = Array.from({ length: e.length / 6 }, (_, n) => Math.hypot(e[6 * n + 4], e[6 * n + 5]));
    const inner = size.slice(1, -1);
    expect(Math.max(...inner) / Math.min(...inner)).toBeLessThan(1.005);
  });
});
