import { describe, expect, test } from '@jest/globals';
import { plainBody, plainScene, filament, uniformGrid } from '@jadebell/verification/bench';
import { discretise, Simulation, type SimulationPlan } from '@jadebell/core/solvers/fdtd/parts';
import { pulseAt, pulseFor } from '@jadebell/core/numerics';
import { planeRegion, sumAt } from '@jadebell/core/yee';
import { nodeHost } from './index.ts';

const step = 4e-3;
const steps = 300;

/** A small block and a source in a box, open or closed. */
function plan(open: boolean, change: Partial<SimulationPlan> = {}, loss = 0.05): SimulationPlan {
  const min: [number, number, number] = [-8 * step, -7 * step, -6 * step];
  const max = min.map((v) => -v) as [number, number, number];
  const block = plainBody(
    'block',
    0,
    { name: 'block', kind: 'dielectric', permittivity: 3, lossTangent: loss },
    { form: 'box', min: [2 * step, -3 * step, -2 * step], max: [5 * step, 4 * step, 3 * step] },
  );
  const scene = plainScene({
    bodies: [block],
    ports: [filament('source', [-3 * step, step, 0], 2, 2 * step, 100), filament('ear', [0, -3 * step, 3 * step], 1, step, 1e9)],
    min,
    max,
    band: { from: 1e9, to: 4e9, points: 2 },
    boundaries: Array<'open' | 'electric'>(6).fill(open ? 'open' : 'electric'),
  });
  const grid = uniformGrid(min, max, [16, 14, 12], open ? 6 : 0);
  const pulse = pulseFor(1e9, 4e9);
  return {
    discrete: discretise(scene, grid),
    waveform: (p, t) => (p === 0 ? pulseAt(pulse, t) : 0),
    resistance: (p) => scene.ports[p].resistance,
    maxSteps: steps,
    regions: [],
    frequencies: [],
    every: 1,
    lowest: 1e9,
    boundaries: scene.boundaries,
    ...change,
  };
}

async function run(
  p: SimulationPlan,
  threads: number,
  blocks = [steps],
): Promise<{ signal: Float64Array; energies: number[]; simulation: Simulation }> {
  const simulation = await Simulation.create(p, await nodeHost(threads));
  const energies: number[] = [];
  for (const b of blocks) energies.push(await simulation.advance(b));
  simulation.close();
  return { signal: simulation.voltage(1).slice(), energies, simulation };
}

describe('simulation', () => {
  test('gives the very same numbers on one, two and three threads, in one block or many', async () => {
    const one = await run(plan(true), 1);
    expect(one.signal.some((v) => Math.abs(v) > 1e-4)).toBe(true);
    for (const threads of [2, 3]) expect((await run(plan(true), threads)).signal).toEqual(one.signal);
    expect((await run(plan(true), 2, [1, 99, 150, 50])).signal).toEqual(one.signal);
  });

  test('keeps energy in a closed lossless box once the source is silent, and loses it through open walls', async () => {
    const blocks = Array<number>(10).fill(30);
    const silent = (p: SimulationPlan): SimulationPlan => ({
      ...p,
      resistance: (port) => (port === 0 ? 1e9 : 1e9),
      waveform: (port, t) => 1e6 * p.waveform(port, t),
    });
    const closed = (await run(silent(plan(false, {}, 0)), 2, blocks)).energies;
    const quiet = closed.slice(5);
    // Vacuum weights: the share inside the block sloshes, the mean must not drift.
    const mean = quiet.reduce((s, v) => s + v, 0) / quiet.length;
    for (const e of quiet) expect(Math.abs(e - mean) / mean).toBeLessThan(0.2);
    const open = (await run(plan(true), 2, blocks)).energies;
    expect(open[9] / Math.max(...open)).toBeLessThan(1e-3);
  });

  test('running sums agree with a sum over the recorded signal', async () => {
    // A sheet-free plane through the ear: the port's voltage is E_y times the step.
    const frequencies = [1.5e9, 2.5e9];
    const p = plan(true);
    const { grid } = p.discrete;
    const [i, j, k] = p.discrete.ports[1][0].index;
    const region = planeRegion(grid, 1, 2, k, [i, j, 0], [i + 1, j + 1, 0]);
    const { simulation, signal } = await run({ ...p, regions: [region], frequencies, every: 3 }, 2);
    const sums = simulation.sums(0);
    const at = region.innerAxis === 0 ? sumAt(sums, 0, 0, 1) : [NaN, NaN];
    let re = 0;
    let im = 0;
    for (let n = 2; n < steps; n += 3) {
      const angle = 2 * Math.PI * frequencies[1] * (n + 1) * p.discrete.dt;
      re += (signal[n] / step) * Math.cos(angle);
      im -= (signal[n] / step) * Math.sin(angle);
    }
    expect(at[0]).toBeCloseTo(re, 4);
    expect(at[1]).toBeCloseTo(im, 4);
  });
});
