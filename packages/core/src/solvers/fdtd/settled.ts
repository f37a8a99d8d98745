import type { ChannelSpectra } from './channels.ts';

/** Frequencies of the band at which the waves are watched. */
export const watched = 9;
/** Each look comes after this multiple of the time of the last. */
const stretch = 1.2;

/**
 * Tells when the waves of all channels no longer change in the band although some energy is left, such as that which creeps
 * about at a guide's cutoff outside the band. Looks come at times that grow geometrically, so that a slow resonance, which
 * changes the waves by little in any short time, is still seen; two quiet looks in a row are asked for.
 */
export class SteadyStateDetector {
  private next: number;
  private last: Float64Array | null = null;
  private quiet = 0;

  constructor(
    firstStep: number,
    private readonly channels: number,
    private readonly excited: number,
    private readonly tolerance: number,
  ) {
    this.next = Math.ceil(firstStep * stretch);
  }

  /** Whether it is time for a look. */
  isDue(step: number): boolean {
    return step >= this.next;
  }

  /** Looks at spectra of the time until `step`, at the watched frequencies. */
  update(step: number, spectra: ChannelSpectra): boolean {
    this.next = Math.ceil(step * stretch);
    const now = new Float64Array(2 * watched * this.channels);
    for (let i = 0; i < watched; i++) {
      const { a } = spectra.waves(this.excited, i);
      const size = Math.hypot(a[0], a[1]);
      for (let c = 0; c < this.channels; c++) now.set(spectra.waves(c, i).b.map((x) => x / size), 2 * (i * this.channels + c)); // prettier-ignore
    }
    const change = this.last ? this.last.reduce((m, v, i) => Math.max(m, Math.abs(v - now[i])), 0) : Infinity;
    this.last = now;
    this.quiet = change < this.tolerance ? this.quiet + 1 : 0;
    return this.quiet >= 2;
  }
}
