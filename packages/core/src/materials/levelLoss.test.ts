import { describe, expect, test } from '@jest/globals';
import { fitPoles, gainOf, lossTangentPoles, modelAt, type PoleModel } from './index.ts';

/** Poles that a step has to remember; a conductivity is none. */
const states = ({ poles }: PoleModel): number => poles.reduce((n, { p }) => n + (p[0] === 0 && p[1] === 0 ? 0 : p[1] === 0 ? 1 : 2), 0);

describe('a level loss tangent', () => {
  // Relaxations that the model may take: what a step costs.
  test.each([
    [1.05, 1],
    [1.25, 1],
    [1.8, 2],
    [3, 3],
    [4, 3],
    [10, 4],
    [30, 6],
    [100, 8],
  ])('over %d : 1 follows loss and the causal slope within 0.5 %% of the loss, with at most %d relaxations', (ratio, most) => {
    const [from, permittivity, tangent] = [0.7e9, 4.3, 0.02];
    const loss = permittivity * tangent;
    const at = (from * (1 + ratio)) / 2;
    const model = lossTangentPoles(permittivity, tangent, at, [from, from * ratio]);
    let worst = 0;
    // Between the frequencies of the fit as well.
    for (let i = 0; i <= 200; i++) {
      const f = from * ratio ** (i / 200);
      const got = modelAt(model, 2 * Math.PI * f);
      const re = permittivity - (2 / Math.PI) * loss * Math.log(f / at);
      worst = Math.max(worst, Math.hypot(got.re - re, got.loss - loss) / loss);
    }
    process.stdout.write(`${ratio} : 1: off by ${(100 * worst).toFixed(3)} % of the loss, ${states(model)} relaxations\n`);

    expect(worst).toBeLessThan(5e-3);
    expect(states(model)).toBeLessThanOrEqual(most);
    expect(model.poles.every(({ r }) => r[0] > 0)).toBe(true);
    expect(gainOf(model, [from, from * ratio])).toBeNull();
    expect(modelAt(model, 2 * Math.PI * at).re).toBeCloseTo(permittivity, 9);
  });
  test('does not depend on the unit of frequency, and loss scales it', () => {
    const low = lossTangentPoles(4, 0.01, 1.5, [1, 2]);
    const high = lossTangentPoles(4, 0.03, 1.5e12, [1e12, 2e12]);
    low.poles.forEach(({ p, r }, n) => {
      expect(high.poles[n].p[0] / 1e12).toBeCloseTo(p[0], 9);
      expect(high.poles[n].r[0] / 3e12).toBeCloseTo(r[0], 9);
    });
  });
});

describe('a mixture of media', () => {
  const band = [2.5e9, 4.5e9] as const;
  const frequencies = [2.5e9, 3e9, 3.5e9, 4e9, 4.5e9];
  const medium = lossTangentPoles(9.8, 5e-2, 3.5e9, band);
  // Across a face the fields see a series of both.
  const series = frequencies.map((f) => {
    const { re, loss } = modelAt(medium, 2 * Math.PI * f);
    const d = re * re + loss * loss;
    const [a, b] = [0.5 + (0.5 * re) / d, (0.5 * loss) / d];
    return { re: a / (a * a + b * b), loss: b / (a * a + b * b) };
  });
  test('with a slack takes fewer terms, and stays within it', () => {
    const tight = fitPoles(frequencies, series, [medium.poles], band);
    const slack = 0.02 * (series[0].loss / series[0].re);
    const loose = fitPoles(frequencies, series, [medium.poles], band, slack);
    expect(loose.error).toBeLessThanOrEqual(Math.max(slack, 1.2 * tight.error));
    expect(states(loose.model)).toBeLessThan(states(tight.model));
    expect(gainOf(loose.model, band)).toBeNull();
  });
  test('side by side is the media themselves, exactly', () => {
    const parallel = frequencies.map((f) => {
      const { re, loss } = modelAt(medium, 2 * Math.PI * f);
      return { re: 1 + 0.3 * (re - 1), loss: 0.3 * loss };
    });
    const { model, error } = fitPoles(frequencies, parallel, [medium.poles], band, 1e-4);
    expect(error).toBeLessThan(2e-6);
    expect(states(model)).toBe(states(medium));
  });
});
