import { problem, ProblemError } from '../../document/index.ts';
import type { Progress, SolverHost } from '../solver.ts';
import type { Simulation } from './simulation.ts';

const unstable = problem(
  'error',
  'solver.unstable',
  { part: 'solve' },
  'The fields grew without end, which is a fault of the scheme on this grid and not of the structure.',
  'Take another accuracy, so that curved and slanted bodies are cut elsewhere, and report the project.',
);

/** How a run went: step and energy relative to its peak so far, energy left, why it ended. */
export interface March {
  energies: [number, number][];
  residual: number;
  ended: 'decayed' | 'settled' | 'steps' | 'stopped';
}

export interface MarchOptions {
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
export async function march(simulation: Simulation, o: MarchOptions): Promise<March> {
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
  let steps = Math.min(maxSteps, pulseSteps * 2);
  const back = energies[Math.max(0, energies.length - 6)];
  if (step > pulseSteps && back[1] > last[1]) {
    const rate = Math.log(back[1] / last[1]) / (last[0] - back[0]);
    steps = Math.min(maxSteps, Math.ceil(step + Math.log(last[1] / stopAt) / rate));
  } else if (step >= steps) steps = maxSteps;
  // The excitations to come are expected to take as long as this one.
  const fraction = Math.min(0.99, (turn + step / steps) / turns);
  return { fraction, step, steps, turn, turns, energy: last[1], secondsLeft: (elapsed / fraction) * (1 - fraction), s: own };
}
