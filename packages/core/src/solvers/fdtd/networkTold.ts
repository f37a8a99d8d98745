import type { TimeEvidence } from '../../methods/index.ts';
import type { ResultArray, ResultMeta } from '../../results/index.ts';
import type { Channel } from './channels.ts';
import type { Excitation } from './jobs.ts';
import type { Simulation } from './simulation.ts';

/** What a result tells of a channel. */
export function portTold(c: Channel): ResultMeta['ports'][number] {
  if (c.kind === 'lumped') return { name: c.name, resistance: c.resistance, ...(c.reactance ? { reactance: c.reactance } : {}) };
  const { mode, impedance, voltage } = c.modes.modes[c.mode];
  return {
    name: c.name,
    resistance: 0,
    mode: c.mode + 1,
    family: mode.kind,
    modeName: c.modes.names[c.mode],
    impedance: impedance ?? undefined,
    voltage,
  };
}

/** How the ringing was carried on: the worst error, and the resonances of the run that told most of them; and how far off recorded fields may be. */
export function restOf(runs: readonly Excitation[]): Pick<TimeEvidence, 'carriedOn' | 'fieldsOff'> {
  const rests = runs.flatMap((r) => r.rest ?? []);
  if (!rests.length) return {};
  const off = runs.flatMap((r) => r.fieldsOff ?? []);
  const fullest = rests.reduce((a, b) => (b.resonances.length > a.resonances.length ? b : a));
  return {
    ...(off.length ? { fieldsOff: Math.max(...off) } : {}),
    carriedOn: { runs: rests.length, error: Math.max(...rests.map((r) => r.error)), resonances: fullest.resonances },
  };
}

/** Most power that comes out for power 1 in, as an amplitude, and by how much S differs from its transpose; channels below cutoff left out. */
export function networkEvidence(
  s: Float64Array,
  channels: readonly Channel[],
  runs: readonly Excitation[],
  band: Float64Array,
): { largestReflection: number; asymmetry: number | null } {
  const [n, m] = [channels.length, runs.length];
  let largest = 0;
  let asymmetry: number | null = null;
  for (let f = 0; f < band.length; f++) {
    const open = channels.map((c) => c.kind === 'lumped' || c.modes.modes[c.mode].at(band[f]).propagates);
    runs.forEach(({ excited }, e) => {
      if (!open[excited]) return;
      let sum = 0;
      for (let c = 0; c < n; c++) {
        if (!open[c]) continue;
        const at = 2 * ((f * n + c) * m + e);
        sum += s[at] ** 2 + s[at + 1] ** 2;
        const back = runs.findIndex((r) => r.excited === c);
        if (back < 0 || c === excited) continue;
        const other = 2 * ((f * n + excited) * m + back);
        asymmetry = Math.max(asymmetry ?? 0, Math.hypot(s[at] - s[other], s[at + 1] - s[other + 1]));
      }
      largest = Math.max(largest, Math.sqrt(sum));
    });
  }
  return { largestReflection: largest, asymmetry };
}

/** Propagation constants [frequency][channel][2], 1/m, and profiles of guided modes. */
export function guideArrays(channels: readonly Channel[], band: Float64Array, arrays: Record<string, ResultArray>): void {
  if (!channels.some((c) => c.kind === 'guided')) return;
  const beta = new Float64Array(2 * band.length * channels.length);
  for (let f = 0; f < band.length; f++)
    channels.forEach((c, n) => {
      if (c.kind === 'guided') beta.set(c.modes.modes[c.mode].at(band[f]).beta, 2 * (f * channels.length + n));
    });
  arrays.beta = { shape: [band.length, channels.length, 2], data: beta };
  channels.forEach((c, n) => {
    if (c.kind !== 'guided') return;
    const { section, modes } = c.modes;
    const { u, v } = modes[c.mode].mode.e;
    const size = section.u.length * section.v.length;
    const data = new Float32Array(2 * size);
    data.set(u);
    data.set(v, size);
    arrays[`mode:${n}`] = { shape: [2, section.v.length, section.u.length], data };
    arrays[`mode:${n}:u`] = { shape: [section.u.length], data: section.u };
    arrays[`mode:${n}:v`] = { shape: [section.v.length], data: section.v };
  });
}

/** Port voltages and amplitudes of guided modes over time, thinned to at most 2000 samples. */
export function timeSignal(simulation: Simulation, channels: readonly Channel[], dt: number): Record<string, ResultArray> {
  const ports = channels.length;
  const every = Math.max(1, Math.ceil(simulation.steps / 2000));
  const count = Math.floor(simulation.steps / every);
  const signals = channels.map((c) =>
    c.kind === 'lumped' ? simulation.voltage(c.port) : simulation.guided(c.guide, c.signals[c.signals.length >> 1]).v,
  );
  return {
    time: { shape: [count], data: Float64Array.from({ length: count }, (_, n) => (n + 1) * every * dt) },
    signal: {
      shape: [count, ports],
      data: Float64Array.from({ length: count * ports }, (_, i) => signals[i % ports][(Math.floor(i / ports) + 1) * every - 1]),
    },
  };
}
