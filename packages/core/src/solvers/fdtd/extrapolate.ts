import { type Exponentials, exponentialsAt, fitExponentials } from '../../numerics/exponentials.ts';
import type { Channel } from './channels.ts';
import type { Simulation } from './simulation.ts';

/** Most exponentials of a fit. */
const most = 40;
/** Fewest and most samples that are fitted. */
const [fewest, enough] = [60, 480];
/** Part of the samples that the fit is tried on before it is made anew with all. */
const held = 0.3;
/** Part of the ringing by which the trial may be off. */
const worst = 0.03;
/** The rest is carried on until it has fallen to this part, or for so many times as long as the run. */
const faint = 1e-5;
const stretch = 60;

export interface Extrapolation {
  /** How far off the fit was on the part of the run it had not seen, as a part of it. */
  error: number;
  /** Resonances that ring on, strongest first: hertz, quality factor. */
  resonances: { frequency: number; q: number }[];
  /** The channels' series, in the order in which their spectra are updated, carried on to the end of the ringing. */
  series: Float64Array[];
}

/** Series of all channels, in the order in which `ChannelSpectra.update` takes them. */
const seriesOf = (simulation: Simulation, channels: readonly Channel[]): Float64Array[] =>
  channels.flatMap((c) =>
    c.kind === 'lumped'
      ? [simulation.voltage(c.port)]
      : c.signals.flatMap((s) => {
          const { v, i } = simulation.guided(c.guide, s);
          return [v, i];
        }),
  );

/**
 * Carries a run that ended while its structure was still ringing on by a fit of decaying exponentials, common to all channels, to the time
 * after the pulse. Null where the run is too short, or where a fit to its first part does not foretell the rest.
 * `every` is a number of steps at which the signals are still sampled often enough.
 */
export function extrapolated(
  simulation: Simulation,
  channels: readonly Channel[],
  dt: number,
  pulseSteps: number,
  every: number,
): Extrapolation | null {
  const all = seriesOf(simulation, channels);
  const steps = simulation.steps;
  // The later half of the time after the pulse: by then short transients have gone.
  let from = Math.ceil((pulseSteps + steps) / 2);
  let count = Math.floor((steps - from) / every);
  if (count < fewest) {
    from = pulseSteps;
    count = Math.floor((steps - from) / every);
  }
  if (count < fewest) return null;
  if (count > enough) {
    from = steps - enough * every;
    count = enough;
  }
  const samples = all.map((x) => Float64Array.from({ length: count }, (_, m) => x[from + m * every]));
  const seen = Math.floor(count * (1 - held));
  const trial = fitExponentials(
    samples.map((x) => x.slice(0, seen)),
    most,
  );
  if (!trial) return null;
  let [off, size] = [0, 0];
  samples.forEach((x, s) => {
    const told = exponentialsAt(trial, s, seen, 1, count - seen);
    for (let m = seen; m < count; m++) [off, size] = [off + (x[m] - told[m - seen]) ** 2, size + x[m] ** 2];
  });
  const error = Math.sqrt(off / size);
  if (!(error < worst)) return null;
  const fit = fitExponentials(samples, most);
  if (!fit) return null;
  const slowest = Math.max(...Array.from(fit.zRe, (re, k) => Math.hypot(re, fit.zIm[k])));
  const more = Math.min(stretch * steps, Math.ceil((every * Math.log(faint)) / Math.log(slowest)));
  const series = all.map((x, s) => {
    const out = new Float64Array(steps + more);
    out.set(x);
    out.set(exponentialsAt(fit, s, (steps - from) / every, 1 / every, more), steps);
    return out;
  });
  return { error, resonances: resonancesOf(fit, every * dt), series };
}

/** Resonances of a fit, those below a hundredth of the strongest left out. */
function resonancesOf({ zRe, zIm, amplitudes }: Exponentials, interval: number): Extrapolation['resonances'] {
  const all = Array.from(zRe, (re, k) => {
    const [decay, turn] = [-Math.log(Math.hypot(re, zIm[k])), Math.atan2(zIm[k], re)];
    const size = Math.max(...amplitudes.map((a) => Math.hypot(a[2 * k], a[2 * k + 1])));
    return { frequency: turn / (2 * Math.PI * interval), q: turn / (2 * decay), size };
  }).filter((r) => r.frequency > 0 && r.q > 1);
  const strongest = Math.max(0, ...all.map((r) => r.size));
  return all
    .filter((r) => r.size > 0.01 * strongest)
    .sort((a, b) => b.size - a.size)
    .map(({ frequency, q }) => ({ frequency, q }));
}
