import { describe, expect, test } from '@jest/globals';
import { gainOf, lossTangentPoles, materialPoles, modelAt, permittivityAt, polesOf, library, fitPoles } from '../../materials/index.ts';
import { MediumClasses, stepsOfModel } from './dispersion.ts';

/** Permittivity that a stepped medium has: E = exp(j w t) is put in, the curl that keeps it up is read. */
function stepped(model: ReturnType<typeof polesOf>, f: number, dt: number): { re: number; loss: number } {
  const m = stepsOfModel(model, dt);
  const w = 2 * Math.PI * f;
  let e = [1, 0];
  // States of each part of E; run long enough for them to settle.
  const y = { real: m.real.map(() => [0, 0]), paired: m.paired.map(() => [0, 0, 0, 0]) };
  let curl: number[];
  let sum = [0, 0];
  const periods = 40;
  const steps = Math.round(periods / (f * dt));
  for (let n = 1; n <= steps; n++) {
    const next = [Math.cos(w * n * dt), Math.sin(w * n * dt)];
    const pull = [0, 1].map((k) => m.real.reduce((s, c, i) => s + c[1] * y.real[i][k], 0) + m.paired.reduce((s, c, i) => s + c[1][0] * y.paired[i][2 * k] - c[1][1] * y.paired[i][2 * k + 1], 0)); // prettier-ignore
    curl = [0, 1].map((k) => (next[k] - m.ca * e[k] + pull[k]) / m.cb);
    e = next;
    m.real.forEach((c, i) => [0, 1].forEach((k) => (y.real[i][k] = c[0] * y.real[i][k] + c[2] * e[k])));
    m.paired.forEach((c, i) =>
      [0, 1].forEach((k) => {
        const [a, b] = [y.paired[i][2 * k], y.paired[i][2 * k + 1]];
        y.paired[i][2 * k] = c[0][0] * a - c[0][1] * b + c[2][0] * e[k];
        y.paired[i][2 * k + 1] = c[0][0] * b + c[0][1] * a + c[2][1] * e[k];
      }),
    );
    // Mean over the last half of the run, in the rotating frame at the half step.
    if (n > steps / 2) {
      const [c, s] = [Math.cos(w * (n - 0.5) * dt), -Math.sin(w * (n - 0.5) * dt)];
      sum = [sum[0] + curl[0] * c - curl[1] * s, sum[1] + curl[0] * s + curl[1] * c];
    }
  }
  const count = steps - Math.floor(steps / 2);
  // curl = c0-scaled j (2/dt) sin(w dt/2) eps E.
  const k = ((2 / dt) * Math.sin((w * dt) / 2)) / 299792458;
  return { re: sum[1] / count / k, loss: sum[0] / count / k };
}

describe('media with memory', () => {
  test.each([
    ['Fresh water, 25 C', 5e9],
    ['Fused silica (optical)', 1.93e14],
    ['Silicon nitride (optical)', 1.93e14],
    ['Gold (infrared)', 3e13],
  ])('%s: poles give the formula, steps give the poles', (name, f) => {
    const m = library.find((x) => x.name === name)!;
    const model = polesOf(m.dispersion!);
    const want = permittivityAt(m, f);
    const size = Math.hypot(want.re, want.loss);
    const exact = modelAt(model, 2 * Math.PI * f);
    expect(Math.hypot(exact.re - want.re, exact.loss - want.loss) / size).toBeLessThan(1e-9);
    // Forty steps a period: the trapezoid rule warps by (w dt)^2 / 12.
    const got = stepped(model, f, 1 / (40 * f));
    expect(Math.hypot(got.re - want.re, got.loss - want.loss) / size).toBeLessThan(5e-3);
  });

  test('resonances: one under, one over critical damping, and the pole form, agree with the textbook fraction', () => {
    const f = 2e9;
    for (const damping of [1e8, 9e9]) {
      const { re, loss } = modelAt(polesOf({ form: 'lorentz', infinity: 2, terms: [[1.5, 3e9, damping]] }), 2 * Math.PI * f);
      const [x, y] = [9 - 4, (2 * damping) / 1e9];
      expect(re).toBeCloseTo(2 + (1.5 * 9 * x) / (x * x + y * y), 6);
      expect(loss).toBeCloseTo((1.5 * 9 * y) / (x * x + y * y), 6);
    }
  });

  test('a constant loss tangent is level over the band and causal: permittivity falls by 2 / pi tan delta per e-fold', () => {
    for (const [from, to] of [
      [0.8e9, 1e9],
      [1e9, 20e9],
    ] as const) {
      const model = lossTangentPoles(4, 0.02, (from + to) / 2, [from, to]);
      for (const f of [from, Math.sqrt(from * to), to]) expect(modelAt(model, 2 * Math.PI * f).loss).toBeCloseTo(0.08, 3);
      expect(modelAt(model, Math.PI * (from + to)).re).toBeCloseTo(4, 9);
      const fall = modelAt(model, 2 * Math.PI * from).re - modelAt(model, 2 * Math.PI * to).re;
      expect(Math.abs(fall / ((2 / Math.PI) * 0.08 * Math.log(to / from)) - 1)).toBeLessThan(0.15);
      expect(gainOf(model, [from, to])).toBeNull();
    }
  });

  test('gain is found: a negative residue, a growing pole', () => {
    expect(gainOf({ infinity: 2, poles: [{ p: [-1e10, 0], r: [-1e9, 0] }] }, [1e9, 2e9])).not.toBeNull();
    expect(gainOf({ infinity: 2, poles: [{ p: [1e8, 6e9], r: [0, -1e9] }] }, [1e9, 2e9])).toBeCloseTo(9.55e8, -6);
    expect(
      gainOf(
        materialPoles(
          library.find((m) => m.name === 'Silver (infrared)')!,
          [3e13, 6e13],
        )!,
        [3e13, 6e13],
      ),
    ).toBeNull();
  });

  test('mixtures of a metal, a resonant and a lossy medium with air are fitted by passive terms', () => {
    const band = [2.5e13, 3.5e13] as const;
    const gold = polesOf(library.find((m) => m.name === 'Gold (infrared)')!.dispersion!);
    const glass = polesOf({ form: 'lorentz', infinity: 2, terms: [[0.8, 3e13, 2e12]] });
    const frequencies = Array.from({ length: 7 }, (_, i) => band[0] + ((band[1] - band[0]) * i) / 6);
    for (const part of [0.2, 0.5, 0.8]) {
      for (const [model, limit] of [
        [gold, 2e-3],
        [glass, 2e-4],
      ] as const) {
        const across = frequencies.map((f) => {
          const { re, loss } = modelAt(model, 2 * Math.PI * f);
          return { re: 1 + part * (re - 1), loss: part * loss };
        });
        expect(fitPoles(frequencies, across, [model.poles], band).error).toBeLessThan(limit);
        const along = frequencies.map((f) => {
          const { re, loss } = modelAt(model, 2 * Math.PI * f);
          const d = re * re + loss * loss;
          const [ir, ii] = [(part * re) / d + 1 - part, (part * loss) / d];
          const s = ir * ir + ii * ii;
          return { re: ir / s, loss: ii / s };
        });
        const fit = fitPoles(frequencies, along, [model.poles], band);
        expect(fit.error).toBeLessThan(limit);
        expect(gainOf(fit.model, band)).toBeNull();
      }
    }
  });

  test('mixtures that are alike are one class, others are not; vacuum is none', () => {
    const model = lossTangentPoles(4, 0.01, 1.5e9, [1e9, 2e9]);
    const frequencies = [1e9, 1.5e9, 2e9];
    const values = (part: number): Float64Array =>
      Float64Array.from(
        frequencies.flatMap((f) => {
          const { re, loss } = modelAt(model, 2 * Math.PI * f);
          return [1 + part * (re - 1), part * loss];
        }),
      );
    const classes = new MediumClasses(1e-12, frequencies, [1e9, 2e9], [{ model, values: values(1) }]);
    expect(classes.of(values(1))).toBe(1);
    expect(classes.of(values(0))).toBe(0);
    const half = classes.of(values(0.5));
    expect(half).toBe(2);
    expect(classes.of(values(0.5 + 1e-6))).toBe(half);
    expect(classes.of(values(0.25))).toBe(3);
    for (const part of [0.5, 0.25]) {
      const v = values(part);
      const got = modelAt(classes.list[classes.of(v) - 1].model, 3e9 * Math.PI);
      expect(got.re).toBeCloseTo(v[2], 4);
      expect(got.loss).toBeCloseTo(v[3], 5);
    }
  });
});
