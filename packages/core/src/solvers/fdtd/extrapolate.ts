import { type Exponentials, exponentialsAt, fitExponentials } from '../../numerics/exponentials.ts';
import { sameNumber } from '../../numerics/tolerance.ts';
import type { Channel } from './channels.ts';
import type { Tail } from './portSpectrum.ts';
import type { Simulation } from './simulation.ts';
import type { Stepping } from './stepping.ts';

/** Most exponentials of a fit. */
const most = 40;
/** Fewest and most samples that are fitted. */
const [fewest, enough] = [60, 480];
/** Part of the samples that the fit is tried on before it is made anew with all. */
const held = 0.3;
/** Part of the ringing by which the trial may be off. */
const worst = 0.03; /** Part of the highest frequency from which on cutoffs are sought. */
const lowest = 0.01;

export interface Extrapolation {
  /** How far off the fit was on the part of the run it had not seen, as a part of it. */
  error: number;
  /** Resonances that ring on, strongest first: hertz, quality factor. */
  resonances: { frequency: number; q: number }[];
  /** What follows the run, of each of the channels' series in the order in which their spectra are updated. */
  tails: Tail[];
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
  { dt, pulseSteps, every }: Pick<Stepping, 'dt' | 'pulseSteps' | 'every'>,
): Extrapolation | null {
  const all = seriesOf(simulation, channels);
  const scales = scalesOf(all, channels);
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
  const samples = all.map((x, k) => Float64Array.from({ length: count }, (_, m) => x[from + m * every] / scales[k]));
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
  const tails = all.map((_, k) => tailOf(fit, k, every, (steps - from) / every, scales[k]));
  const creeping = cutoffsOf(channels, 1 / (2 * every * dt));
  // What creeps at a cutoff is no resonance; within the span of what is seen they look alike.
  const resonances = resonancesOf(fit, every * dt).filter(
    ({ frequency, q }) => !creeping.some((f) => Math.abs(frequency - f) < Math.max(frequency / q, 1 / (count * every * dt))),
  );
  return { error, resonances, tails };
}

/** What each series is held against: the largest value among voltages, or among amplitudes of modes, so that one with nothing but noise counts for nothing. */
function scalesOf(all: readonly Float64Array[], channels: readonly Channel[]): number[] {
  const kinds = channels.flatMap((c) => (c.kind === 'lumped' ? [c.kind] : c.signals.flatMap(() => [c.kind, c.kind])));
  const peaks = all.map((x) => x.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
  const largest = (kind: string): number => Math.max(...peaks.filter((_, k) => kinds[k] === kind)) || 1;
  const of = { lumped: largest('lumped'), guided: largest('guided') };
  return kinds.map((kind) => of[kind]);
}

/** Signal `s` of a fit of samples `every` steps apart, which were divided by `scale`, from sample `at` on, step by step. */
function tailOf({ zRe, zIm, amplitudes }: Exponentials, s: number, every: number, at: number, scale: number): Tail {
  const tail: Tail = {
    re: new Float64Array(zRe.length),
    im: new Float64Array(zRe.length),
    zRe: new Float64Array(zRe.length),
    zIm: new Float64Array(zRe.length),
  };
  zRe.forEach((re, k) => {
    const [size, angle] = [Math.log(Math.hypot(re, zIm[k])), Math.atan2(zIm[k], re)];
    const [a, b] = [amplitudes[s][2 * k], amplitudes[s][2 * k + 1]];
    const [grown, c, d] = [scale * Math.exp(size * at), Math.cos(angle * at), Math.sin(angle * at)];
    tail.re[k] = grown * (a * c - b * d);
    tail.im[k] = grown * (a * d + b * c);
    const step = Math.exp(size / every);
    tail.zRe[k] = step * Math.cos(angle / every);
    tail.zIm[k] = step * Math.sin(angle / every);
  });
  return tail;
}

/** Cutoffs of the modes of guided channels up to a frequency, hertz. */
function cutoffsOf(channels: readonly Channel[], highest: number): number[] {
  return channels.flatMap((c) => {
    if (c.kind !== 'guided') return [];
    const mode = c.modes.modes[c.mode];
    let [low, high] = [lowest * highest, highest];
    if (mode.at(low).propagates || !mode.at(high).propagates) return [];
    while (high - low > sameNumber * highest) {
      const middle = (low + high) / 2;
      if (mode.at(middle).propagates) high = middle;
      else low = middle;
    }
    return [high];
  });
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
