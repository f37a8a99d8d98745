import { beforeAll, describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { type Body } from '@jadebell/core/geometry';
import { ProblemError } from '@jadebell/core/document';
import { decibel, sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import { filament, halved, plainBody, plainScene } from '@jadebell/verification/bench';
import { airCoax } from '@jadebell/verification/coax';
import { mie } from '@jadebell/verification/mie';
import { litSphere } from '@jadebell/verification/spheres';
import { openGuide } from '@jadebell/verification/openGuide';
import { nodeHost } from './index.ts';
import { type Axis, arg, abs2, abs, sub } from '@jadebell/core/numerics';

const [a, b, length] = [15.8e-3, 7.9e-3, 30e-3];
let host: SolverHost;
beforeAll(async () => {
  host = await nodeHost();
});

const end = (name: string, order: number, into: 1 | -1, more: Partial<SceneGuide> = {}): SceneGuide => {
  const x = into > 0 ? 0 : length;
  return { name, order, normal: 0, into, min: [x, 0, 0], max: [x, a, b], modes: 1, shift: 0, ...more };
};
const guide = (more: Partial<GridScene> = {}): GridScene =>
  plainScene({
    bodies: [],
    ports: [],
    guides: [end('left', 0, 1), end('right', 1, -1)],
    min: [0, 0, 0],
    max: [length, a, b],
    band: { from: 12e9, to: 17e9, points: 11 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy: 'draft',
    ...more,
  });
const block = (min: [number, number, number], max: [number, number, number], material: Body['material']): Body =>
  plainBody('block', 0, material, { form: 'box', min, max });
const solve = (scene: GridScene): ReturnType<typeof solvers.fdtd.solve> => solvers.fdtd.solve(scene, { host });
const problemOf = async (scene: GridScene): Promise<string> =>
  solve(scene).then(
    () => 'none',
    (e: unknown) => (e instanceof ProblemError ? e.problems[0].code : String(e)),
  );

describe('guided ports', () => {
  test('a voltage path fixes the sign of a mode and tells the voltage of 1 W', async () => {
    const path = (turned: boolean): SceneGuide['path'] => [[a / 2, turned ? b : 0], [a / 2, turned ? 0 : b]]; // prettier-ignore
    const ports = (turned: boolean): SceneGuide[] => [end('left', 0, 1, { path: path(false) }), end('right', 1, -1, { path: path(turned) })];
    const [same, against] = [await solve(guide({ guides: ports(false) })), await solve(guide({ guides: ports(true) }))];
    const f = 14.5e9;
    const k = (2 * Math.PI * f) / 299792458;
    const beta = Math.sqrt(k * k - (Math.PI / a) ** 2);
    const [s, t] = [same, against].map((r) => sCurve(r.arrays.s, 1, 0)[5]);
    // Signs alike: the phase is that of the way; turned round: the opposite.
    const turn = -beta * length;
    expect(Math.hypot(s[0] - Math.cos(turn), s[1] - Math.sin(turn))).toBeLessThan(0.05);
    expect(Math.hypot(s[0] + t[0], s[1] + t[1])).toBeLessThan(1e-6);
    const wanted = b * Math.sqrt((4 * 376.730313668 * k) / beta / (a * b));
    process.stdout.write(`voltage of 1 W: ${same.meta.ports[0].voltage!.toFixed(3)} of ${wanted.toFixed(3)} V\n`);
    for (const { voltage } of [...same.meta.ports, ...against.meta.ports]) expect(Math.abs(voltage! / wanted - 1)).toBeLessThan(5e-3);
    expect((await solve(guide())).meta.ports[0].voltage).toBeUndefined();
  });

  test('a straight guide lets all through and sends nothing back; phase follows the cutoff', async () => {
    const { arrays, meta } = await solve(guide());
    expect(meta.ports).toMatchObject([
      { name: 'left', mode: 1, family: 'TE', modeName: 'TE10' },
      { name: 'right', mode: 1, family: 'TE', modeName: 'TE10' },
    ]);
    expect(meta.excitations).toEqual([0, 1]);
    expect(Math.max(...sCurve(arrays.s, 0, 0).map(decibel))).toBeLessThan(-60);
    expect(Math.max(...sCurve(arrays.s, 1, 0).map((s) => Math.abs(decibel(s))))).toBeLessThan(0.002);
    expect(meta.evidence.asymmetry).toBeLessThan(1e-5);
    const k = (2 * Math.PI * 14.5e9) / 299792458;
    const turn = -Math.sqrt(k * k - (Math.PI / a) ** 2) * length;
    const s = sCurve(arrays.s, 1, 0)[5];
    const wrapped = Math.atan2(Math.sin(arg(s) - turn), Math.cos(arg(s) - turn));
    expect(Math.abs(wrapped)).toBeLessThan(0.02 * Math.abs(turn));
  });

  test('what an open end takes in is what leaves the box and the pattern', async () => {
    const scene = openGuide('draft', 5e-3);
    const { meta } = await solve({ ...scene, details: { ...scene.details, stopAt: 1e-4 } });
    for (const { accepted, radiated, fromPattern } of meta.farField!.figures) {
      expect(Math.abs(radiated / accepted - 1)).toBeLessThan(0.01);
      expect(Math.abs(fromPattern / accepted - 1)).toBeLessThan(0.01);
    }
  });

  test('reference planes moved in to one place leave no phase', async () => {
    const { arrays } = await solve(guide({ guides: [end('left', 0, 1, { shift: length / 3 }), end('right', 1, -1, { shift: (2 * length) / 3 })] }));
    for (const s of sCurve(arrays.s, 1, 0)) expect(arg(s)).toBeCloseTo(0, 3);
  });

  test('a step in the guide is lossless and reciprocal, whichever way the guide lies', async () => {
    const size = (p: [number, number, number], order: readonly number[]): [number, number, number] => {
      const out: [number, number, number] = [0, 0, 0];
      order.forEach((to, from) => (out[to] = p[from]));
      return out;
    };
    const curves: number[][] = [];
    for (const order of [
      [0, 1, 2],
      [1, 2, 0],
      [2, 0, 1],
    ] as const) {
      const scene = guide();
      scene.bodies = [block(size([12e-3, 0, 0], order), size([16e-3, a, 3e-3], order), { name: 'metal', kind: 'conductor' })];
      scene.max = size(scene.max, order);
      scene.guides = scene.guides.map((g) => ({ ...g, normal: order[0] as Axis, min: size(g.min, order), max: size(g.max, order) }));
      const { arrays, meta } = await solve(scene);
      expect(meta.evidence.largestReflection).toBeCloseTo(1, 2);
      expect(meta.evidence.asymmetry).toBeLessThan(1e-4);
      const [r, t] = [sCurve(arrays.s, 0, 0), sCurve(arrays.s, 1, 0)];
      r.forEach((v, i) => expect(abs2(v) + abs2(t[i])).toBeCloseTo(1, 3));
      expect(Math.max(...r.map(decibel))).toBeGreaterThan(-20);
      curves.push(r.map(decibel));
    }
    curves[1].forEach((v, i) => expect(v).toBeCloseTo(curves[0][i], 2));
    curves[2].forEach((v, i) => expect(v).toBeCloseTo(curves[0][i], 2));
  });

  test('a probe with a lumped port and a guided port are reciprocal: both count power alike', async () => {
    const scene = guide({ guides: [end('mouth', 1, -1)] });
    // A probe from the floor with its gap at the foot.
    scene.bodies = [block([7e-3, a / 2 - 0.5e-3, 1e-3], [8e-3, a / 2 + 0.5e-3, 5e-3], { name: 'metal', kind: 'conductor' })];
    scene.ports = [{ ...filament('probe', [7.5e-3, a / 2, 0], 2, 1e-3, 50), order: 0 }];
    const { arrays, meta } = await solve(scene);
    expect(meta.ports.map((p) => p.name)).toEqual(['probe', 'mouth']);
    expect(meta.evidence.asymmetry).toBeLessThan(1e-3);
    expect(meta.evidence.largestReflection).toBeLessThan(1.001);
    // Nothing is lost in it: what does not come back at the probe goes out of the mouth.
    const [r, t] = [sCurve(arrays.s, 0, 0), sCurve(arrays.s, 1, 0)];
    r.forEach((v, i) => expect(abs2(v) + abs2(t[i])).toBeCloseTo(1, 2));
    expect(Math.max(...t.map((v) => abs(v)))).toBeGreaterThan(0.3);
  });

  test('half of it behind a magnetic wall is the same: lumped port on the plane, guided port cut by it', async () => {
    const scene = guide({ guides: [end('mouth', 1, -1)] });
    scene.bodies = [block([7e-3, a / 2 - 0.5e-3, 1e-3], [8e-3, a / 2 + 0.5e-3, 5e-3], { name: 'metal', kind: 'conductor' })];
    scene.ports = [{ ...filament('probe', [7.5e-3, a / 2, 0], 2, 1e-3, 50), order: 0 }];
    const [whole, half] = await Promise.all([solve(scene), solve(halved(scene, 1, a / 2))]);
    expect(half.meta.evidence.asymmetry).toBeLessThan(1e-3);
    [0, 1].forEach((to) =>
      sCurve(half.arrays.s, to, 0).forEach((v, i) => {
        const w = sCurve(whole.arrays.s, to, 0)[i];
        expect(abs(sub(v, w))).toBeLessThan(5e-3);
      }),
    );
  });

  thorough('a quarter of a coaxial line between magnetic walls has the impedance of the whole', async () => {
    const whole = airCoax(2, 6);
    const quarter = halved(halved(whole, 0, 0), 1, 0);
    const [w, q] = [await solve(whole), await solve(quarter)];
    expect(q.meta.ports[0].impedance! / w.meta.ports[0].impedance!).toBeCloseTo(1, 3);
    expect(Math.abs(q.meta.ports[0].impedance! - 50)).toBeLessThan(0.25);
    expect(Math.max(...sCurve(q.arrays.s, 0, 0).map(decibel))).toBeLessThan(-40);
    expect(Math.max(...sCurve(q.arrays.s, 1, 0).map((s) => Math.abs(decibel(s))))).toBeLessThan(0.01);
  });

  test('half a microstrip, whose port sees two media, has the impedance of the whole', async () => {
    const substrate = { name: 'board', kind: 'dielectric', permittivity: 3.5 } as const;
    const [w, h] = [1.8e-3, 0.8e-3];
    const strip = plainBody('strip', 1, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 2, offset: h, loops: [[[-1, -w / 2], [1, -w / 2], [1, w / 2], [-1, w / 2]]] }); // prettier-ignore
    const port = (name: string, order: number, into: 1 | -1): SceneGuide => ({ name, order, normal: 0, into, min: [into > 0 ? 0 : 0.01, -5e-3, 0], max: [into > 0 ? 0 : 0.01, 5e-3, 6e-3], modes: 1, shift: 0, inhomogeneous: true }); // prettier-ignore
    const scene = plainScene({
      bodies: [plainBody('board', 0, substrate, { form: 'box', min: [-1, -1, 0], max: [1, 1, h] }), strip],
      ports: [],
      guides: [port('left', 0, 1), port('right', 1, -1)],
      min: [0, -5e-3, 0],
      max: [0.01, 5e-3, 6e-3],
      band: { from: 4e9, to: 8e9, points: 5 },
      boundaries: ['open', 'open', 'electric', 'electric', 'electric', 'electric'],
      details: { cellsPerWavelength: 20 },
      accuracy: 'draft',
    });
    const [all, half] = [await solve(scene), await solve(halved(scene, 1, 0))];
    expect(half.meta.ports[0].impedance! / all.meta.ports[0].impedance!).toBeCloseTo(1, 2);
    expect(Math.max(...sCurve(half.arrays.s, 0, 0).map(decibel))).toBeLessThan(-35);
    expect(Math.max(...sCurve(half.arrays.s, 1, 0).map((s) => Math.abs(decibel(s))))).toBeLessThan(0.02);
  });

  test('only the chosen ports are excited', async () => {
    const { arrays, meta } = await solve(guide({ excite: ['right'] }));
    expect(meta.excitations).toEqual([1]);
    expect(arrays.s.shape).toEqual([11, 2, 1, 2]);
    expect(Math.max(...sCurve(arrays.s, 0, 0).map((s) => Math.abs(decibel(s))))).toBeLessThan(0.002);
  });

  test('two conductors carry a TEM wave, at all frequencies', async () => {
    const scene = guide({ band: { from: 1e9, to: 5e9, points: 5 } });
    scene.bodies = [block([0, 6e-3, 3e-3], [length, 10e-3, 5e-3], { name: 'metal', kind: 'conductor' })];
    const { arrays, meta } = await solve(scene);
    expect(meta.ports[0].family).toBe('TEM');
    expect(Math.max(...sCurve(arrays.s, 0, 0).map(decibel))).toBeLessThan(-60);
    const beta = arrays.beta.data;
    expect(beta[0]).toBeCloseTo((2 * Math.PI * 1e9) / 299792458, 1);
  });

  test('what fills a port wrongly is told before the run', () => {
    const told = (bodies: Body[]): string[] =>
      solvers.fdtd.plan(guide({ bodies }), { memory: 1e10, cellsPerSecond: 1e8, threads: 1 }).problems.map((p) => p.code);
    const slab = { name: 'slab', kind: 'dielectric', permittivity: 3 } as const;
    expect(told([])).toEqual([]);
    expect(told([block([0, 0, 0], [length, a, b], slab)])).toEqual([]);
    expect(told([block([5e-3, 0, 0], [10e-3, a, 3e-3], slab)])).toEqual([]);
    expect(told([block([0, 0, 0], [10e-3, a, 3e-3], slab)])).toEqual([]);
    expect(told([block([0, 0, 0], [length, a, b], { name: 'metal', kind: 'conductor' })])).toEqual(['port.shorted', 'port.shorted']);
  });

  test('what cannot guide is told', async () => {
    expect(await problemOf(guide({ band: { from: 3e9, to: 6e9, points: 5 } }))).toBe('port.cutoff');
    expect(await problemOf(guide({ bodies: [block([0, 0, 0], [length, a, 3e-3], { name: 'slab', kind: 'dielectric', permittivity: 3 })] }))).toBe(
      'port.media',
    );
    expect(await problemOf(guide({ bodies: [block([0, 0, 0], [length, a, b], { name: 'metal', kind: 'conductor' })] }))).toBe('port.shorted');
    expect(await problemOf(guide({ guides: [end('left', 0, -1, { min: [0, 0, 0], max: [0, a, b] })] }))).toBe('port.outside');
    expect(await problemOf(guide({ guides: [end('left', 0, 1, { modes: 400 })] }))).toBe('port.modes');
  });
});

describe('guided ports that see several media', () => {
  const slab = (from: number, to: number, height: number, permittivity = 3): Body =>
    plainBody(
      `slab${from}`,
      from < 0 ? 0 : 1,
      { name: 'slab', kind: 'dielectric', permittivity },
      { form: 'box', min: [from, 0, 0], max: [to, a, height] },
    );
  const mixed = (more: Partial<GridScene> = {}, modes = 1): GridScene =>
    guide({
      guides: [end('left', 0, 1, { inhomogeneous: true, modes }), end('right', 1, -1, { inhomogeneous: true, modes })],
      bodies: [slab(-1, 1, 3e-3)],
      boundaries: ['open', 'open', 'electric', 'electric', 'electric', 'electric'],
      band: { from: 8.7e9, to: 12e9, points: 9 },
      ...more,
    });

  test('nothing comes back from a straight guide, at the frequencies of the profiles and between them', async () => {
    const { arrays, meta } = await solve(mixed());
    expect(meta.ports[0]).toMatchObject({ family: 'hybrid', modeName: 'hybrid' });
    expect(Math.max(...sCurve(arrays.s, 0, 0).map(decibel))).toBeLessThan(-55);
    for (const s of sCurve(arrays.s, 1, 0)) expect(Math.abs(decibel(s))).toBeLessThan(0.002);
    // The phase is that of the modes found on the grid.
    const beta = arrays.beta.data;
    sCurve(arrays.s, 1, 0).forEach((s, f) => {
      const turn = arg(s) + beta[2 * f * 2] * length;
      expect(Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)))).toBeLessThan(0.01);
    });
  });

  test('a step in the slab keeps the power and is the same both ways', async () => {
    // Far enough from the ports that what is below cutoff has died out.
    const far = 60e-3;
    const ends = [end('left', 0, 1, { inhomogeneous: true }), end('right', 1, -1, { inhomogeneous: true, min: [far, 0, 0], max: [far, a, b] })];
    const scene = mixed({
      guides: ends,
      max: [far, a, b],
      bodies: [slab(-1, 1, 3e-3), slab(27e-3, 33e-3, 5e-3, 4)],
      band: { from: 9e9, to: 12e9, points: 5 },
    });
    const { arrays, meta } = await solve(scene);
    const [back, through] = [0, 1].map((c) => sCurve(arrays.s, c, 0).map((s) => 10 ** (decibel(s) / 10)));
    expect(back[0]).toBeGreaterThan(0.2);
    for (let f = 0; f < 5; f++) expect(Math.abs(back[f] + through[f] - 1)).toBeLessThan(3e-4);
    expect(meta.evidence.asymmetry!).toBeLessThan(1e-4);
  });
});

test('a round coax of 50 ohm between two ports: impedance, reflection and phase', async () => {
  const { arrays, meta } = await solve(airCoax(2, 4));
  expect(meta.ports[0].family).toBe('TEM');
  expect(Math.abs(meta.ports[0].impedance! - 50)).toBeLessThan(0.25);
  expect(Math.max(...sCurve(arrays.s, 0, 0).map(decibel))).toBeLessThan(-55);
  for (const v of sCurve(arrays.s, 1, 0)) expect(Math.abs(decibel(v))).toBeLessThan(0.01);
});

test('a metal sphere under an oblique plane wave scatters as the series of Mie has it', async () => {
  const { meta } = await solve(litSphere({ name: 'metal', kind: 'conductor' }, [1, 1.5], 'draft'));
  const disc = Math.PI * 1e-4;
  meta.scattered!.figures.forEach((f, n) => {
    const exact = mie([1, 1.5][n], null);
    expect(Math.abs(10 * Math.log10(f.back / disc / exact.radar(Math.PI, 'E')))).toBeLessThan(0.3);
    expect(Math.abs(f.scattering / disc / exact.scattering - 1)).toBeLessThan(0.02);
    expect(Math.abs(f.extinction / disc / exact.extinction - 1)).toBeLessThan(0.02);
    expect(f.absorption).toBe(0);
  });
  expect(meta.ports).toEqual([]);
});
