/** A signal as a sum of decaying exponentials: at step m the real part of the sum of (re + j im) z^m. */
export interface Tail {
  re: Float64Array;
  im: Float64Array;
  zRe: Float64Array;
  zIm: Float64Array;
}

/** Running Fourier sum of a real signal sampled every step, at fixed frequencies, in double precision. */
export class PortSpectrum {
  readonly re: Float64Array;
  readonly im: Float64Array;
  private done = 0;
  private readonly turnRe: Float64Array;
  private readonly turnIm: Float64Array;

  /** `late` is the time of the first sample in steps. */
  constructor(
    readonly frequencies: ArrayLike<number>,
    private readonly dt: number,
    private readonly late: number,
  ) {
    const n = frequencies.length;
    this.re = new Float64Array(n);
    this.im = new Float64Array(n);
    this.turnRe = Float64Array.from({ length: n }, (_, f) => Math.cos(2 * Math.PI * frequencies[f] * dt));
    this.turnIm = Float64Array.from({ length: n }, (_, f) => -Math.sin(2 * Math.PI * frequencies[f] * dt));
  }

  /** Takes in the samples of `signal` not yet seen. Phases are renewed at each call, so their error does not grow. */
  update(signal: Float64Array): void {
    for (let f = 0; f < this.frequencies.length; f++) {
      const angle = -2 * Math.PI * this.frequencies[f] * (this.done + this.late) * this.dt;
      let c = Math.cos(angle);
      let s = Math.sin(angle);
      const tr = this.turnRe[f];
      const ti = this.turnIm[f];
      let re = 0;
      let im = 0;
      for (let n = this.done; n < signal.length; n++) {
        re += c * signal[n];
        im += s * signal[n];
        const next = c * tr - s * ti;
        s = c * ti + s * tr;
        c = next;
      }
      this.re[f] += re * this.dt;
      this.im[f] += im * this.dt;
    }
    this.done = signal.length;
  }

  /** Adds what follows the samples so far, to its end: geometric series in closed form. */
  carryOn({ re, im, zRe, zIm }: Tail): void {
    for (let f = 0; f < this.frequencies.length; f++) {
      const step = -2 * Math.PI * this.frequencies[f] * this.dt;
      const [c, s] = [Math.cos(step), Math.sin(step)];
      let [sumRe, sumIm] = [0, 0];
      for (let k = 0; k < re.length; k++)
        for (const sign of [1, -1]) {
          // Half of x / (1 - z q) and of the same with x and z conjugate, q the turn of a step.
          const [a, b, p, q] = [re[k] / 2, (sign * im[k]) / 2, zRe[k], sign * zIm[k]];
          const [u, v] = [1 - (p * c - q * s), -(p * s + q * c)];
          const size = u * u + v * v;
          sumRe += (a * u + b * v) / size;
          sumIm += (b * u - a * v) / size;
        }
      const angle = step * (this.done + this.late);
      const [x, y] = [Math.cos(angle), Math.sin(angle)];
      this.re[f] += (sumRe * x - sumIm * y) * this.dt;
      this.im[f] += (sumRe * y + sumIm * x) * this.dt;
    }
  }
}
