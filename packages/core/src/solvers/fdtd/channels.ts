import { abs, add, type Complex, div, exp, mul, scale, sub } from '../../numerics/complex.ts';
import { eta0 } from '../../numerics/constants.ts';
import { rightDivide } from '../../numerics/complexSolve.ts';
import type { GridScene } from '../../scene/index.ts';
import { PortSpectrum, type Tail } from './portSpectrum.ts';
import type { Simulation } from './simulation.ts';
import type { GuideModes, ModeShape } from './modeTypes.ts';

/** One way in and out of the structure: a lumped port, or a mode of a guided one. */
export type Channel =
  | { kind: 'lumped'; name: string; port: number; resistance: number; reactance: number }
  | { kind: 'guided'; name: string; guide: number; mode: number; modes: GuideModes; shift: number; signals: number[]; images: number };

/** Channels in the order of the document's ports, modes in theirs. */
export function channelsOf(scene: GridScene, guides: GuideModes[]): Channel[] {
  const all: { order: number; channel: Channel }[] = [
    ...scene.ports.flatMap((p, port) =>
      p.load
        ? []
        : [{ order: p.order, channel: { kind: 'lumped' as const, name: p.name, port, resistance: p.resistance, reactance: p.reactance ?? 0 } }],
    ),
    ...scene.guides.flatMap((g, guide) =>
      guides[guide].modes.map((_, mode) => ({
        order: g.order + mode / 100,
        channel: {
          kind: 'guided' as const,
          name: g.name,
          guide,
          mode,
          modes: guides[guide],
          shift: g.shift,
          signals: signalsOf(guides[guide], mode),
          images: g.images ?? 1,
        },
      })),
    ),
  ];
  return all.sort((a, b) => a.order - b.order).map((e) => e.channel);
}

/** Signals of a port that belong to a mode: its own, or those of its profiles. */
function signalsOf({ modes }: GuideModes, mode: number): number[] {
  const width = (m: number): number => modes[m].shape?.profiles.length ?? 1;
  let first = 0;
  for (let m = 0; m < mode; m++) first += width(m);
  return Array.from({ length: width(mode) }, (_, k) => first + k);
}

/** Part of a series after which it is faded. */
const fadeFrom = 0.5;

/** Running spectra of all channels while one of them is excited. */
export class ChannelSpectra {
  /** Of each channel the spectra of its signals: voltages or E, and H. */
  private readonly first: PortSpectrum[][];
  private readonly second: PortSpectrum[][];

  constructor(
    private readonly channels: readonly Channel[],
    readonly frequencies: Float64Array | number[],
    private readonly excited: number,
    private readonly source: PortSpectrum,
    private readonly dt: number,
  ) {
    const spectra = (c: Channel, late: number): PortSpectrum[] =>
      (c.kind === 'guided' ? c.signals : [0]).map(() => new PortSpectrum(frequencies, dt, late));
    // Before absorbing layers E is read before a step, else after it.
    this.first = channels.map((c) => spectra(c, c.kind === 'guided' && c.modes.modes[c.mode].shape ? 0 : 1));
    this.second = channels.map((c) => (c.kind === 'guided' ? spectra(c, 0.5) : []));
  }

  update(simulation: Simulation, change: (x: Float64Array) => Float64Array = (x) => x): void {
    this.channels.forEach((c, n) => {
      if (c.kind === 'lumped') this.first[n][0].update(change(simulation.voltage(c.port)));
      else
        c.signals.forEach((signal, k) => {
          const { v, i } = simulation.guided(c.guide, signal);
          this.first[n][k].update(change(v));
          this.second[n][k].update(change(i));
        });
    });
  }

  /** Takes the whole series so far and what follows it, in the order of `update`. The fresh object's own sums must be empty. */
  takeCarried(simulation: Simulation, tails: readonly Tail[], source: Float64Array): this {
    this.source.update(source.subarray(0, simulation.steps));
    this.update(simulation);
    let next = 0;
    this.channels.forEach((_, n) =>
      this.first[n].forEach((first, k) => {
        first.carryOn(tails[next++]);
        this.second[n][k]?.carryOn(tails[next++]);
      }),
    );
    return this;
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
    this.update(simulation, fade);
    return this;
  }

  /**
   * Waves into and out of the structure at a channel, W^(1/2), peak: a wave carries |a|^2 / 2. Below cutoff the mode's
   * admittance counts by its size. The voltage of a lumped port is taken as the mean over a step, as its resistor sees it.
   */
  waves(channel: number, f: number): { a: Complex; b: Complex } {
    const c = this.channels[channel];
    const v: Complex = [this.first[channel][0].re[f], this.first[channel][0].im[f]];
    if (c.kind === 'lumped') {
      const root = Math.sqrt(c.resistance);
      const mean = Math.cos(Math.PI * this.frequencies[f] * this.dt);
      const drive = channel === this.excited ? 1 / (2 * root) : 0;
      const a: Complex = [this.source.re[f] * drive, this.source.im[f] * drive];
      return { a, b: [(v[0] * mean) / root - a[0], (v[1] * mean) / root - a[1]] };
    }
    const mode = c.modes.modes[c.mode];
    const { admittance, beta } = mode.at(this.frequencies[f]);
    if (mode.shape) return this.shapedWaves(channel, f, mode.shape, admittance, beta, c.modes.step, c.images);
    const i: Complex = [this.second[channel][0].re[f], this.second[channel][0].im[f]];
    const iy = div(i, admittance);
    // As for lumped ports, the scheme's power is that of the mean of E over a step.
    const mean = Math.cos(Math.PI * this.frequencies[f] * this.dt);
    // The mode is of unit norm on the computed part; its images carry as much each.
    const weight = Math.sqrt((c.images * mean * abs(admittance)) / eta0) / 2;
    return { a: scale(weight, add(v, iy)), b: scale(weight, sub(v, iy)) };
  }

  /**
   * The same of a mode whose shape changes: its profile at this frequency is a sum of the recorded ones. H stands half a cell
   * inside, where a wave in is by exp(-j beta d / 2) late and one out by as much early; their sum on the plane and their difference
   * there are what was projected.
   */
  private shapedWaves(
    channel: number,
    f: number,
    shape: ModeShape,
    admittance: Complex,
    beta: Complex,
    step: number,
    images: number,
  ): { a: Complex; b: Complex } {
    const frequency = this.frequencies[f];
    const shares = shape.shares(frequency);
    const sum = (list: PortSpectrum[], by: number[]): Complex =>
      by.reduce<Complex>((t, s, k) => [t[0] + s * list[k].re[f], t[1] + s * list[k].im[f]], [0, 0]);
    const flux = shape.flux(frequency);
    // E was projected on the profiles' H, and H on their E.
    const v = sum(this.first[channel], shares.h).map((x) => x / flux) as Complex;
    // Half a cell of the mode: z = exp(-j beta d / 2), w its inverse; Y on the plane is that half a cell on, times (z + w) / 2.
    const w = exp(mul([0, step / 2], beta));
    const both = add(div([1, 0], w), w);
    const half = div(admittance, scale(1 / 2, both));
    const i = div(sum(this.second[channel], shares.e), half);
    // v = p + q and i = p z - q w.
    const p = div(add(i, mul(v, w)), both);
    const q = sub(v, p);
    const mean = Math.cos(Math.PI * frequency * this.dt);
    const weight = Math.sqrt((images * mean * abs(admittance)) / eta0);
    return { a: scale(weight, p), b: scale(weight, q) };
  }
}

/**
 * S from the waves of several excitations: B = S A, so that what the ends of the guides send back is taken out as well, where
 * every channel was excited; otherwise column by column. Result [frequency][to][excitation], pairs; reference planes shifted.
 */
export function scattering(
  channels: readonly Channel[],
  runs: readonly { excited: number; spectra: Pick<ChannelSpectra, 'waves'> }[],
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
