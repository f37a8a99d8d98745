import { recordedOf } from '@jadebell/core/results';
import { describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import type { Point3 } from '@jadebell/core/document';
import { type Mirrors, type GridScene, type PlacedRecorder, mirrorRecorder } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { discretise, planRecording } from '@jadebell/core/solvers/fdtd/parts';
import { airCoax } from '@jadebell/verification/coax';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { buildGrid } from '@jadebell/core/grid';
import type { Axis } from '@jadebell/core/numerics';

const [a, b, length] = [20e-3, 5e-3, 30e-3];
const f0 = 10e9;
const rectangle = (name: string, z: number, x0: number, x1: number, sign: 1 | -1 = 1): PlacedRecorder => ({ kind: 'flux', name, normal: 2, sign, min: [x0, 0, z] as Point3, max: [x1, b, z] as Point3 }); // prettier-ignore

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
    const power = Object.fromEntries(recordedOf(meta, 'flux').map((x) => [x.name, x.power[0]]));
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
    expect(recordedOf(meta, 'signal')[0].at[1]).toBeCloseTo(b / 2, 3);
    const [time, field] = [arrays['point:middle:time'].data, arrays['point:middle'].data];
    const size = (c: number): number => Math.max(...Array.from(time, (_, i) => Math.abs(field[3 * i + c])));
    expect(size(1)).toBeGreaterThan(0);
    expect(Math.max(size(0), size(2))).toBeLessThan(1e-4 * size(1));
    // It rises no sooner than light can come, and has died away at the end.
    const first = time.findIndex((_, i) => Math.abs(field[3 * i + 1]) > 0.01 * size(1));
    expect(time[first]).toBeGreaterThan(8e-3 / 3e8);
    expect(Math.abs(field[field.length - 2])).toBeLessThan(0.05 * size(1));
  }, 120_000);

  thorough(
    'current around the pin of a coax and E across its gap are those of 1 W in 50 ohm, in the whole and in a quarter',
    async () => {
      const host = await nodeHost();
      const [inner, outer] = [1e-3, 2.3038e-3];
      const mid = (inner + outer) / 2;
      const line = airCoax(2, 6);
      const recorders: PlacedRecorder[] = [
        { kind: 'current', name: 'pin', normal: 2, sign: 1, min: [-mid, -mid, 6e-3], max: [mid, mid, 6e-3] },
        { kind: 'current', name: 'all', normal: 2, sign: 1, min: [-1.1 * outer, -1.1 * outer, 6e-3], max: [1.1 * outer, 1.1 * outer, 6e-3] },
        { kind: 'field-line', name: 'gap', axis: 0, at: [0, 0, 6e-3], from: 0, to: 1.1 * outer },
      ];
      const whole: GridScene = { ...line, excite: ['left'], recorders, recordAt: [6e9] };
      const wall = { wall: 'magnetic', at: 0 } as const;
      const mirrors = [wall, wall, null] as unknown as Mirrors;
      const low = (p: Point3): Point3 => [0, 0, p[2]];
      const quarter: GridScene = {
        ...whole,
        mirrors,
        boundaries: whole.boundaries.map((b, s) => (s === 0 || s === 2 ? 'magnetic' : b)),
        min: low(whole.min),
        guides: whole.guides.map((g) => ({ ...g, min: low(g.min), images: 4, wholeImpedance: 0.25 })),
        recorders: recorders.map((r) => (mirrorRecorder(r, mirrors) as { kept: PlacedRecorder }).kept),
      };
      for (const [name, scene] of [
        ['whole', whole],
        ['quarter', quarter],
      ] as const) {
        const { arrays, meta } = await solvers.fdtd.solve(scene, { host });
        const [pin, all] = recordedOf(meta, 'current').map((c) => Math.hypot(...c.current[0]));
        // Its sides lie between lines of the grid, within half a cell of where they were asked for, and are told.
        for (const [from, to] of recordedOf(meta, 'current')[0].taken!) for (const end of [-from, to]) expect(Math.abs(end - mid)).toBeLessThan(0.15e-3); // prettier-ignore
        const [x, e] = [arrays['line:gap:at'].data, arrays['line:gap'].data];
        let [re, im] = [0, 0];
        // Nodes in metal have no field; in the gap E falls with 1 / x, so that E x is straight.
        for (let i = 0; i + 1 < x.length; i++) {
          if (x[i] < inner || x[i + 1] > outer) continue;
          const width = Math.log(x[i + 1] / x[i]) / 2;
          re += width * (e[6 * i] * x[i] + e[6 * i + 6] * x[i + 1]);
          im += width * (e[6 * i + 1] * x[i] + e[6 * i + 7] * x[i + 1]);
        }
        const voltage = Math.hypot(re, im);
        process.stdout.write(
          `${name}: current ${pin.toFixed(4)} A of 0.2, with the shield ${all.toExponential(1)} A, voltage ${voltage.toFixed(2)} V of 10\n`,
        );
        expect(Math.abs(pin / 0.2 - 1)).toBeLessThan(0.01);
        expect(all).toBeLessThan(0.01);
        expect(Math.abs(voltage / 10 - 1)).toBeLessThan(0.2);
      }
    },
    120_000,
  );

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
    const d = discretise(scene, buildGrid(scene));
    const { regions } = planRecording(scene, d);
    const [e, h] = regions.filter((r) => r.field === 0 || r.field === 5);
    const at = (i: number, a: Axis): number => d.grid.lines[a][i];
    // Ex stands on cells along x and nodes along z; Hz, which goes with it, as well.
    for (const r of [e, h])
      expect([at(r.from[0], 0), at(r.from[0] + r.inner, 0), at(r.from[2], 2), at(r.from[2] + r.outer - 1, 2)]).toEqual(
        [0, 40e-3, 0, 40e-3].map((x) => expect.closeTo(x, 9)),
      );
    expect(at(e.from[1], 1)).toBeCloseTo(20e-3, 9);
  });
});
