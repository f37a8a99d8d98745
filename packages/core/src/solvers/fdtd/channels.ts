import { eta0 } from '../../numerics/constants.ts';
import { rightDivide } from '../../numerics/complexSolve.ts';
import type { Scene } from '../../scene/index.ts';
import type { GuideModes } from './guides.ts';
import { PortSpectrum } from './portSpectrum.ts';
import type { Simulation } from './simulation.ts';

/** One way in and out of the structure: a lumped port, or a mode of a guided one. */
export type Channel =
  | { kind: 'lumped'; name: string; port: number; resistance: number }
  | { kind: 'guided'; name: string; guide: number; mode: number; modes: GuideModes; shift: number };

/** Channels in the order of the document's ports, modes in theirs. */
export function channelsOf(scene: Scene, guides: GuideModes[]): Channel[] {
  const all: { order: number; channel: Channel }[] = [
    ...scene.ports.flatMap((p, port) =>
      p.load ? [] : [{ order: p.order, channel: { kind: 'lumped' as const, name: p.name, port, resistance: p.resistance } }],
    ),
    ...scene.guides.flatMap((g, guide) =>
      guides[guide].modes.map((_, mode) => ({
        order: g.order + mode / 100,
        channel: { kind: 'guided' as const, name: g.name, guide, mode, modes: guides[guide], shift: g.shift },
      })),
    ),
  ];
  return all.sort((a, b) => a.order - b.order).map((e) => e.channel);
}

/** Part of a series after which it is faded. */
const fadeFrom = 0.5;

/** Running spectra of all channels while one of them is excited. */
export class ChannelSpectra {
  private readonly first: PortSpectrum[];
  private readonly second: (PortSpectrum | null)[];

  constructor(
    private readonly channels: readonly Channel[],
    readonly frequencies: Float64Array | number[],
    private readonly excited: number,
    private readonly source: PortSpectrum,
    private readonly dt: number,
  ) {
    this.first = channels.map(() => new PortSpectrum(frequencies, dt, 1));
    this.second = channels.map((c) => (c.kind === 'guided' ? new PortSpectrum(frequencies, dt, 0.5) : null));
  }

  update(simulation: Simulation): void {
    this.channels.forEach((c, n) => {
      if (c.kind === 'lumped') this.first[n].update(simulation.voltage(c.port));
      else {
        const { v, i } = simulation.guided(c.guide, c.mode);
        this.first[n].update(v);
        this.second[n]!.update(i);
      }
    });
  }

  /**
   * Takes the whole series so far, faded out over its last part: what still rings outside the band, such as at the cutoff of
   * a guide, then does not spill into it. The fresh object's own sums must be empty.
   */
  takeFaded(simulation: Simulation, source: Float64Array): this {
    const fade = (x: Float64Array): Float64Array => {
      const from = Math.floor(fadeFrom * x.length);
      const out = x.slice();
      for (let n = from; n < x.length; n++) out[n] *= 0.5 + 0.5 * Math.cos((Math.PI * (n - from)) / (x.length - from));
      return out;
    };
    this.source.update(source.subarray(0, simulation.steps));
    this.channels.forEach((c, n) => {
      if (c.kind === 'lumped') this.first[n].update(fade(simulation.voltage(c.port)));
      else {
        const { v, i } = simulation.guided(c.guide, c.mode);
        this.first[n].update(fade(v));
        this.second[n]!.update(fade(i));
      }
    });
    return this;
  }

  /**
   * Waves into and out of the structure at a channel, W^(1/2), peak: a wave carries |a|^2 / 2. Below cutoff the mode's
   * admittance counts by its size. The voltage of a lumped port is taken as the mean over a step, as its resistor sees it.
   */
  waves(channel: number, f: number): { a: [number, number]; b: [number, number] } {
    const c = this.channels[channel];
    const v: [number, number] = [this.first[channel].re[f], this.first[channel].im[f]];
    if (c.kind === 'lumped') {
      const root = Math.sqrt(c.resistance);
      const mean = Math.cos(Math.PI * this.frequencies[f] * this.dt);
      const drive = channel === this.excited ? 1 / (2 * root) : 0;
      const a: [number, number] = [this.source.re[f] * drive, this.source.im[f] * drive];
      return { a, b: [(v[0] * mean) / root - a[0], (v[1] * mean) / root - a[1]] };
    }
    const { admittance } = c.modes.modes[c.mode].at(this.frequencies[f]);
    const i: [number, number] = [this.second[channel]!.re[f], this.second[channel]!.im[f]];
    const y2 = admittance[0] ** 2 + admittance[1] ** 2;
    const iy: [number, number] = [(i[0] * admittance[0] + i[1] * admittance[1]) / y2, (i[1] * admittance[0] - i[0] * admittance[1]) / y2];
    // As for lumped ports, the scheme's power is that of the mean of E over a step.
    const mean = Math.cos(Math.PI * this.frequencies[f] * this.dt);
    const weight = Math.sqrt((mean * Math.sqrt(y2)) / eta0) / 2;
    return { a: [weight * (v[0] + iy[0]), weight * (v[1] + iy[1])], b: [weight * (v[0] - iy[0]), weight * (v[1] - iy[1])] };
  }
}

/**
 * S from the waves of several excitations: B = S A, so that what the ends of the guides send back is taken out as well, where
 * every channel was excited; otherwise column by column. Result [frequency][to][excitation], pairs; reference planes shifted.
 */
export function scattering(
  channels: readonly Channel[],
  runs: readonly { excited: number; spectra: ChannelSpectra }[],
  frequencies: ArrayLike<number>,
): Float64Array {
  const [n, m] = [channels.length, runs.length];
  const out = new Float64Array(2 * frequencies.length * n * m);
  for (let f = 0; f < frequencies.length; f++) {
    const a = new Float64Array(2 * n * m);
    const b = new Float64Array(2 * n * m);
    runs.forEach((run, e) =>
      channels.forEach((_, c) => {
        const w = run.spectra.waves(c, f);
        a.set(w.a, 2 * (c * m + e));
        b.set(w.b, 2 * (c * m + e));
      }),
    );
    const s = (n === m ? rightDivide(b, a, n, m) : null) ?? columns(b, a, runs.map((r) => r.excited), n, m); // prettier-ignore
    const turn = channels.map((c) =>
      c.kind === 'guided' && c.shift ? c.modes.modes[c.mode].at(frequencies[f]).beta.map((x) => x * c.shift) : [0, 0],
    );
    for (let c = 0; c < n; c++)
      for (let e = 0; e < m; e++) {
        // A plane moved in by d takes exp(-j beta d) off each way.
        const [re, im] = [0, 1].map((k) => turn[c][k] + turn[runs[e].excited][k]);
        const grow = Math.exp(-im);
        const [x, y] = [s[2 * (c * m + e)], s[2 * (c * m + e) + 1]];
        const at = 2 * ((f * n + c) * m + e);
        out[at] = grow * (x * Math.cos(re) - y * Math.sin(re));
        out[at + 1] = grow * (x * Math.sin(re) + y * Math.cos(re));
      }
  }
  return out;
}

/** b over the a of the excited channel. */
function columns(b: Float64Array, a: Float64Array, excited: number[], n: number, m: number): Float64Array {
  const s = new Float64Array(2 * n * m);
  for (let e = 0; e < m; e++) {
    const own = 2 * (excited[e] * m + e);
    const d = a[own] ** 2 + a[own + 1] ** 2;
    for (let c = 0; c < n; c++) {
      const at = 2 * (c * m + e);
      s[at] = (b[at] * a[own] + b[at + 1] * a[own + 1]) / d;
      s[at + 1] = (b[at + 1] * a[own] - b[at] * a[own + 1]) / d;
    }
  }
  return s;
}
