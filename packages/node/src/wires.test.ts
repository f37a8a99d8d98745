import { recordedOf, excitationKey } from '@jadebell/core/results';
import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Point3 } from '@jadebell/core/document';
import { meshWires } from '@jadebell/core/grid';
import { rightDivide, abs, sub, abs2 } from '@jadebell/core/numerics';
import { type PlacedRecorder, waveOf } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { WireSystem } from '@jadebell/core/solvers/moment/parts';
import { impedances, plainWire, solveWires, upright, wireScene } from '@jadebell/verification/wireBench';
import { nodeHost } from './index.ts';

const f = 300e6;
const wl = 299792458 / f;
const eta0 = 376.730313668;
let host: SolverHost;
beforeAll(async () => {
  host = await nodeHost(2);
});

describe('the compiled system', () => {
  test.each([7, 33, 70, 131])('%d wires’ worth of unknowns: solved as without compiled code, odd sizes too', async (n) => {
    const mesh = meshWires(wireScene({ wires: [upright('w', 2, 1e-3)], frequency: f }).wires, { longest: 2 / (n + 1) });
    const system = await WireSystem.create(mesh, 0, null, host);
    await system.fill(f);
    const size = system.size;
    const matrix = new Float64Array(2 * size * size);
    for (let r = 0; r < size; r++) for (let c = 0; c < size; c++) matrix.set(system.element(r, c), 2 * (c * size + r));
    const right = Float64Array.from({ length: 2 * size }, (_, i) => Math.sin(3 * i) + 0.1);
    await system.factor();
    const x = right.slice();
    system.solve(x);
    const told = rightDivide(right, matrix, 1, size)!;
    const most = Math.max(...told.map(Math.abs));
    x.forEach((v, i) => expect(Math.abs(v - told[i]) / most).toBeLessThan(1e-10));
    system.close();
  });

  test.each([5, 32, 64, 131, 402])('%d unknowns by their upper half: the same as by the whole, on one thread and on two', async (n) => {
    const { wires } = wireScene({ wires: [upright('w', 3, 1e-3), upright('v', 0.7, 2e-3, [0.1, 0, 0.3])], frequency: f, more: { ground: { kind: 'perfect', at: -2 } } }); // prettier-ignore
    const mesh = meshWires(wires, { longest: 3.7 / n });
    const right = (size: number): Float64Array => Float64Array.from({ length: 2 * size }, (_, i) => Math.cos(2 * i) - 0.3);
    let told: Float64Array | null = null;
    for (const threads of [1, 2]) {
      const system = await WireSystem.create(mesh, 0, wires.ground, { ...host, threads });
      await system.fill(f);
      await system.factor();
      const whole = right(system.size);
      system.solve(whole);
      told ??= whole;
      await system.fill(f, true);
      expect(await system.factorSymmetric()).toBe(true);
      const half = right(system.size);
      system.solve(half);
      const most = Math.max(...whole.map(Math.abs));
      // The two halves differ by what quadrature leaves.
      half.forEach((v, i) => expect(Math.abs(v - told![i]) / most).toBeLessThan(2e-5));
      system.close();
    }
  });

  test('a pivot of nothing is noticed without exchanges', async () => {
    const mesh = meshWires(wireScene({ wires: [upright('w', 2, 1e-3)], frequency: f }).wires, { longest: 0.1 });
    const system = await WireSystem.create(mesh, 0, null, host);
    await system.fill(f, true);
    const [re, im] = system.element(3, 3);
    const [a, b] = system.element(2, 3);
    const [c, d] = system.element(2, 2);
    expect(Math.hypot(a, b, c, d)).toBeGreaterThan(0);
    for (const k of [0, 1, 2]) system.add(k, k, ...(system.element(k, k).map((v) => -v) as [number, number]));
    system.add(3, 3, -re, -im);
    expect(await system.factorSymmetric()).toBe(false);
    system.close();
  });

  test('rows are exchanged where a pivot is small, and two threads give what one gives', async () => {
    const mesh = meshWires(wireScene({ wires: [upright('w', 8, 1e-3)], frequency: f }).wires, { longest: 8 / 402 });
    const solved: Float64Array[] = [];
    for (const threads of [1, 2]) {
      const system = await WireSystem.create(mesh, 0, null, { ...host, threads });
      expect(system.threads).toBe(threads);
      await system.fill(f);
      // A zero on the diagonal cannot be a pivot.
      for (const k of [0, 5, 100]) {
        const [re, im] = system.element(k, k);
        system.add(k, k, -re, -im);
      }
      await system.factor();
      const x = new Float64Array(2 * system.size).fill(1);
      system.solve(x);
      expect(x.every(Number.isFinite)).toBe(true);
      solved.push(x);
      system.close();
    }
    const most = Math.max(...solved[0].map(Math.abs));
    solved[0].forEach((v, i) => expect(Math.abs(v - solved[1][i]) / most).toBeLessThan(1e-9));
  });

  test('the matrix is symmetric: what one function does to another is mutual', async () => {
    const bent: Point3[] = [[0, 0, 0], [0.1, 0, 0.2], [0.3, 0.1, 0.2], [0.2, 0.4, 0.1]]; // prettier-ignore
    const { wires } = wireScene({ wires: [plainWire('a', bent, 2e-3), upright('b', 0.3, 1e-3, [0.02, 0, 0.1])], frequency: f, more: { ground: { kind: 'perfect', at: -0.2 } } }); // prettier-ignore
    const system = await WireSystem.create(meshWires(wires, { longest: 0.05, grading: 4 }), 0, wires.ground, host);
    await system.fill(f);
    for (let r = 0; r < system.size; r++)
      for (let c = 0; c < r; c++) {
        const [a, b] = [system.element(r, c), system.element(c, r)];
        const size = Math.hypot(...system.element(r, r));
        expect(abs(sub(a, b)) / size).toBeLessThan(2e-6);
      }
    system.close();
  });
});

const far: PlacedRecorder = { kind: 'far-field', name: 'far', step: Math.PI / 36 };
const rod = (l = 0.47): ReturnType<typeof upright> => upright('rod', l * wl, 1e-3 * wl);

describe('what hangs on wires', () => {
  test('a load in series at the feed adds its impedance, one elsewhere takes power', async () => {
    const bare = impedances(await solveWires(wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f }), host))[0][0];
    const at = (place: number, load: object) =>
      wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, recorders: [far], more: { loads: [{ name: 'load', place: { wire: 0, at: place }, load: { form: 'series', r: 0, l: 0, c: 0, ...load } as never }] } }); // prettier-ignore
    const l = 50 / (2 * Math.PI * f);
    const loaded = impedances(await solveWires(at(0.235 * wl, { r: 30, l }), host))[0][0];
    expect(loaded[0] - bare[0]).toBeCloseTo(30, 3);
    expect(loaded[1] - bare[1]).toBeCloseTo(50, 3);
    const lossy = await solveWires(at(0.12 * wl, { r: 100 }), host);
    const [figures] = lossy.meta.farField!.figures;
    expect(figures.radiationEfficiency).toBeLessThan(0.7);
    expect(Math.abs(lossy.meta.evidence.powerBalance![0])).toBeLessThan(1e-5);
    // A table that says the same does the same.
    const told = await solveWires(at(0.235 * wl, { form: 'table', table: [[1e6, 30, 50], [1e9, 30, 50]] }), host); // prettier-ignore
    impedances(told)[0][0].forEach((v, i) => expect(v).toBeCloseTo(loaded[i], 3));
  });

  test('a line between two dipoles: a quarter wave turns an open end into a short, a half wave hands on what it sees', async () => {
    const wires = [rod(), upright('other', 0.2 * wl, 1e-3 * wl, [5000 * wl, 0, 0])];
    const with_ = (length: number, impedance: number) =>
      wireScene({ wires, ports: [[0, 0.235 * wl]], frequency: f, more: { lines: [{ name: 'line', places: [{ wire: 0, at: 0.1 * wl }, { wire: 1, at: 0.1 * wl }], impedance, delay: length / 299792458 }] } }); // prettier-ignore
    const alone = impedances(await solveWires(wireScene({ wires: [wires[1]], ports: [[0, 0.1 * wl]], frequency: f }), host))[0][0];
    const loaded = async (z: readonly number[]): Promise<number[]> =>
      impedances(
        await solveWires(wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, more: { loads: [{ name: 'l', place: { wire: 0, at: 0.1 * wl }, load: { form: 'table', table: [[1e6, z[0], z[1]], [1e9, z[0], z[1]]] } }] } }), host), // prettier-ignore
      )[0][0];
    const half = impedances(await solveWires(with_(wl / 2, 300), host))[0][0];
    const direct = await loaded(alone);
    half.forEach((v, i) => expect(v).toBeCloseTo(direct[i], 1));
    const quarter = impedances(await solveWires(with_(wl / 4, 300), host))[0][0];
    const d = abs2(alone);
    const turned = await loaded([(300 ** 2 * alone[0]) / d, (-(300 ** 2) * alone[1]) / d]);
    quarter.forEach((v, i) => expect(v).toBeCloseTo(turned[i], 1));
  });

  test('copper costs a short dipole what its resistance says; a coat lowers its resonance', async () => {
    const metal = { conductivity: 5.8e7, permeability: 1 };
    const short = (m: typeof metal | null) => wireScene({ wires: [{ ...upright('s', 0.05 * wl, 5e-5 * wl), metal: m }], ports: [[0, 0.025 * wl]], frequency: f, recorders: [far] }); // prettier-ignore
    const copper = await solveWires(short(metal), host);
    const [figures] = copper.meta.farField!.figures;
    const depth = 1 / Math.sqrt(Math.PI * f * 4e-7 * Math.PI * 5.8e7);
    // A triangle of current: a third of the wire's resistance (Balanis 2-90).
    const loss = (0.05 * wl) / (2 * Math.PI * 5e-5 * wl * 5.8e7 * depth) / 3;
    const told = impedances(copper)[0][0][0] * (1 - figures.radiationEfficiency);
    expect(told / loss).toBeGreaterThan(0.9);
    expect(told / loss).toBeLessThan(1.15);
    expect(Math.abs(copper.meta.evidence.powerBalance![0])).toBeLessThan(1e-5);
    const coated = (permittivity: number) =>
      wireScene({ wires: [{ ...rod(), coat: { radius: 3e-3 * wl, permittivity: [permittivity, 0] } }], ports: [[0, 0.235 * wl]], frequency: f });
    const [air, cover] = [impedances(await solveWires(coated(1), host))[0][0], impedances(await solveWires(coated(3), host))[0][0]];
    expect(cover[1] - air[1]).toBeGreaterThan(20);
  });

  test('a wire whose radius steps lies between those of both radii, and keeps its energy', async () => {
    const part = (name: string, from: number, to: number, radius: number) => plainWire(name, [[0, 0, from * wl], [0, 0, to * wl]], radius * wl); // prettier-ignore
    const of = async (outer: number) => {
      const wires = [part('a', -0.24, -0.12, outer), part('b', -0.12, 0.12, 2e-3), part('c', 0.12, 0.24, outer)];
      return solveWires(wireScene({ wires, ports: [[1, 0.12 * wl]], frequency: f, recorders: [far] }), host);
    };
    const [thin, step, thick] = [await of(1e-4), await of(5e-4), await of(2e-3)];
    const x = [thin, step, thick].map((r) => impedances(r)[0][0][1]);
    expect((x[1] - x[0]) * (x[2] - x[1])).toBeGreaterThan(0);
    // Without a step it is one wire.
    const one = impedances(await solveWires(wireScene({ wires: [part('w', -0.24, 0.24, 2e-3)], ports: [[0, 0.24 * wl]], frequency: f }), host))[0][0];
    impedances(thick)[0][0].forEach((v, i) => expect(Math.abs(v - one[i])).toBeLessThan(0.02 * Math.hypot(...one)));
    for (const r of [thin, step]) expect(Math.abs(r.meta.evidence.powerBalance![0])).toBeLessThan(1e-5);
  });

  test('ports after one another: S is symmetric, each keeps its currents, and what goes in comes out or radiates', async () => {
    const scene = wireScene({ wires: [rod(), upright('b', 0.45 * wl, 1e-3 * wl, [0.2 * wl, 0, 0])], ports: [[0, 0.235 * wl], [1, 0.2 * wl]], frequency: f, recorders: [far] }); // prettier-ignore
    const { meta, arrays } = await solveWires(scene, host);
    expect(meta.excitations).toEqual([0, 1]);
    expect(meta.evidence.asymmetry!).toBeLessThan(1e-9);
    const s = arrays.s.data;
    const out = s[0] ** 2 + s[1] ** 2 + s[4] ** 2 + s[5] ** 2;
    const [figures] = meta.farField!.figures;
    expect(figures.radiated).toBeCloseTo(1 - out, 5);
    expect(meta.others![0].figures![0].accepted).toBeCloseTo(1 - (s[2] ** 2 + s[3] ** 2 + s[6] ** 2 + s[7] ** 2), 5);
    expect(arrays[excitationKey('wire:current', 1)].data).not.toEqual(arrays['wire:current'].data);
    // The probe of the sending port: V + 50 I is sqrt(8 * 50).
    const [vr, vi, ir, ii] = arrays['probe:p1'].data;
    expect(vr + 50 * ir).toBeCloseTo(20, 6);
    expect(vi + 50 * ii).toBeCloseTo(0, 6);
  });
});

describe('fields of wires', () => {
  const box: PlacedRecorder = {
    kind: 'field-box',
    name: 'box',
    min: [30 * wl, 0, 0],
    max: [30 * wl, 0, 0],
    electric: true,
    magnetic: true,
    centres: false,
    every: 1,
  };

  test('far away the field close by goes over into the pattern, and H is E over eta across it', async () => {
    const { arrays } = await solveWires(wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, recorders: [far, box, { ...box, name: 'alone', only: 2 }] }), host); // prettier-ignore
    const e = arrays['box:box'].data;
    expect([...arrays['box:alone'].data]).toEqual([e[4], e[5], e[10], e[11]]);
    const pattern = arrays.farField;
    // theta = 90 deg, phi = 0; E_theta is -E_z there.
    const at = 4 * (18 * pattern.shape[2]);
    const size = Math.hypot(pattern.data[at], pattern.data[at + 1]) / (30 * wl);
    expect(Math.hypot(e[4], e[5]) / size).toBeCloseTo(1, 3);
    expect(Math.hypot(e[4], e[5]) / Math.hypot(e[8], e[9]) / eta0).toBeCloseTo(1, 3);
    const phase = Math.atan2(-pattern.data[at + 1], -pattern.data[at]) - 2 * Math.PI * 30;
    expect(Math.cos(Math.atan2(e[5], e[4]) - phase)).toBeCloseTo(1, 3);
  });

  test('power through the sides of a box is what the wires radiate, and the current through a ring is the wire’s', async () => {
    const sides = [0, 1, 2].flatMap((normal) =>
      [-1, 1].map((sign): PlacedRecorder => {
        const h = 0.35 * wl;
        const min: Point3 = [-h, -h, -h];
        const max: Point3 = [h, h, h];
        min[normal] = max[normal] = sign * h;
        return { kind: 'flux', name: `${normal}${sign}`, normal: normal as 0, sign: sign as 1, min, max };
      }),
    );
    const ring: PlacedRecorder = { kind: 'current', name: 'ring', normal: 2, sign: 1, min: [-0.02 * wl, -0.02 * wl, 0.05 * wl], max: [0.02 * wl, 0.02 * wl, 0.05 * wl] }; // prettier-ignore
    const scene = wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, recorders: [far, ring, ...sides], more: { probes: [{ name: 'there', place: { wire: 0, at: 0.285 * wl } }] } }); // prettier-ignore
    const { meta, arrays } = await solveWires(scene, host);
    const through = recordedOf(meta, 'flux').reduce((sum, x) => sum + x.power[0], 0);
    expect(through / meta.farField!.figures[0].radiated).toBeCloseTo(1, 2);
    const [re, im] = recordedOf(meta, 'current')[0].current[0];
    const [, , pr, pi] = arrays['probe:there'].data;
    // Displacement current through the ring is what is left between them.
    expect(Math.hypot(re - pr, im - pi) / Math.hypot(pr, pi)).toBeLessThan(0.05);
  });

  test('at a perfect ground E stands upright, under it there is nothing', async () => {
    const flat: PlacedRecorder = { kind: 'field-line', name: 'line', axis: 2, at: [0.3 * wl, 0.1 * wl, 0], from: -0.1 * wl, to: 0.3 * wl };
    const level = plainWire('w', [[-0.2 * wl, 0, 0.15 * wl], [0.2 * wl, 0, 0.2 * wl]], 1e-3 * wl); // prettier-ignore
    for (const wave of [undefined, waveOf('wave', 0, 0.7, 0.4, 0.3, 0.5)]) {
      const scene = wireScene({
        wires: [level],
        ports: [[0, 0.2 * wl]],
        frequency: f,
        recorders: [flat],
        wave,
        more: { ground: { kind: 'perfect', at: 0 } },
      });
      const { arrays } = await solveWires(scene, host);
      const [z, e] = [arrays['line:line:at'].data, arrays['line:line'].data];
      const n = [...z].findIndex((x) => Math.abs(x) < 1e-9 * wl);
      const part = (i: number, c: number): number => Math.hypot(e[6 * i + 2 * c], e[6 * i + 2 * c + 1]);
      expect(part(n, 0) / part(n, 2)).toBeLessThan(1e-4);
      expect(part(n, 1) / part(n, 2)).toBeLessThan(1e-4);
      expect(part(0, 2)).toBe(0);
      expect(part(z.length - 1, 2)).toBeGreaterThan(0);
    }
  });
});

describe('a wave from many directions', () => {
  test('voltages, currents and the cross-section back are those of a run from each', async () => {
    const bent = plainWire('w', [[0, 0, 0.1 * wl], [0.1 * wl, 0, 0.3 * wl], [0.4 * wl, 0.1 * wl, 0.35 * wl]], 1e-3 * wl); // prettier-ignore
    const directions = [0.2, 0.7, 1.2].map((theta) => waveOf('sky', 0, theta, 0.5, 0.3, 0.4));
    const of = (wave: (typeof directions)[0], ground: 'perfect' | 'earth' | null) =>
      solveWires(
        wireScene({
          wires: [bent],
          ports: [[0, 0.1 * wl]],
          frequency: f,
          wave,
          recorders: [far],
          more: {
            ground:
              ground === null
                ? null
                : ground === 'perfect'
                  ? { kind: 'perfect', at: 0 }
                  : { kind: 'earth', at: 0, permittivity: 10, conductivity: 0.01 },
            loads: [{ name: 'load', place: { wire: 0, at: 0.3 * wl }, load: { form: 'series', r: 70, l: 0, c: 0 } }],
          },
        }),
        host,
      );
    for (const ground of [null, 'perfect', 'earth'] as const) {
      const { arrays, meta } = await of({ ...directions[0], sweep: directions }, ground);
      expect(meta.wave!.directions).toHaveLength(3);
      const alone = await of(directions[2], ground);
      const back = alone.meta.scattered!.figures[0].back;
      expect(arrays['sweep:back'].data[2] / back).toBeCloseTo(1, 9);
      const own = alone.arrays['probe:load'].data;
      for (const c of [0, 1, 2, 3]) expect(arrays['sweep:probe:load'].data[8 + c] / own[c]).toBeCloseTo(1, 5);
    }
  });
});

describe('a band', () => {
  test('the fit gives what solving each frequency gives, also near a sharp resonance', async () => {
    const loop: Point3[] = [[0, 0, 0], [0, 0, 0.25], [0.02, 0, 0.25], [0.02, 0, 0]]; // prettier-ignore
    const of = (from: number, to: number, points: number) =>
      solveWires(
        wireScene({ wires: [plainWire('hairpin', loop, 1e-3, true), upright('far', 0.3, 1e-3, [0.4, 0, 0])], ports: [[1, 0.15]], frequency: f, band: { from, to, points }, accuracy: 'fine', density: 80 }), // prettier-ignore
        host,
      );
    const whole = await of(200e6, 400e6, 81);
    expect(whole.meta.evidence.solved).toBeLessThan(30);
    expect(whole.meta.evidence.fitError!).toBeLessThan(1e-5);
    // The same segments: their length follows the highest frequency.
    const each = await of(200e6, 400e6, 7);
    each.arrays.frequency.data.forEach((frequency, n) => {
      const at = [...whole.arrays.frequency.data].findIndex((x) => Math.abs(x - frequency) < 1);
      if (at >= 0) for (const c of [0, 1]) expect(whole.arrays.s.data[2 * at + c]).toBeCloseTo(each.arrays.s.data[2 * n + c], 4);
    });
  });

  test('each frequency is solved where that is asked for', async () => {
    const scene = wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, band: { from: 250e6, to: 350e6, points: 21 } });
    const fitted = await solveWires(scene, host);
    const each = await solveWires({ ...scene, details: { eachFrequency: true } }, host);
    expect(each.meta.evidence).toMatchObject({ solved: 21, fitError: null });
    expect(fitted.meta.evidence.solved).toBeLessThan(15);
    each.arrays.s.data.forEach((v, i) => expect(fitted.arrays.s.data[i]).toBeCloseTo(v, 3));
  });

  test('stopped, it keeps what was solved', async () => {
    const stop = new AbortController();
    const scene = wireScene({
      wires: [rod()],
      ports: [[0, 0.235 * wl]],
      frequency: f,
      band: { from: 100e6, to: 900e6, points: 401 },
      recorders: [far],
    });
    stop.abort();
    const { solvers } = await import('@jadebell/core/solvers');
    const { meta, arrays } = await solvers.moment.solve(scene, { host, signal: stop.signal });
    expect(meta.evidence.ended).toBe('stopped');
    expect(arrays.s.data.every(Number.isFinite)).toBe(true);
  });

  test('progress grows from frequency to frequency and to the patterns, and tells what is left', async () => {
    const told: { fraction: number; step: number; steps: number; secondsLeft: number | null }[] = [];
    // A clock of its own, so that each report is due.
    let now = 0;
    const slow = { ...host, now: () => (now += 0.3) };
    const band = { from: 250e6, to: 350e6, points: 9 };
    const scene = { ...wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, band, recorders: [far] }), details: { eachFrequency: true } }; // prettier-ignore
    const { solvers } = await import('@jadebell/core/solvers');
    const { meta } = await solvers.moment.solve(scene, { host: slow, onProgress: (p) => void told.push(p) });
    expect(told.length).toBeGreaterThan(8);
    told.slice(1).forEach((p, i) => expect(p.fraction).toBeGreaterThanOrEqual(told[i].fraction));
    expect(told[0].fraction).toBeLessThan(0.2);
    expect(told.at(-1)!.fraction).toBeLessThanOrEqual(1);
    expect(told.at(-1)!.step).toBe(meta.evidence.solved);
    expect(told.at(-1)!.steps).toBe(band.points + 1);
    for (const p of told.slice(2)) expect(p.secondsLeft).toBeGreaterThan(0);
  });

  test('adaptive accuracy takes more segments until S stays', async () => {
    const { solvers } = await import('@jadebell/core/solvers');
    const { meta } = await solvers.moment.solve(wireScene({ wires: [rod()], ports: [[0, 0.235 * wl]], frequency: f, accuracy: 'adaptive' }), {
      host,
    });
    const passes = meta.evidence.passes!;
    expect(passes.length).toBeGreaterThan(2);
    expect(passes.slice(-2).every((p) => p.change! < 0.01)).toBe(true);
    expect(passes[passes.length - 1].cells).toBeGreaterThan(passes[0].cells);
  });
});
