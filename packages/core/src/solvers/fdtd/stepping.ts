import { steppingDefaults } from '../../methods/index.ts';
import { type Pulse, pulseAt, pulseFor } from '../../numerics/pulse.ts';
import { bandFrequencies, type GridScene } from '../../scene/index.ts';
import type { Progress, SolveOptions } from '../solver.ts';
import { leavesByGuides } from './annex.ts';
import { stepLimit } from './check.ts';
import type { Discrete } from './discrete.ts';
import { forecast } from './march.ts';
import type { SimulationPlan } from './simulation.ts';

/** Samples per period of the highest frequency in the pulse for the running Fourier sums. */
export const samplesPerPeriod = 2.4;
/** Wall seconds between two progress reports. */
const reportEvery = 0.4;

/** How a scene is stepped, whatever excites it. */
export interface Stepping {
  /** Seconds of a step. */
  dt: number;
  pulse: Pulse;
  /** Frequencies of the band, Hz. */
  band: Float64Array;
  maxSteps: number;
  /** Steps in which the pulse is on. */
  pulseSteps: number;
  /** Steps between two looks at the run. */
  perPeriod: number;
  /** Steps between two samples of the running Fourier sums. */
  every: number;
  /** Energy, relative to its peak, at which the run ends. */
  stopAt: number;
}

/** How a scene is stepped on its discrete model. `observed`: the fields are looked at, and then not at the same phase each time. */
export function steppingOf(scene: GridScene, { dt }: Discrete, observed: boolean): Stepping {
  const pulse = pulseFor(scene.band.from, scene.band.to);
  return {
    dt,
    pulse,
    band: bandFrequencies(scene.band),
    maxSteps: stepLimit(scene, dt),
    pulseSteps: Math.ceil(pulse.length / dt),
    perPeriod: Math.max(8, Math.round((observed ? 1.37 : 1) / (pulse.centre * dt))),
    every: Math.max(1, Math.floor(1 / (samplesPerPeriod * pulse.highest * dt))),
    // Between guided ports energy has nowhere to go but out of them: what rings on is in S, so less of it may be left.
    stopAt: scene.details.stopAt ?? (leavesByGuides(scene.guides) ? steppingDefaults.stopAtGuided : steppingDefaults.stopAt),
  };
}

/** The exciting pulse at the middles of the steps. */
export const pulseSeries = ({ pulse, dt, maxSteps }: Stepping): Float64Array =>
  Float64Array.from({ length: maxSteps }, (_, n) => pulseAt(pulse, (n + 0.5) * dt));

/** What a simulation of a scene is made from, whatever excites it. */
export const planOf = (scene: GridScene, discrete: Discrete, { maxSteps, every }: Stepping) =>
  ({
    discrete,
    resistance: (p) => scene.ports[p].resistance,
    load: (p) => scene.ports[p].load ?? null,
    maxSteps,
    frequencies: scene.recordAt,
    every,
    lowest: scene.band.from,
    boundaries: scene.boundaries,
  }) satisfies Partial<SimulationPlan>;

/** A teller of progress, which does so only every so often: of a turn among so many, with the energies so far, and S as it forms. */
export function progressOf({ host, onProgress }: SolveOptions, { maxSteps, stopAt }: Stepping, turns: number) {
  const started = host.now();
  let last = started;
  return (turn: number, pulseSteps: number, energies: readonly [number, number][], forming?: () => Progress['s']): void => {
    const now = host.now();
    if (!onProgress || now - last <= reportEvery) return;
    last = now;
    onProgress(forecast(energies, { maxSteps, pulseSteps, stopAt, elapsed: now - started, turn, turns }, forming?.()));
  };
}
