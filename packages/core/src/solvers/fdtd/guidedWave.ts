import type { Axis } from '../../numerics/axis.ts';
import { abs, type Complex, exp, mul, scale, sub, add } from '../../numerics/complex.ts';
import { eta0 } from '../../numerics/constants.ts';
import type { Grid } from '../../grid/index.ts';
import type { FaceSamples } from '../../radiation/index.ts';
import type { Face } from '../../recorders/index.ts';
import type { Region } from '../../yee/index.ts';
import type { Channel } from './channels.ts';

/** A guided mode of a port behind which the model goes on, with its waves into and out of the structure, W^(1/2), at one frequency. */
export interface GuidedWave {
  channel: Extract<Channel, { kind: 'guided' }>;
  a: Complex;
  b: Complex;
}

/** The channels whose ports' planes the recording box crosses, with their waves. */
export const wavesThrough = (channels: readonly Channel[], annexed: readonly boolean[], a: readonly Complex[], b: readonly Complex[]): GuidedWave[] =>
  channels.flatMap((channel, n) =>
    channel.kind === 'guided' && channel.modes.modes[channel.mode].shape && !annexed[channel.guide] ? [{ channel, a: a[n], b: b[n] }] : [],
  );

/**
 * Takes guided waves out of the samples of a face of the recording box that stands across their guide: they go on in it, and radiate nothing. `region` says where
 * the samples stand on the grid, `dt` is the step in seconds, `frequency` in hertz. Changes the samples.
 */
export function takeOut(
  face: Face,
  samples: FaceSamples,
  region: Region,
  grid: Grid,
  waves: readonly GuidedWave[],
  frequency: number,
  dt: number,
): void {
  for (const { channel, a, b } of waves) {
    const { plane: g, section, step, modes } = channel.modes;
    const mode = modes[channel.mode];
    const { propagates, beta, admittance } = mode.at(frequency);
    if (g.normal !== face.normal || face.outward !== -g.into || !propagates) continue;
    // Amplitudes of the mode's E on the port's plane, as the waves were told from them.
    const weight = Math.sqrt((channel.images * Math.cos(Math.PI * frequency * dt) * abs(admittance)) / eta0);
    const lines = grid.lines[g.normal];
    const wave = (x: number): [Complex, Complex] => {
      const turn = (sign: number): Complex => exp([0, -sign * beta[0] * Math.abs(x - lines[g.plane])]);
      return [scale(1 / weight, mul(a, turn(1))), scale(1 / weight, mul(b, turn(-1)))];
    };
    const shares = mode.shape!.shares(frequency);
    let factor: Complex;
    if (face.magnetic) {
      // H stands half a cell on both sides of the face, and was drawn to it in a line.
      const between = [face.index - 1, face.index].map((i) => (lines[i] + lines[i + 1]) / 2);
      const b0 = (2 / step) * Math.sin((beta[0] * step) / 2);
      const t = (lines[face.index] - between[0]) / (between[1] - between[0]);
      const [below, above] = between.map((x) => sub(...wave(x)));
      factor = scale(g.into / b0, add(scale(1 - t, below), scale(t, above)));
    } else factor = add(...wave(lines[face.index]));
    remove(samples, region, channel, face, face.magnetic ? shares.h : shares.e, factor, section.u.length);
  }
}

/** Subtracts a mode's profile, times a factor, from samples of a face. */
function remove(
  samples: FaceSamples,
  { from, innerAxis, outerAxis, inner, outer }: Region,
  { modes: { plane: g, section, modes }, mode }: GuidedWave['channel'],
  { component, magnetic }: Face,
  shares: readonly number[],
  factor: Complex,
  width: number,
): void {
  const { profiles } = modes[mode].shape!;
  const alongU = component === g.u;
  // E beside curved metal is kept times the free part of its edge.
  const free = magnetic ? undefined : alongU ? section.lu : section.lv;
  const at: [number, number, number] = [0, 0, 0];
  const inPort = (a: Axis, n: 0 | 1): number => (at[a] >= g.lo[n] && at[a] <= g.hi[n] ? at[a] - g.lo[n] : -1);
  for (let o = 0; o < outer; o++)
    for (let i = 0; i < inner; i++) {
      [at[innerAxis], at[outerAxis]] = [from[innerAxis] + i, from[outerAxis] + o];
      const [iu, iv] = [inPort(g.u, 0), inPort(g.v, 1)];
      if (iu < 0 || iv < 0) continue;
      const n = iv * width + iu;
      const value = profiles.reduce((sum, m, k) => sum + shares[k] * (magnetic ? m.h : m.e)[alongU ? 'u' : 'v'][n], 0) * (free?.[n] ?? 1);
      samples.re[o * inner + i] -= value * factor[0];
      samples.im[o * inner + i] -= value * factor[1];
    }
}
