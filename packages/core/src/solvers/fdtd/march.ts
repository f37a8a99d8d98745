import { problem, ProblemError } from '../../document/index.ts';
import type { Progress, SolverHost } from '../solver.ts';
import type { Simulation } from './simulation.ts';

/** Told where a run gains energy by itself. */
export const unstable = problem(
  'error',
  'solver.unstable',
  { part: 'solve' },
  'The fields grew without end, which is a fault of the scheme on this grid and not of the structure.',
  'Take another accuracy, so that curved and slanted bodies are cut elsewhere, and report the project.',
);

/** How a run went: step and energy relative to its peak so far, energy left, why it ended. */
export interface SteppedRun {
  energies: [number, number][];
  residual: number;
  ended: 'decayed' | 'settled' | 'steps' | 'stopped';
}

export interface StepOptions {
  maxSteps: number;
  /** Steps between two looks. */
  perPeriod: number;
  /** Steps in which the source is on. */
  pulseSteps: number;
  /** Energy, relative to its peak, at which the run ends. */
  stopAt: number;
  host: SolverHost;
  signal?: AbortSignal;
  /** Whether what is asked for has settled. */
  settled?: (step: number) => boolean;
  /** Where running sums are to be faded out once all has settled: which share of the run comes before that, and what begins it, from a step to a step. */
  fading?: { from: number; begin(from: number, to: number): void };
  /** Called at each look. */
  each(energies: readonly [number, number][]): void;
}

/** Steps a model until its energy has gone, what is asked for has settled, the limit is reached or it is stopped. */
export async function runSteps(simulation: Simulation, o: StepOptions): Promise<SteppedRun> {
  const energies: [number, number][] = [];
  let peak = 0;
  /** Why the run ends after the fading that is under way. */
  let ending: 'settled' | 'steps' | null = null;
  let fading = false;
  let limit = o.fading ? Math.ceil(o.fading.from * o.maxSteps) : o.maxSteps;
  for (;;) {
    const raw = await simulation.advance(Math.min(o.perPeriod, limit - simulation.steps));
    const step = simulation.steps;
    // No passive structure gains energy once its pulse has passed.
    if (!Number.isFinite(raw) || (step > 2 * o.pulseSteps && raw > 10 * peak)) throw new ProblemError([unstable]);
    peak = Math.max(peak, raw);
    const residual = raw / peak;
    energies.push([step, residual]);
    await o.host.breathe();
    if (step >= o.pulseSteps && residual <= o.stopAt) return { energies, residual, ended: 'decayed' };
    const full = step >= limit;
    if (full && ending) return { energies, residual, ended: ending };
    if (!ending) ending = o.settled?.(step) ? 'settled' : full ? 'steps' : null;
    if (ending && (!o.fading || step >= o.maxSteps)) return { energies, residual, ended: ending };
    if (ending && (full || ending === 'settled') && !fading) {
      fading = true;
      limit = Math.min(o.maxSteps, Math.ceil(step / o.fading!.from));
      o.fading!.begin(step, limit);
    }
    if (o.signal?.aborted) return { energies, residual, ended: 'stopped' };
    o.each(energies);
  }
}

/**
 * Step at which the energy will have fallen to a level, by a straight line through the logarithm of what was seen lately since a step, so that energy
 * that beats does not make it jump. Infinite where it does not fall, null where too little was seen.
 */
function endOfDecay(energies: readonly (readonly [step: number, energy: number])[], since: number, level: number): number | null {
  const first = energies.findIndex((e) => e[0] > since);
  const seen = first < 0 ? 0 : energies.length - first;
  if (seen < 4) return null;
  const recent = energies.slice(-Math.min(seen, Math.max(24, Math.ceil((2 * seen) / 3))));
  const mean = (of: (e: readonly [number, number]) => number): number => recent.reduce((sum, e) => sum + of(e), 0) / recent.length;
  const [step, size] = [mean((e) => e[0]), mean((e) => Math.log(Math.max(e[1], 1e-300)))];
  const slope = mean((e) => (e[0] - step) * (Math.log(Math.max(e[1], 1e-300)) - size)) / mean((e) => (e[0] - step) ** 2);
  return slope < 0 ? step + (Math.log(level) - size) / slope : Infinity;
}

/** Progress, with a forecast from the decay of the energy since the pulse. */
export function forecast(
  energies: readonly [number, number][],
  {
    maxSteps,
    pulseSteps,
    stopAt,
    elapsed,
    turn,
    turns,
  }: { maxSteps: number; pulseSteps: number; stopAt: number; elapsed: number; turn: number; turns: number },
  own?: Progress['s'],
): Progress {
  const last = energies[energies.length - 1];
  const step = last[0];
  const end = endOfDecay(energies, pulseSteps, stopAt) ?? 2 * pulseSteps;
  const steps = Math.min(maxSteps, Math.max(Math.ceil(end), step + 1));
  // The excitations to come are expected to take as long as this one.
  const fraction = Math.min(0.99, (turn + step / steps) / turns);
  return { fraction, step, steps, turn, turns, energy: last[1], secondsLeft: (elapsed / fraction) * (1 - fraction), s: own };
}
