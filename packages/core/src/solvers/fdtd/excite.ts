import { div } from '../../numerics/complex.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { pulseAt } from '../../numerics/pulse.ts';
import type { GridScene } from '../../scene/index.ts';
import { bandFrequencies } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { type Channel, ChannelSpectra } from './channels.ts';
import { leavesByGuides } from './annex.ts';
import type { Discrete } from './discrete.ts';
import { Ending, watched } from './ending.ts';
import { type Extrapolation, extrapolated } from './extrapolate.ts';
import type { Excitation } from './jobs.ts';
import { runSteps } from './march.ts';
import type { GuideModes } from './modeTypes.ts';
import type { RecordingPlan } from './recorders.ts';
import { Simulation } from './simulation.ts';
import { planOf, type progressOf, pulseSeries, type Stepping } from './stepping.ts';

/** Part of a run after which its running sums of fields are faded. Half the time until all has settled was enough to fade the ports' signals. */
const fadeSumsFrom = 2 / 3;

/** Frequencies at which the waves of a scene are watched. */
export const watchedIn = ({ band }: GridScene): Float64Array => bandFrequencies({ ...band, points: watched });

/** What all excitations of a scene share. */
export interface Excitable {
  scene: GridScene;
  discrete: Discrete;
  guides: readonly GuideModes[];
  channels: readonly Channel[];
  plan: RecordingPlan;
  stepping: Stepping;
  /** Step before which what is sent in may still be on its way through the model. */
  soonest: number;
  options: SolveOptions;
  /** Sees the fields about once a period. */
  observe?: (s: Simulation) => void;
  tell: ReturnType<typeof progressOf>;
}

/** An excited run while its memory stands. */
export interface Excited {
  run: Excitation;
  simulation: Simulation;
  /** Its running sums of fields were faded out. */
  faded: boolean;
  /** Wall seconds of its steps. */
  stepping: number;
}

/** Excites one channel and steps until all has gone or settled. `fields`: the fields are recorded. The simulation is the caller's to close. */
export async function excite(
  { scene, discrete, guides, channels, plan, stepping, soonest, options, observe, tell }: Excitable,
  excited: number,
  turn: number,
  fields: boolean,
): Promise<Excited> {
  const { dt, band, pulse, pulseSteps, stopAt } = stepping;
  const channel = channels[excited];
  const simulation = await Simulation.create(
    {
      ...planOf(scene, discrete, stepping),
      waveform: (port, t) => (channel.kind === 'lumped' && port === channel.port ? pulseAt(pulse, t) : 0),
      guides: [...guides],
      drive: (guide, mode, t) => (channel.kind === 'guided' && guide === channel.guide && mode === channel.mode ? pulseAt(pulse, t) : 0),
      regions: fields ? plan.regions : [],
      probes: turn ? [] : plan.probes,
    },
    options.host,
  );
  try {
    const series = pulseSeries(stepping);
    const source = new PortSpectrum(band, dt, 0.5);
    const forming = new ChannelSpectra(channels, band, excited, source, dt);
    const update = (): void => {
      source.update(series.subarray(0, simulation.steps));
      forming.update(simulation);
    };
    const spectraAt = (at: Float64Array): ChannelSpectra => new ChannelSpectra(channels, at, excited, new PortSpectrum(at, dt, 0.5), dt);
    const faded = (at: Float64Array): ChannelSpectra => spectraAt(at).takeFaded(simulation, series);
    const carried = (at: Float64Array, rest: Extrapolation): ChannelSpectra => spectraAt(at).takeCarried(simulation, rest.tails, series);
    const sampled = fields && plan.regions.length > 0 && scene.recordAt.length > 0;
    const ending = leavesByGuides(scene.guides)
      ? new Ending({
          simulation,
          channels,
          excited,
          stepping,
          tolerance: Math.min(1e-4, Math.sqrt(stopAt) / 3),
          watch: watchedIn(scene),
          recordAt: Float64Array.from(sampled ? scene.recordAt : []),
          soonest,
          carried,
          faded,
        })
      : null;
    const began = options.host.now();
    const went = await runSteps(simulation, {
      ...stepping,
      host: options.host,
      signal: options.signal,
      settled: (step) => !!ending?.over(step),
      // Signals of the ports are faded afterwards, running sums of fields cannot be.
      ...(ending && sampled ? { fading: { from: fadeSumsFrom, begin: (from, to) => simulation.fadeSums(from, to) } } : {}),
      each: (energies) => {
        observe?.(simulation);
        tell(turn, pulseSteps, energies, () => {
          update();
          return reflection(forming, excited);
        });
      },
    });
    const took = options.host.now() - began;
    const run: Excitation = { ...went, excited, spectra: forming, steps: simulation.steps };
    const whole = !!ending && (run.ended === 'settled' || run.ended === 'steps');
    // What still rings, or creeps at a guide's cutoff, is carried on by a fit; where none holds it is faded out.
    const cut = run.ended === 'steps' || run.ended === 'stopped';
    const rest = cut || ending?.portsSettled || !ending ? extrapolated(simulation, channels, stepping) : null;
    if (rest) {
      run.rest = { error: rest.error, resonances: rest.resonances };
      run.spectra = carried(band, rest);
      if (run.ended === 'steps' && ending?.portsSettled) run.ended = 'settled';
      run.fieldsOff = (whole && ending.fieldsOff(rest)) || undefined;
    } else if (whole) run.spectra = faded(band);
    else update();
    return { run, simulation, faded: whole, stepping: took };
  } catch (error) {
    simulation.close();
    throw error;
  }
}

/** Reflection of the excited channel so far. */
function reflection(spectra: ChannelSpectra, excited: number): { frequencies: number[]; re: number[]; im: number[] } {
  const frequencies = Array.from(spectra.frequencies);
  const pairs = frequencies.map((_, f) => {
    const { a, b } = spectra.waves(excited, f);
    return div(b, a);
  });
  return { frequencies, re: pairs.map((p) => p[0]), im: pairs.map((p) => p[1]) };
}
