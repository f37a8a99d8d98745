import { beforeAll, describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import type { Point2 } from '@jadebell/core/document';
import { fieldShares, resultFor } from '@jadebell/core/reading';
import { type ResultSet, sCurve, excitationKey } from '@jadebell/core/results';
import type { GridScene, ScenePort } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { abs2 } from '@jadebell/core/numerics';

const metal = { name: 'metal', kind: 'conductor', conductivity: 5e3 } as const;

/** Two strip dipoles along x side by side, fed in the middle, with a resistor in a third. */
function pair(more: Partial<GridScene> = {}): GridScene {
  const arm = (name: string, order: number, x0: number, x1: number, y: number): ReturnType<typeof plainBody> => {
    const outline: Point2[] = [[x0, y - 2e-3], [x1, y - 2e-3], [x1, y + 2e-3], [x0, y + 2e-3]]; // prettier-ignore
    return plainBody(name, order, metal, { form: 'sheet', normal: 2, offset: 0, loops: [outline] });
  };
  const feed = (name: string, order: number, y: number): ScenePort => ({ name, order, resistance: 50, axis: 0, direction: 1, min: [-2e-3, y - 2e-3, 0], max: [2e-3, y + 2e-3, 0], across: 1 }); // prettier-ignore
  const ys = [-20e-3, 20e-3, 50e-3];
  return plainScene({
    bodies: ys.flatMap((y, i) => [arm(`low${i}`, 2 * i, -50e-3, -2e-3, y), arm(`high${i}`, 2 * i + 1, 2e-3, 50e-3, y)]),
    ports: [feed('one', 0, ys[0]), feed('two', 1, ys[1]), { ...feed('ballast', 2, ys[2]), load: { form: 'series', r: 80, l: 0, c: 0 } }],
    min: [-75e-3, -45e-3, -28e-3],
    max: [75e-3, 75e-3, 28e-3],
    band: { from: 1.2e9, to: 1.6e9, points: 5 },
    accuracy: 'draft',
    details: { smallestCell: 4e-3 },
    recorders: [
      { kind: 'far-field', name: 'pattern', step: Math.PI / 18 },
      { kind: 'field-plane', name: 'above', normal: 2, at: 10e-3 },
    ],
    recordAt: [1.3e9, 1.4e9],
    ...more,
  });
}

describe('waves together', () => {
  /** Both dipoles sent to, each kept by itself; the tests share it. */
  let each: ResultSet;
  beforeAll(async () => {
    each = await solvers.fdtd.solve(pair({ excite: ['one', 'two'], keepEach: true }), { host: await nodeHost() });
  }, 120_000);

  test('fields are the sum of those of each wave alone, at every frequency; balance and active reflection follow', async () => {
    const host = await nodeHost();
    const solve = (more: Partial<GridScene>): ReturnType<typeof solvers.fdtd.solve> => solvers.fdtd.solve(pair(more), { host });
    const alone = [await solve({ excite: ['one'] }), await solve({ excite: ['two'] })];
    const waves = [
      { port: 'one', mode: 1, amplitude: 2, phase: 0.3 },
      { port: 'two', mode: 1, amplitude: 1, phase: -1.4 },
    ];
    const both = await solve({ combine: waves });
    const weights = waves.map(({ amplitude, phase }) => [Math.cos(phase), Math.sin(phase)].map((x) => (x * amplitude) / Math.sqrt(5)));
    for (const name of ['farField', 'plane:above']) {
      let [most, size] = [0, 0];
      const got = both.arrays[name].data;
      for (let i = 0; i < got.length; i += 2) {
        let [re, im] = [0, 0];
        alone.forEach(({ arrays }, n) => {
          const [x, y] = [arrays[name].data[i], arrays[name].data[i + 1]];
          re += weights[n][0] * x - weights[n][1] * y;
          im += weights[n][0] * y + weights[n][1] * x;
        });
        most = Math.max(most, Math.hypot(got[i] - re, got[i + 1] - im));
        size = Math.max(size, Math.hypot(re, im));
      }
      process.stdout.write(`${name}: sum of the parts within ${(most / size).toExponential(1)}\n`);
      expect(most / size).toBeLessThan(1e-4);
    }
    // Kept each by itself they are those of the runs alone.
    for (const name of ['farField', 'plane:above'])
      alone.forEach(({ arrays }, turn) => {
        const [got, want] = [each.arrays[excitationKey(name, turn)].data, arrays[name].data];
        let [most, size] = [0, 0];
        for (let i = 0; i < got.length; i++) [most, size] = [Math.max(most, Math.abs(got[i] - want[i])), Math.max(size, Math.abs(want[i]))]; // prettier-ignore
        expect(most / size).toBeLessThan(1e-4);
      });
    expect(each.arrays['plane:above:u@1']).toBeUndefined();
    const second = each.meta.others![0];
    expect(second.turn).toBe(1);
    expect(second.figures![0].radiated / alone[1].meta.farField!.figures[0].radiated).toBeCloseTo(1, 4);
    const figures = both.meta.farField!.figures;
    // Combined when they are read they tell what the run told that combined them.
    const asked = waves.map(({ port, amplitude, phase }) => ({ channel: port, amplitude, phase: (180 * phase) / Math.PI }));
    const mixed = resultFor(each, fieldShares(each.meta, { name: 'asked', waves: asked }));
    const [fields, own] = [mixed, both].map((r) => r.arrays['plane:above'].data as Float32Array);
    const size = own.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    expect(fields.reduce((most, x, i) => Math.max(most, Math.abs(x - own[i])), 0) / size).toBeLessThan(1e-4);
    figures.forEach((f, at) => {
      const told = mixed.meta.farField!.figures[at];
      const decibels = (key: 'gain' | 'realisedGain'): number => 10 * Math.log10(told[key] / f[key]);
      process.stdout.write(
        `combined when read: accepted ${told.accepted.toFixed(4)} of ${f.accepted.toFixed(4)}, realised gain ${decibels('realisedGain').toFixed(3)} dB off\n`,
      );
      expect(told.accepted).toBeCloseTo(f.accepted, 3);
      expect(Math.abs(decibels('realisedGain'))).toBeLessThan(0.05);
      expect(Math.abs(decibels('gain'))).toBeLessThan(0.05);
    });
    // One wave alone is what the run told of it, figures of its recorders too.
    const ofSecond = resultFor(each, [{ column: 1, amplitude: [1, 0] }]);
    expect(ofSecond.meta.farField!.figures).toEqual(second.figures);
    expect(ofSecond.arrays.farField.data).toBe(each.arrays['farField@1'].data);
    figures.forEach((f) => expect(f.lost).toBeGreaterThan(0.01));
    for (const b of both.meta.evidence.powerBalance!) expect(Math.abs(b)).toBeLessThan(5e-3);
    // Active reflection from S, at the band's points that are recorded.
    const s = [0, 1].map((to) => [0, 1].map((from) => sCurve(both.arrays.s, to, from)));
    for (const [f, point] of [1, 2].entries())
      both.meta.combined!.forEach(({ channel, reflection, amplitude }) => {
        expect(amplitude).toBeCloseTo([2, 1][channel] / Math.sqrt(5), 12);
        let [re, im] = [0, 0];
        weights.forEach(([x, y], from) => {
          const t = s[channel][from][point];
          re += t[0] * x - t[1] * y;
          im += t[0] * y + t[1] * x;
        });
        const [x, y] = weights[channel];
        const size = x * x + y * y;
        expect(reflection[f][0]).toBeCloseTo((re * x + im * y) / size, 3);
        expect(reflection[f][1]).toBeCloseTo((im * x - re * y) / size, 3);
      });
  }, 120_000);

  thorough(
    'complex references: accepted power is what S says, and fields are those of ports ended by them',
    async () => {
      const host = await nodeHost();
      const base = pair();
      const xs = [-70, 40];
      const referred = (reactances: number[]): Partial<GridScene> => ({
        ports: base.ports.map((p, i) => (reactances[i] ? { ...p, reactance: reactances[i] } : p)),
      });
      const plain = each;
      const complex = await solvers.fdtd.solve(pair(referred(xs)), { host });
      expect(complex.meta.ports.map((p) => p.reactance)).toEqual(xs);
      complex.meta.farField!.figures.forEach((f, n) => {
        const at = Array.from(complex.arrays.frequency.data).findIndex((x) => Math.abs(x - f.frequency) < 1);
        const out = [0, 1].reduce((sum, to) => {
          const s = sCurve(complex.arrays.s, to, 0)[at];
          return sum + abs2(s);
        }, 0);
        process.stdout.write(
          `accepted ${f.accepted.toFixed(5)} of ${(1 - out).toFixed(5)} W, balance ${(100 * complex.meta.evidence.powerBalance![n]).toFixed(2)} %\n`,
        );
        expect(f.accepted).toBeCloseTo(1 - out, 3);
        expect(Math.abs(complex.meta.evidence.powerBalance![n] - plain.meta.evidence.powerBalance![n])).toBeLessThan(2e-3);
        expect(Math.abs(f.gain / plain.meta.farField!.figures[n].gain - 1)).toBeGreaterThan(1e-3);
      });
      // The second port ended by an inductor of 40 ohm at one frequency, in series with its resistor, in place of its reference.
      const frequency = base.recordAt[0];
      const ended = pair({
        ports: [base.ports[0], { ...base.ports[1], load: { form: 'series', r: 50, l: 40 / (2 * Math.PI * frequency), c: 0 } }, base.ports[2]],
        excite: ['one'],
      });
      const alone = await solvers.fdtd.solve(ended, { host });
      const both = await solvers.fdtd.solve(pair(referred([0, 40])), { host });
      const [d, e] = [alone, both].map((r) => r.meta.farField!.figures[0]);
      process.stdout.write(
        `directivity ${e.directivity.toFixed(4)} of ${d.directivity.toFixed(4)}, realised gain ${e.realisedGain.toFixed(4)} of ${d.realisedGain.toFixed(4)}\n`,
      );
      expect(Math.abs(e.directivity / d.directivity - 1)).toBeLessThan(3e-3);
      expect(Math.abs(e.realisedGain / d.realisedGain - 1)).toBeLessThan(5e-3);
    },
    240_000,
  );
});
