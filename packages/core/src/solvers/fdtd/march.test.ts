import { describe, expect, test } from '@jest/globals';
import { forecast } from './march.ts';

const told = (energies: [number, number][]): ReturnType<typeof forecast> =>
  forecast(energies, { maxSteps: 1e5, pulseSteps: 500, stopAt: 1e-5, elapsed: energies[energies.length - 1][0] / 100, turn: 0, turns: 1 });
/** Energy every 50 steps: full during the pulse, then it falls to 1e-5 at step 5500, beating by a factor of up to ten. */
const beating =
  (depth: number) =>
  (n: number): [number, number] => {
    const step = 50 * (n + 1);
    return [step, step <= 500 ? 1 : 10 ** ((-5 * (step - 500)) / 5000) * (1 - depth * Math.sin(step / 130) ** 2)];
  };

describe('forecast of a run', () => {
  test.each([0, 0.5, 0.9])('goes forward, and ends where the energy does, though it beats by %d', (depth) => {
    const energies: [number, number][] = [];
    let [before, worst] = [0, 0];
    for (let n = 0; n < 109; n++) {
      energies.push(beating(depth)(n));
      const { fraction, steps } = told(energies);
      // Once the decay has been seen for a while.
      if (n > 30) [worst, before] = [Math.max(worst, before - fraction), fraction];
      if (n > 60) expect(Math.abs(steps / 5500 - 1)).toBeLessThan(0.12);
    }
    process.stdout.write(`beating by ${depth}: falls back by at most ${(100 * worst).toFixed(1)} %\n`);
    expect(worst).toBeLessThan(0.06);
    expect(before).toBeGreaterThan(0.9);
  });

  test('energy that stays makes it the step limit, and a run is never told whole before it is', () => {
    const energies = Array.from({ length: 60 }, (_, n): [number, number] => [50 * (n + 1), 1]);
    expect(told(energies).steps).toBe(1e5);
    const done = Array.from({ length: 130 }, (_, n) => beating(0)(n));
    expect(told(done).fraction).toBeLessThanOrEqual(0.99);
    expect(told(energies.slice(0, 4)).steps).toBe(1000);
  });
});
