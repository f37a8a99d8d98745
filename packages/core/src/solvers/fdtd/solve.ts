import { type Problem, ProblemError } from '../../document/index.ts';
import { type ResultArray, type ResultMeta, resultOf, type ResultSet, turnName } from '../../results/index.ts';
import type { RecorderTold } from '../../recorders/index.ts';
import { bandFrequencies, farFieldOf, type GridScene } from '../../scene/index.ts';
import { denseKernel } from '../modes/index.ts';
import type { SolveOptions } from '../solver.ts';
import { stepLimit } from './check.ts';
import { type Channel, channelsOf, ChannelSpectra, scattering } from './channels.ts';
import { hasReactance, ownReferences, ownResistances } from './references.ts';
import { renormalised } from '../../network/renormalise.ts';
import { energyArray, steppingEvidence } from './evidence.ts';
import { extrapolated } from './extrapolate.ts';
import { FieldSum, fieldWeights, type RecordedFields } from './fieldSum.ts';
import { guideModes } from './guides.ts';
import { type Excitation, fromJob, jobOf } from './jobs.ts';
import { forecast, march } from './march.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { pulseAt, pulseFor } from '../../numerics/pulse.ts';
import { planRecording, type RecordedArrays, tellRecorders } from './recorders.ts';
import { solveModes } from './rectangleModes.ts';
import { Settled, watched } from './settled.ts';
import { Simulation } from './simulation.ts';
import type { GuideModes } from './modeTypes.ts';
import type { Discrete } from './discrete.ts';
import { steppingDefaults, type TimeEvidence } from '../../methods/index.ts';

/** Samples per period of the highest frequency in the pulse for the running Fourier sums. */
export const samplesPerPeriod = 2.4;
/** Wall seconds between two progress reports. */
export const reportEvery = 0.4;

/** Energy, relative to its peak, above which a run with guided ports that is cut short is carried on by a fit. */
const ringingOn = 1e-5;

/** Part of a run after which its running sums of fields are faded. Half the time until all has settled was enough to fade the ports' signals. */
const fadeSumsFrom = 2 / 3;

/**
 * Solves a discrete model of a scene in the time domain, one channel (lumped port or guided mode) excited after the other. Fields and patterns are
 * those of the first, or of the waves that the scene combines. `observe` sees the fields about once a period. Throws ProblemError if the grid shows a fault.
 */
export async function solveScene(
  scene: GridScene,
  discrete: Discrete,
  { host, onProgress, signal, jobs }: SolveOptions,
  observe?: (s: Simulation) => void,
): Promise<ResultSet<TimeEvidence>> {
  if (discrete.problems.length) throw new ProblemError(discrete.problems);
  const { dt, grid } = discrete;
  const guides = await solveGuides(scene, discrete, host);
  const channels = channelsOf(scene, guides);
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const maxSteps = stepLimit(scene, dt);
  const plan = planRecording(scene, discrete);
  await solveModes(plan.sought, scene, discrete, host);
  const every = Math.max(1, Math.floor(1 / (samplesPerPeriod * pulse.highest * dt)));
  // Between guided ports energy has nowhere to go but out of them: what rings on is in S, so less of it may be left.
  const stopAt = scene.details.stopAt ?? (scene.guides.length ? steppingDefaults.stopAtGuided : steppingDefaults.stopAt);
  const pulseSteps = Math.ceil(pulse.length / dt);
  // Not at the same phase each time where the fields are looked at.
  const perPeriod = Math.max(8, Math.round((observe ? 1.37 : 1) / (pulse.centre * dt)));
  const band = bandFrequencies(scene.band);
  const sourceSeries = Float64Array.from({ length: maxSteps }, (_, n) => pulseAt(pulse, (n + 0.5) * dt));
  const order = channels.flatMap((c, n) => (!scene.excite || scene.excite.includes(c.name) ? [n] : []));
  const runs: Excitation[] = [];
  const arrays: Record<string, ResultArray> = {};
  const sumFor = (weights: ReturnType<typeof fieldWeights>): FieldSum => new FieldSum(scene, discrete, plan, channels, pulse, every, weights);
  const together = sumFor(fieldWeights(scene, channels, order));
  // Each by itself is told on the ports' resistances; complex references need the sums of all runs.
  const each = scene.keepEach && !hasReactance(channels) && order.length > 1;
  const others: { turn: number; fields: RecordedFields }[] = [];
  const sampled = plan.regions.length > 0 && scene.recordAt.length > 0;
  const first: { fields: RecordedFields | null } = { fields: null };
  let signals: RecorderTold[] = [];
  const take = (turn: number, found: RecordedFields | null): void => {
    if (!found) return;
    if (each && turn) others.push({ turn, fields: found });
    else first.fields = found;
  };
  const machine = { threads: 1, bytes: 0, steps: 0 };
  const started = host.now();
  let lastReport = started;

  for (const [turn, excited] of order.entries()) {
    if (signal?.aborted && turn) break;
    const channel = channels[excited];
    const fields = each && turn ? sumFor(new Map([[excited, [1, 0]]])) : together;
    const wanted = fields.wants(excited);
    // Where fields of several runs are added up their sums are needed, which no job keeps.
    const keeps = !wanted || fields.ofOne;
    const before = keeps && jobs?.have.get(excited);
    const taken = before ? fromJob(before, channels, band.length) : null;
    if (taken) {
      runs.push(taken.run);
      machine.steps += taken.run.steps;
      Object.assign(arrays, taken.own);
      take(turn, taken.recordings.recorded);
      signals = taken.recordings.signals ?? signals;
      continue;
    }
    const own: Record<string, ResultArray> = {};
    const simulation = await Simulation.create(
      {
        discrete,
        waveform: (port, t) => (channel.kind === 'lumped' && port === channel.port ? pulseAt(pulse, t) : 0),
        resistance: (p) => scene.ports[p].resistance,
        load: (p) => scene.ports[p].load ?? null,
        guides,
        drive: (guide, mode, t) => (channel.kind === 'guided' && guide === channel.guide && mode === channel.mode ? pulseAt(pulse, t) : 0),
        maxSteps,
        regions: wanted ? plan.regions : [],
        probes: turn ? [] : plan.probes,
        frequencies: scene.recordAt,
        every,
        lowest: scene.band.from,
        boundaries: scene.boundaries,
      },
      host,
    );
    try {
      const source = new PortSpectrum(band, dt, 0.5);
      const forming = new ChannelSpectra(channels, band, excited, source, dt);
      const run: Excitation = { excited, spectra: forming, energies: [], residual: 1, ended: 'steps', steps: 0 };
      const update = (): void => {
        source.update(sourceSeries.subarray(0, simulation.steps));
        forming.update(simulation);
      };
      const faded = (at: Float64Array): ChannelSpectra =>
        new ChannelSpectra(channels, at, excited, new PortSpectrum(at, dt, 0.5), dt).takeFaded(simulation, sourceSeries);
      const settled = guides.length ? new Settled(pulseSteps, channels.length, excited, Math.min(1e-4, Math.sqrt(stopAt) / 3)) : null;
      Object.assign(
        run,
        await march(simulation, {
          maxSteps,
          perPeriod,
          pulseSteps,
          stopAt,
          host,
          signal,
          settled: (step) => !!settled?.due(step) && settled.look(step, faded(bandFrequencies({ ...scene.band, points: watched }))),
          // Signals of the ports are faded afterwards, running sums of fields cannot be.
          ...(settled && wanted && sampled ? { fading: { from: fadeSumsFrom, begin: (from, to) => simulation.fadeSums(from, to) } } : {}),
          each: (energies) => {
            observe?.(simulation);
            const now = host.now();
            if (!onProgress || now - lastReport <= reportEvery) return;
            lastReport = now;
            update();
            onProgress(
              forecast(energies, { maxSteps, pulseSteps, stopAt, elapsed: now - started, turn, turns: order.length }, reflection(forming, excited)),
            );
          },
        }),
      );
      // What still rings is carried on by a fit; the creeping rest at a guide's cutoff, far weaker, is faded out instead.
      const cut = run.ended === 'steps' || run.ended === 'stopped';
      const rest = (cut && run.residual > ringingOn) || !settled ? extrapolated(simulation, channels, dt, pulseSteps, every) : null;
      if (rest) {
        run.rest = { error: rest.error, resonances: rest.resonances };
        run.spectra = new ChannelSpectra(channels, band, excited, new PortSpectrum(band, dt, 0.5), dt).takeSeries(
          simulation,
          rest.series,
          sourceSeries,
        );
      } else if (settled && (run.ended === 'settled' || run.ended === 'steps')) run.spectra = faded(band);
      else update();
      run.steps = simulation.steps;
      runs.push(run);
      Object.assign(machine, { threads: simulation.threads, bytes: simulation.bytes, steps: machine.steps + simulation.steps });
      if (turn === 0) {
        Object.assign(own, timeSignal(simulation, channels, dt));
        const samples = { sums: (r: number) => simulation.sums(r), scales: [], steps: simulation.steps, probe: (n: number) => simulation.probe(n) };
        signals = tellRecorders(scene, discrete, plan, 'time', samples, { arrays: own, places: new Set() });
      }
      let mine: RecordedFields | null = null;
      if (wanted && fields.take(simulation, excited, !!settled && (run.ended === 'settled' || run.ended === 'steps'))) {
        const kept = { arrays: {} as Record<string, ResultArray>, places: new Set<string>() };
        mine = fields.finish(kept);
        Object.assign(own, each && turn ? ofTurn(kept, turn) : kept.arrays);
      }
      take(turn, mine);
      Object.assign(arrays, own);
      if (jobs && keeps && run.ended !== 'stopped')
        jobs.done(jobOf(run, channels, band.length, own, { recorded: mine, signals: turn ? null : signals }));
    } finally {
      simulation.close();
    }
  }

  const stepping = host.now() - started;
  const s = scattering(channels, runs, band);
  arrays.frequency = { shape: [band.length], data: band };
  const solved = { shape: [band.length, channels.length, runs.length, 2], data: s };
  arrays.s = hasReactance(channels) ? (renormalised(solved, ownResistances(channels), ownReferences(channels)) ?? solved) : solved;
  arrays.energy = energyArray(runs[0]);
  guideArrays(channels, band, arrays);
  const recorded = first.fields;
  const farField = farFieldOf(scene);
  const figures = recorded?.figures ?? null;
  const ended =
    runs.some((r) => r.ended === 'stopped') || runs.length < order.length
      ? 'stopped'
      : ((['steps', 'settled'] as const).find((how) => runs.some((r) => r.ended === how)) ?? 'decayed');
  const residual = Math.max(...runs.map((r) => r.residual));
  return resultOf<TimeEvidence>(
    {
      solver: 'fdtd',
      ports: channels.map(portTold),
      excitations: runs.map((r) => r.excited),
      recordAt: scene.recordAt,
      farField: farField && figures ? { name: farField.name, step: recorded!.step, figures } : null,
      recorded: [...(recorded?.recorded ?? []), ...signals],
      ...(recorded?.combined ? { combined: recorded.combined } : {}),
      ...(others.length ? { others: others.map(({ turn, fields: f }) => ({ turn, figures: f.figures, recorded: f.recorded })) } : {}),
      evidence: {
        ...steppingEvidence({ grid, dt, stepping, steps: machine.steps, pulse, band: scene.band, ended, residual }),
        powerBalance: figures?.map((f) => (f.accepted - f.radiated - f.lost) / f.accepted) ?? null,
        ...restOf(runs),
        ...networkEvidence(s, channels, runs, band),
        seconds: host.now() - started,
        threads: machine.threads,
        bytes: machine.bytes,
      },
    },
    arrays,
  );
}

/** What a result tells of a channel. */
function portTold(c: Channel): ResultMeta['ports'][number] {
  if (c.kind === 'lumped') return { name: c.name, resistance: c.resistance, ...(c.reactance ? { reactance: c.reactance } : {}) };
  const { mode, impedance, voltage } = c.modes.modes[c.mode];
  return { name: c.name, resistance: 0, mode: c.mode + 1, family: mode.kind, impedance: impedance ?? undefined, voltage };
}

/** Field arrays under names of their own for an excitation after the first; where they stand is told once. */
const ofTurn = ({ arrays, places }: RecordedArrays, turn: number): Record<string, ResultArray> =>
  Object.fromEntries(Object.entries(arrays).flatMap(([name, array]) => (places.has(name) ? [] : [[turnName(name, turn), array]])));

/** How the ringing was carried on: the worst error, and the resonances of the run that told most of them. */
function restOf(runs: readonly Excitation[]): Pick<TimeEvidence, 'carriedOn'> {
  const rests = runs.flatMap((r) => r.rest ?? []);
  if (!rests.length) return {};
  const fullest = rests.reduce((a, b) => (b.resonances.length > a.resonances.length ? b : a));
  return { carriedOn: { runs: rests.length, error: Math.max(...rests.map((r) => r.error)), resonances: fullest.resonances } };
}

/** Modes of all guided ports; throws what stands in the way. */
async function solveGuides(scene: GridScene, discrete: Discrete, host: SolveOptions['host']): Promise<GuideModes[]> {
  if (!scene.guides.length) return [];
  const kernel = await denseKernel(host.module);
  const out: GuideModes[] = [];
  const problems: Problem[] = [];
  scene.guides.forEach((guide, g) => {
    const result = guideModes(discrete, guide, discrete.guides[g], scene.band, kernel);
    if ('found' in result) out.push(result.found);
    else problems.push(...result.problems);
  });
  if (problems.length) throw new ProblemError(problems);
  return out;
}

/** Reflection of the excited channel so far. */
function reflection(spectra: ChannelSpectra, excited: number): { frequencies: number[]; re: number[]; im: number[] } {
  const frequencies = Array.from(spectra.frequencies);
  const pairs = frequencies.map((_, f): [number, number] => {
    const { a, b } = spectra.waves(excited, f);
    const d = a[0] ** 2 + a[1] ** 2;
    return [(b[0] * a[0] + b[1] * a[1]) / d, (b[1] * a[0] - b[0] * a[1]) / d];
  });
  return { frequencies, re: pairs.map((p) => p[0]), im: pairs.map((p) => p[1]) };
}

/** Most power that comes out for power 1 in, as an amplitude, and by how much S differs from its transpose; channels below cutoff left out. */
function networkEvidence(
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

/** Propagation constants and profiles of guided modes. */
function guideArrays(channels: readonly Channel[], band: Float64Array, arrays: Record<string, ResultArray>): void {
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
function timeSignal(simulation: Simulation, channels: readonly Channel[], dt: number): Record<string, ResultArray> {
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
