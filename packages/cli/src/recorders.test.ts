import { describe, expect, test } from '@jest/globals';
import type { Point3 } from '@jadebell/core/document';
import type { SceneRecorder } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { discretise } from '../../core/src/solvers/fdtd/discretise.ts';
import { planRecording } from '../../core/src/solvers/fdtd/recorders.ts';
import { plainBody, plainScene } from '../../core/src/verification/bench.ts';

const [a, b, length] = [20e-3, 5e-3, 30e-3];
const f0 = 10e9;
const rectangle = (name: string, z: number, x0: number, x1: number, sign: 1 | -1 = 1): SceneRecorder => ({ kind: 'flux', name, normal: 2, sign, min: [x0, 0, z] as Point3, max: [x1, b, z] as Point3 }); // prettier-ignore

describe('recorders', () => {
  test('power through rectangles is what goes into a guide, in what lies between is lost, and by symmetry half in half of it', async () => {
    const lossy = { name: 'lossy', kind: 'dielectric', permittivity: 2, lossTangent: 0.05 } as const;
    const scene = plainScene({
      bodies: [plainBody('block', 0, lossy, { form: 'box', min: [-1, -1, 16e-3], max: [1, 1, 20e-3] })],
      ports: [],
      guides: ([1, -1] as const).map((into, i) => ({ name: `port${i + 1}`, order: i, normal: 2, into, min: [-a / 2, 0, i * length], max: [a / 2, b, i * length], modes: 1, shift: 0 })), // prettier-ignore
      excite: ['port1'],
      min: [-a / 2, 0, 0],
      max: [a / 2, b, length],
      band: { from: 9e9, to: 11e9, points: 3 },
      boundaries: Array<'electric'>(6).fill('electric'),
      recorders: [
        rectangle('before', 10e-3, -a / 2, a / 2),
        rectangle('half', 10e-3, 0, a / 2),
        rectangle('back', 10e-3, -a / 2, a / 2, -1),
        rectangle('after', 26e-3, -a / 2, a / 2),
        { kind: 'signal', name: 'middle', at: [0, b / 2, 8e-3] },
      ],
      recordAt: [f0],
    });
    const { arrays, meta } = await solvers.fdtd.solve(scene, { host: await nodeHost() });
    const power = Object.fromEntries(meta.fluxes!.map((x) => [x.name, x.power[0]]));
    const s = arrays.s.data.subarray(4);
    const [into, through] = [1 - s[0] ** 2 - s[1] ** 2, s[2] ** 2 + s[3] ** 2];
    process.stdout.write(
      `power before ${power.before.toFixed(5)} (S: ${into.toFixed(5)}), after ${power.after.toFixed(5)} (S: ${through.toFixed(5)})\n`,
    );
    expect(into - through).toBeGreaterThan(0.05);
    expect(Math.abs(power.before - into)).toBeLessThan(2e-3);
    expect(Math.abs(power.after - through)).toBeLessThan(2e-3);
    expect(power.back).toBeCloseTo(-power.before, 9);
    expect(power.half / power.before).toBeCloseTo(0.5, 3);

    // TE10 has E along y alone.
    expect(meta.signals![0].at[1]).toBeCloseTo(b / 2, 3);
    const [time, field] = [arrays['point:middle:time'].data, arrays['point:middle'].data];
    const size = (c: number): number => Math.max(...Array.from(time, (_, i) => Math.abs(field[3 * i + c])));
    expect(size(1)).toBeGreaterThan(0);
    expect(Math.max(size(0), size(2))).toBeLessThan(1e-4 * size(1));
    // It rises no sooner than light can come, and has died away at the end.
    const first = time.findIndex((_, i) => Math.abs(field[3 * i + 1]) > 0.01 * size(1));
    expect(time[first]).toBeGreaterThan(8e-3 / 3e8);
    expect(Math.abs(field[field.length - 2])).toBeLessThan(0.05 * size(1));
  }, 120_000);

  test('a rectangle that reaches beyond open boundaries is cut off where the absorbing layers begin', () => {
    const scene = plainScene({
      bodies: [],
      ports: [],
      min: [0, 0, 0],
      max: [40e-3, 40e-3, 40e-3],
      band: { from: 9e9, to: 11e9, points: 2 },
      recorders: [{ kind: 'flux', name: 'wide', normal: 1, sign: 1, min: [-1, 20e-3, -1], max: [1, 20e-3, 1] }],
      recordAt: [f0],
    });
    const d = discretise(scene);
    const [flux] = planRecording(scene, d).fluxes;
    const at = (i: number, a: 0 | 1 | 2): number => d.grid.lines[a][i];
    expect([at(flux.lo[0], 0), at(flux.hi[0], 0), at(flux.lo[2], 2), at(flux.hi[2], 2)]).toEqual(
      [0, 40e-3, 0, 40e-3].map((x) => expect.closeTo(x, 9)),
    );
    expect(at(flux.lo[1], 1)).toBeCloseTo(20e-3, 9);
  });
});
