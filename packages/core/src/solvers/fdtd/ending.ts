import { div } from '../../numerics/complex.ts';
import type { Channel, ChannelSpectra } from './channels.ts';
import { type Extrapolation, extrapolated } from './extrapolate.ts';
import type { Simulation } from './simulation.ts';
import type { Stepping } from './stepping.ts';

/** Frequencies of the band at which the waves are watched. */
export const watched = 9;
/** Each look comes after this multiple of the time of the last. */
const stretch = 1.2;
/** By how much the waves of faded series may differ from those carried on, where fields, which can only be faded, are recorded. */
const fadedFields = 1e-3;

/** Whether numbers have changed by less than a bound between three looks. Looks come at times that grow geometrically, so that a slow change is still seen. */
class Steady {
  private last: Float64Array | null = null;
  private quiet = 0;
  constructor(private readonly tolerance: number) {}

  update(now: Float64Array | null): boolean {
    this.quiet = now && this.last && difference(now, this.last) < this.tolerance ? this.quiet + 1 : 0;
    this.last = now;
    return this.quiet >= 2;
  }
}

const difference = (a: Float64Array, b: Float64Array): number => a.reduce((most, x, i) => Math.max(most, Math.abs(x - b[i])), 0);

/** Waves out of all channels for one into the excited one, at all frequencies of some spectra. */
function outputs(spectra: ChannelSpectra, channels: number, excited: number): Float64Array {
  const count = spectra.frequencies.length;
  const out = new Float64Array(2 * count * channels);
  for (let f = 0; f < count; f++) {
    const { a } = spectra.waves(excited, f);
    for (let c = 0; c < channels; c++) out.set(div(spectra.waves(c, f).b, a), 2 * (f * channels + c));
  }
  return out;
}

interface Judged {
  simulation: Simulation;
  channels: readonly Channel[];
  excited: number;
  stepping: Stepping;
  /** By how much waves out may still change. */
  tolerance: number;
  /** Frequencies at which the waves are watched, and those at which fields are recorded. */
  watch: Float64Array;
  recordAt: Float64Array;
  /** Step before which what has been sent in may still be on its way, unseen by any port. */
  soonest: number;
  /** Spectra of the series so far at some frequencies, carried on, or faded out. */
  carried(at: Float64Array, rest: Extrapolation): ChannelSpectra;
  faded(at: Float64Array): ChannelSpectra;
}

/**
 * Judges when a run whose energy leaves by guided ports may end although some is left, such as that which creeps about at a guide's cutoff beside the band, where
 * it falls as t^-3/2 or slower. Its tail is carried on by a fit of decaying exponentials; where waves so made no longer change between looks, they are those of the
 * endless run. Where no fit holds, the series are faded out, and it is their waves that must no longer change.
 */
export class Ending {
  private next: number;
  private readonly ofFaded: Steady;
  private readonly ofCarried: Steady;
  /** Whether waves carried on had settled at the last look. */
  portsSettled = false;

  constructor(private readonly by: Judged) {
    this.next = Math.ceil(by.stepping.pulseSteps * stretch);
    this.ofFaded = new Steady(by.tolerance);
    this.ofCarried = new Steady(by.tolerance);
  }

  /** Whether the run may end after a step. */
  over(step: number): boolean {
    if (step < this.next || step < this.by.soonest) return false;
    this.next = Math.ceil(step * stretch);
    const { simulation, channels, stepping, watch, faded, carried } = this.by;
    if (this.ofFaded.update(this.told(faded(watch)))) return true;
    const rest = extrapolated(simulation, channels, stepping);
    this.portsSettled = this.ofCarried.update(rest && this.told(carried(watch, rest)));
    if (!rest || !this.portsSettled) return false;
    return (this.fieldsOff(rest) ?? 0) < fadedFields;
  }

  /** Largest difference of faded waves from those carried on, at the frequencies of recorded fields; null where none are recorded. */
  fieldsOff(rest: Extrapolation): number | null {
    const { recordAt, faded, carried } = this.by;
    return recordAt.length ? difference(this.told(faded(recordAt)), this.told(carried(recordAt, rest))) : null;
  }

  private told(spectra: ChannelSpectra): Float64Array {
    return outputs(spectra, this.by.channels.length, this.by.excited);
  }
}
