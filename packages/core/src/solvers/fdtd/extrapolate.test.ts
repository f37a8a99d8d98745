import { describe, expect, test } from '@jest/globals';
import type { Channel } from './channels.ts';
import { extrapolated } from './extrapolate.ts';
import { PortSpectrum } from './portSpectrum.ts';
import type { Simulation } from './simulation.ts';

const dt = 1e-12;
const pulseSteps = 500;
/** Two resonances that both ports see, each in its own part. */
const rings = [
  { frequency: 5e9, q: 400, parts: [1, -0.4] },
  { frequency: 6.3e9, q: 150, parts: [0.3, 0.8] },
];
const ringing = (port: number, n: number): number =>
  rings.reduce(
    (sum, r) => sum + r.parts[port] * Math.exp((-Math.PI * r.frequency * n * dt) / r.q) * Math.cos(2 * Math.PI * r.frequency * n * dt + port),
    0,
  );

/** A run of so many steps whose ports read what is given. */
function run(steps: number, signal: (port: number, n: number) => number): Parameters<typeof extrapolated> {
  const series = [0, 1].map((port) => Float64Array.from({ length: steps }, (_, n) => signal(port, n)));
  const channels: Channel[] = [0, 1].map((port) => ({ kind: 'lumped', name: `p${port}`, port, resistance: 50, reactance: 0 }));
  return [{ steps, voltage: (port: number) => series[port] } as unknown as Simulation, channels, { dt, pulseSteps, every: 12 }];
}

describe('a run that is cut short while it rings', () => {
  test('is carried on to the end of its ringing, and its resonances are told', () => {
    const steps = 6000;
    const out = extrapolated(...run(steps, ringing))!;
    expect(out.error).toBeLessThan(1e-6);
    expect(out.resonances).toHaveLength(2);
    for (const { frequency, q } of rings) {
      const found = out.resonances.find((r) => Math.abs(r.frequency / frequency - 1) < 1e-5)!;
      expect(Math.abs(found.q / q - 1)).toBeLessThan(1e-3);
    }
    // Its spectrum is that of a run of a million steps, on a resonance, off it, and half a step late.
    const frequencies = [5e9, 5.02e9, 5.7e9];
    out.tails.forEach((tail, port) => {
      const signal = (length: number): Float64Array => Float64Array.from({ length }, (_, n) => ringing(port, n));
      const [short, whole] = [steps, 1_000_000].map((length) => {
        const spectrum = new PortSpectrum(frequencies, dt, 0.5);
        spectrum.update(signal(length));
        return spectrum;
      });
      short.carryOn(tail);
      const size = Math.hypot(whole.re[0], whole.im[0]);
      frequencies.forEach((_, f) => expect(Math.hypot(short.re[f] - whole.re[f], short.im[f] - whole.im[f]) / size).toBeLessThan(1e-6));
    });
  });

  test('bears what the arithmetic of the stepping adds', () => {
    let seed = 7;
    const noise = (): number => 1e-6 * ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5);
    const out = extrapolated(...run(6000, (port, n) => ringing(port, n) + noise()))!;
    expect(Math.abs(out.resonances[0].frequency / rings[0].frequency - 1)).toBeLessThan(1e-4);
    // Three thousand steps on.
    const { re, im, zRe, zIm } = out.tails[0];
    const told = re.reduce((sum, x, k) => {
      const [size, angle] = [Math.hypot(zRe[k], zIm[k]) ** 3000, 3000 * Math.atan2(zIm[k], zRe[k])];
      return sum + size * (x * Math.cos(angle) - im[k] * Math.sin(angle));
    }, 0);
    expect(Math.abs(told - ringing(0, 9000))).toBeLessThan(1e-3);
  });

  test('is left as it is where too little was seen, or the fit does not foretell the rest', () => {
    expect(extrapolated(...run(pulseSteps + 59 * 12, ringing))).toBeNull();
    let seed = 3;
    const noise = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5;
    expect(extrapolated(...run(6000, noise))).toBeNull();
    // Something that begins after what the trial has seen.
    expect(extrapolated(...run(6000, (port, n) => ringing(port, n) + (n > 5400 ? Math.sin(n / 9) : 0)))).toBeNull();
  });
});
