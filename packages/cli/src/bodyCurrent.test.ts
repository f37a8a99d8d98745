import { describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { emptyProject, type Project, type Recorder } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import type { PlacedRecorder } from '@jadebell/core/recorders';
import { recordedOf } from '@jadebell/core/results';
import { buildScene, type Mirrors, type GridScene, sceneFor, mirrorRecorder } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { airCoax } from '@jadebell/verification/coax';

const eta0 = 376.730313668;
const metal = { name: 'metal', kind: 'conductor' } as const;
type Patches = { at: ArrayLike<number>; current: ArrayLike<number>; count: number };
const patches = (arrays: Record<string, { data: ArrayLike<number>; shape: number[] }>, name: string): Patches => ({
  at: arrays[`surface:${name}:at`].data,
  current: arrays[`surface:${name}`].data,
  count: arrays[`surface:${name}:at`].shape[0],
});

describe('current on a body', () => {
  // A TEM guide of two plates of width w at a distance h carries 1 W by a current density of sqrt(2 / (eta0 h w)), on the side that faces the guide.
  const [w, h, length] = [6e-3, 2e-3, 12e-3];
  const expected = Math.sqrt(2 / (eta0 * h * w));
  const plates = (thick: number): GridScene => {
    const end: [number, number, number] = [w, h + thick, length];
    const shape = thick
      ? ({ form: 'box', min: [0, h, 0], max: end } as const)
      : ({ form: 'sheet', normal: 1, offset: h, loops: [[[0, 0], [length, 0], [length, w], [0, w]]] } as const); // prettier-ignore
    return plainScene({
      bodies: [plainBody('plate', 0, metal, structuredClone(shape) as never)],
      ports: [],
      guides: ([1, -1] as const).map((into, i) => ({ name: `port${i + 1}`, order: i, normal: 2, into, min: [0, 0, i * length], max: [w, h, i * length], modes: 1, shift: 0, magnetic: [true, true, false, false, false, false] })), // prettier-ignore
      excite: ['port1'],
      min: [0, 0, 0],
      max: [w, h + thick + 2e-3, length],
      band: { from: 4e9, to: 6e9, points: 3 },
      boundaries: ['magnetic', 'magnetic', 'electric', 'electric', 'electric', 'electric'],
      recorders: [
        {
          kind: 'body-current',
          name: 'on',
          line: 'plate',
          min: [0, h, 0],
          max: end,
          cut: { normal: 2, sign: 1, min: [0, h, length / 2], max: [w, h + thick, length / 2] },
        },
      ],
      recordAt: [5e9],
      details: { cellsPerWavelength: 80 },
    });
  };

  test.each([
    ['a sheet', 0],
    ['a slab', 1e-3],
  ])(
    'of %s is n x H on the side that is lit, and nothing on the other',
    async (_, thick) => {
      const { arrays } = await solvers.fdtd.solve(plates(thick), { host: await nodeHost() });
      const { at, current, count } = patches(arrays, 'on');
      const along = (n: number): number => Math.hypot(current[6 * n + 4], current[6 * n + 5]);
      // Away from the ports' planes.
      const inner = Array.from({ length: count }, (__, n) => n).filter((n) => Math.abs(at[8 * n + 2] - length / 2) < length / 4);
      const [lit, dark] = [-1, 1].map((side) => inner.filter((n) => at[8 * n + 4] === side));
      expect(lit.length).toBeGreaterThan(20);
      expect(dark.length).toBeGreaterThan(20);
      const worst = Math.max(...lit.map((n) => Math.abs(along(n) / expected - 1)));
      process.stdout.write(`thickness ${thick}: ${lit.length} patches, off by at most ${(100 * worst).toFixed(2)} % of ${expected.toFixed(2)} A/m\n`);
      expect(worst).toBeLessThan(0.01);
      expect(Math.max(...dark.map(along))).toBeLessThan(1e-3 * expected);
      // A wave towards +z with its current along z on the upper plate turns with the phase constant.
      const phase = (n: number): number => Math.atan2(current[6 * n + 5], current[6 * n + 4]);
      const [p, q] = [Math.min(...lit.map((n) => at[8 * n + 2])), Math.max(...lit.map((n) => at[8 * n + 2]))].map((z) =>
        lit.find((n) => at[8 * n + 2] === z)!,
      );
      const turned = (phase(p) - phase(q) + 4 * Math.PI) % (2 * Math.PI);
      expect(turned / ((2 * Math.PI * 5e9 * (at[8 * q + 2] - at[8 * p + 2])) / 299792458)).toBeCloseTo(1, 2);
      // Across the flow there is none.
      expect(Math.max(...lit.map((n) => Math.hypot(current[6 * n], current[6 * n + 1])))).toBeLessThan(1e-3 * expected);
    },
    120_000,
  );

  thorough(
    'of the pin of a coax is 0.2 A for 1 W in 50 ohm through its cut, in the whole and in a quarter, and its surface adds up to it',
    async () => {
      const host = await nodeHost();
      const line = airCoax(2, 6);
      const pin = line.bodies.reduce((a, b) => (b.max[0] - b.min[0] < a.max[0] - a.min[0] ? b : a));
      const z = 6e-3;
      const recorder: PlacedRecorder = {
        kind: 'body-current',
        name: 'pin',
        line: pin.line,
        min: pin.min,
        max: pin.max,
        cut: { normal: 2, sign: 1, min: [pin.min[0], pin.min[1], z], max: [pin.max[0], pin.max[1], z] },
      };
      const whole: GridScene = { ...line, excite: ['left'], recorders: [recorder], recordAt: [6e9] };
      const wall = { wall: 'magnetic', at: 0 } as const;
      const mirrors = [wall, wall, null] as unknown as Mirrors;
      const low = (p: readonly number[]): [number, number, number] => [0, 0, p[2]];
      const quarter: GridScene = {
        ...whole,
        mirrors,
        boundaries: whole.boundaries.map((b, s) => (s === 0 || s === 2 ? 'magnetic' : b)),
        min: low(whole.min),
        guides: whole.guides.map((g) => ({ ...g, min: low(g.min), images: 4, wholeImpedance: 0.25 })),
        recorders: [(mirrorRecorder(recorder, mirrors) as { kept: PlacedRecorder }).kept],
      };
      for (const [name, scene] of [
        ['whole', whole],
        ['quarter', quarter],
      ] as const) {
        // prettier-ignore
        const { arrays, meta } = await solvers.fdtd.solve(scene, { host });
        const total = Math.hypot(...recordedOf(meta, 'body-current')[0].current[0]);
        const { at, current, count } = patches(arrays, 'pin');
        // One slice of the surface: all patches at the middle nearest to the cut.
        const places = Array.from({ length: count }, (_, n) => at[8 * n + 2]);
        const slice = places.reduce((a, b) => (Math.abs(b - z) < Math.abs(a - z) ? b : a));
        let [re, im] = [0, 0];
        for (let n = 0; n < count; n++) {
          if (places[n] !== slice || at[8 * n + 5] !== 0) continue;
          // The extent across the flow is that along x or y, the first of the two.
          re += at[8 * n + 6] * current[6 * n + 4];
          im += at[8 * n + 6] * current[6 * n + 5];
        }
        const sum = Math.hypot(re, im);
        process.stdout.write(`${name}: ${total.toFixed(4)} A of 0.2 through the cut, ${sum.toFixed(4)} A on the steps of the surface\n`);
        expect(Math.abs(total / 0.2 - 1)).toBeLessThan(0.01);
        // H a half cell off the steps is weaker than at the round surface.
        expect(Math.abs(sum / 0.2 - 1)).toBeLessThan(0.2);
      }
    },
    120_000,
  );

  const dipole = (recorders: Recorder[], more: Partial<Project> = {}): Project => {
    const base = emptyProject('t');
    return {
      ...base,
      lines: [
        { kind: 'cylinder', name: 'rod', material: 'Copper', axis: 'z', radius: '2 mm', height: '1 m', at: ['0 mm', '0 mm', '-0.5 m'] },
        {
          kind: 'box',
          name: 'block',
          material: 'Polyimide film',
          size: ['1 mm', '1 mm', '1 mm'],
          anchor: 'centre',
          at: ['1 m', '0 m', '0 m'],
          muted: true,
        },
      ] as unknown as Project['lines'],
      ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '50 ohm' }],
      recorders,
      recordAt: ['145 MHz'],
      solve: { solver: 'moment', from: '140 MHz', to: '150 MHz', points: 3, accuracy: 'draft' },
      ...more,
    };
  };
  const onRod: Recorder = { kind: 'body-current', name: 'on', body: 'rod', along: 'z', at: 'rod.centre.z' };

  test('of a wire is the current at its feed, and over the circumference its density', async () => {
    const { scene, problems } = buildScene(dipole([onRod]), await loadGeometryKernel());
    expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
    const { arrays, meta } = await solvers.moment.solve(sceneFor('moment', scene), { host: await nodeHost() });
    const [told] = recordedOf(meta, 'body-current');
    const port = arrays['probe:feed'].data.subarray(4 * 1 + 2, 4 * 1 + 4);
    // The rational fit of the band stands between: as far off as it tells.
    expect(Math.hypot(told.current[0][0] - port[0], told.current[0][1] - port[1]) / Math.hypot(...port)).toBeLessThan(2e-3);
    const { at, current, count } = patches(arrays, 'on');
    const middle = Array.from({ length: count }, (_, n) => n).reduce((a, b) => (Math.abs(at[8 * b + 2]) < Math.abs(at[8 * a + 2]) ? b : a));
    expect(at[8 * middle + 6]).toBeCloseTo(2 * Math.PI * 2e-3, 9);
    expect((at[8 * middle + 6] * Math.hypot(current[6 * middle + 4], current[6 * middle + 5])) / Math.hypot(...port)).toBeCloseTo(1, 1);
    expect(Math.max(...Array.from({ length: count }, (_, n) => Math.abs(current[6 * n])))).toBe(0);
  });

  test.each([
    ['no body', { body: '' }, 'recorder.body', 'body'],
    ['a line without a body', { body: 'gone' }, 'recorder.body', 'body'],
    ['a cut beside it', { at: '2 m' }, 'recorder.beside-body', 'at'],
  ])('%s is told with its place', async (_, change, code, chip) => {
    const { problems } = buildScene(dipole([{ ...onRod, ...change } as Recorder]), await loadGeometryKernel());
    expect(problems.filter((p) => p.place.part === 'recorders').map((p) => [p.code, p.place.chip])).toEqual([[code, chip]]);
  });
});
