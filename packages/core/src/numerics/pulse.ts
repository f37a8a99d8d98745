/** Gaussian-modulated sine. Times in seconds, frequencies in hertz. */
export interface Pulse {
  centre: number;
  tau: number;
  delay: number;
  /** Seconds until the pulse is over. */
  length: number;
  /** Above this frequency its spectrum is below -100 dB of the peak. */
  highest: number;
}

/** Level of the spectrum at `spread` from the centre: -10 dB. */
const edgeLevel = Math.log(10 ** 0.5);

/** A pulse for a band: at least as wide as the band at -10 dB, and never narrower than 0.35 of the centre frequency, so that it stays short. */
export function pulseFor(from: number, to: number): Pulse {
  const centre = (from + to) / 2;
  const spread = Math.max((to - from) / 2, 0.35 * centre);
  const tau = Math.sqrt(edgeLevel) / (Math.PI * spread);
  const delay = 4.5 * tau;
  return { centre, tau, delay, length: 2 * delay, highest: centre + spread * Math.sqrt(Math.log(1e5) / edgeLevel) };
}

/** Voltage of the pulse at time t, peak about 1 V. */
export const pulseAt = (p: Pulse, t: number): number => Math.exp(-(((t - p.delay) / p.tau) ** 2)) * Math.sin(2 * Math.PI * p.centre * (t - p.delay));

/** Magnitude of the pulse's spectrum at f over that at its strongest, dB (closed form; the two Gaussians at +-centre). */
export function pulseLevel(p: Pulse, f: number): number {
  const line = (x: number): number => Math.exp(-((Math.PI * x * p.tau) ** 2));
  return 20 * Math.log10(Math.abs(line(f - p.centre) - line(f + p.centre)));
}
