import { type Problem, ProblemError } from '../../document/index.ts';
import type { TimeEvidence } from '../../methods/index.ts';
import { renormalised } from '../../network/renormalise.ts';
import type { RecorderTold } from '../../recorders/index.ts';
import { type ResultArray, resultOf, type ResultSet, excitationKey } from '../../results/index.ts';
import { farFieldOf, type GridScene } from '../../scene/index.ts';
import { denseKernel } from '../modes/index.ts';
import type { SolveOptions } from '../solver.ts';
import { channelsOf, scattering } from './channels.ts';
import type { Discrete } from './discrete.ts';
import { energyArray, steppingEvidence } from './evidence.ts';
import { farProducts } from './farReading.ts';
import { type Excitable, type Excited, excite, watchedIn } from './excite.ts';
import { FieldSum, fieldWeights, type RecordedFields } from './fieldSum.ts';
import { guideModes } from './guides.ts';
import { type Excitation, fromJob, jobOf } from './jobs.ts';
import type { GuideModes } from './modeTypes.ts';
import { guideArrays, networkEvidence, portTold, restOf, timeSignal } from './networkTold.ts';
import { planRecording, type RecordedArrays, tellRecorders } from './recorders.ts';
import { solveModes } from './rectangleModes.ts';
import { hasReactance, ownReferences, ownResistances } from './references.ts';
import type { Simulation } from './simulation.ts';
import { progressOf, steppingOf } from './stepping.ts';
import { longestWay, thereAndBack } from './transit.ts';

/** What the excitations of a scene have left so far. */
interface Left {
  runs: Excitation[];
  arrays: Record<string, ResultArray>;
  /** Fields of the first, or of the waves that the scene combines. */
  fields: RecordedFields | null;
  /** Fields of those after the first, by their place among the excitations. */
  others: { turn: number; fields: RecordedFields }[];
  /** What recorders over time told in the first. */
  signals: RecorderTold[];
  /** Of all runs, but for the bytes, which are those of one. */
  machine: { threads: number; bytes: number; steps: number; made: number };
  /** Wall seconds of its steps, and of reading fields and patterns. */
  spent: { steps: number; fields: number };
}

/**
 * Solves a discrete model of a scene in the time domain, one channel (lumped port or guided mode) excited after the other. Fields and patterns are
 * those of the first, or of the waves that the scene combines. `observe` sees the fields about once a period. Throws ProblemError if the grid shows a fault.
 */
export async function solveScene(
  scene: GridScene,
  discrete: Discrete,
  options: SolveOptions,
  observe?: (s: Simulation) => void,
): Promise<ResultSet<TimeEvidence>> {
  if (discrete.problems.length) throw new ProblemError(discrete.problems);
  const { host, signal } = options;
  const entered = host.now();
  const guides = await solveGuides(scene, discrete, host);
  const channels = channelsOf(scene, guides);
  const plan = planRecording(scene, discrete);
  await solveModes(plan.sought, scene, discrete, host);
  const stepping = steppingOf(scene, discrete, observe !== undefined);
  const order = channels.flatMap((c, n) => (!scene.excite || scene.excite.includes(c.name) ? [n] : []));
  const started = host.now();
  const shared: Excitable = {
    scene,
    discrete,
    guides,
    channels,
    plan,
    stepping,
    soonest: guides.length ? stepping.pulseSteps + thereAndBack(longestWay(scene, discrete.grid, guides), guides, watchedIn(scene)) / discrete.dt : 0,
    options,
    observe,
    tell: progressOf(options, stepping, order.length),
  };
  const left: Left = {
    runs: [],
    arrays: {},
    fields: null,
    others: [],
    signals: [],
    machine: { threads: 1, bytes: 0, steps: 0, made: 0 },
    spent: { steps: 0, fields: 0 },
  };

  const products = await farProducts(scene, host);
  const sumFor = (weights: ReturnType<typeof fieldWeights>): FieldSum =>
    new FieldSum(scene, discrete, plan, channels, stepping.pulse, stepping.every, weights, products);
  const together = sumFor(fieldWeights(scene, channels, order));
  // Each by itself is told on the ports' resistances; complex references need the sums of all runs.
  const each = scene.keepEach === true && !hasReactance(channels) && order.length > 1;
  for (const [turn, excited] of order.entries()) {
    if (signal?.aborted && turn) break;
    const own = each && turn > 0;
    await solveTurn(shared, left, excited, turn, own ? sumFor(new Map([[excited, [1, 0]]])) : together, own);
  }
  return resultOfRuns(shared, left, order.length, { modes: started - entered, seconds: () => host.now() - entered });
}

/** Excites one channel, or takes up the job that did, and adds what it leaves. `own`: its fields are kept under names of its own. */
async function solveTurn(shared: Excitable, left: Left, excited: number, turn: number, fields: FieldSum, own: boolean): Promise<void> {
  const { scene, discrete, channels, plan, stepping, options } = shared;
  const { jobs } = options;
  const points = stepping.band.length;
  const wanted = fields.wants(excited);
  // Where fields of several runs are added up their sums are needed, which no job keeps.
  const keeps = !wanted || fields.ofOne;
  const take = (found: RecordedFields | null): void => {
    if (found && own) left.others.push({ turn, fields: found });
    else if (found) left.fields = found;
  };
  const before = keeps && jobs?.have.get(excited);
  const taken = before ? fromJob(before, channels, points) : null;
  if (taken) {
    left.runs.push(taken.run);
    left.machine.steps += taken.run.steps;
    Object.assign(left.arrays, taken.own);
    take(taken.recordings.recorded);
    left.signals = taken.recordings.signals ?? left.signals;
    return;
  }
  const done = await excite(shared, excited, turn, wanted);
  const { run, simulation } = done;
  try {
    left.runs.push(run);
    const { steps, made } = left.machine;
    left.machine = { threads: simulation.threads, bytes: simulation.bytes, steps: steps + simulation.steps, made: made + simulation.steps };
    left.spent.steps += done.stepping;
    const began = options.host.now();
    const arrays: Record<string, ResultArray> = {};
    if (turn === 0) {
      Object.assign(arrays, timeSignal(simulation, channels, stepping.dt));
      const samples = { sums: (r: number) => simulation.sums(r), scales: [], steps: simulation.steps, probe: (n: number) => simulation.probe(n) };
      left.signals = tellRecorders(scene, discrete, plan, 'time', samples, { arrays, places: new Set() });
    }
    const mine = wanted ? fieldsOf(done, excited, fields, arrays, own ? turn : 0) : null;
    take(mine);
    left.spent.fields += options.host.now() - began;
    Object.assign(left.arrays, arrays);
    if (jobs && keeps && run.ended !== 'stopped')
      jobs.done(jobOf(run, channels, points, arrays, { recorded: mine, signals: turn ? null : left.signals }));
  } finally {
    simulation.close();
  }
}

/** What the recorders tell of a run, once the fields that they are of are all there; adds their arrays, under names of a turn after the first. */
function fieldsOf(
  { simulation, faded }: Excited,
  excited: number,
  fields: FieldSum,
  arrays: Record<string, ResultArray>,
  turn: number,
): RecordedFields | null {
  if (!fields.take(simulation, excited, faded)) return null;
  const kept: RecordedArrays = { arrays: {}, places: new Set() };
  const told = fields.finish(kept);
  Object.assign(arrays, turn ? ofTurn(kept, turn) : kept.arrays);
  return told;
}

/** Field arrays under names of their own for an excitation after the first; where they stand is told once. */
const ofTurn = ({ arrays, places }: RecordedArrays, turn: number): Record<string, ResultArray> =>
  Object.fromEntries(Object.entries(arrays).flatMap(([name, array]) => (places.has(name) ? [] : [[excitationKey(name, turn), array]])));

/** Why the excitations ended, all in all. */
const endOf = (runs: readonly Excitation[], turns: number): Excitation['ended'] =>
  runs.length < turns ? 'stopped' : ((['stopped', 'steps', 'settled'] as const).find((how) => runs.some((r) => r.ended === how)) ?? 'decayed');

/** The result of what all excitations have left. */
function resultOfRuns(
  { scene, discrete, channels, stepping }: Excitable,
  { runs, arrays, fields, others, signals, machine, spent }: Left,
  turns: number,
  wall: { modes: number; seconds: () => number },
): ResultSet<TimeEvidence> {
  const { band, pulse, dt } = stepping;
  const s = scattering(channels, runs, band);
  arrays.frequency = { shape: [band.length], data: band };
  const solved = { shape: [band.length, channels.length, runs.length, 2], data: s };
  arrays.s = hasReactance(channels) ? (renormalised(solved, ownResistances(channels), ownReferences(channels)) ?? solved) : solved;
  arrays.energy = energyArray(runs[0]);
  guideArrays(channels, band, arrays);
  const farField = farFieldOf(scene);
  const figures = fields?.figures ?? null;
  const residual = Math.max(...runs.map((r) => r.residual));
  return resultOf<TimeEvidence>(
    {
      solver: 'fdtd',
      ports: channels.map(portTold),
      excitations: runs.map((r) => r.excited),
      recordAt: scene.recordAt,
      farField: farField && figures ? { name: farField.name, step: fields!.step, figures } : null,
      recorded: [...(fields?.recorded ?? []), ...signals],
      ...(fields?.combined ? { combined: fields.combined } : {}),
      ...(others.length ? { others: others.map(({ turn, fields: f }) => ({ turn, figures: f.figures, recorded: f.recorded })) } : {}),
      evidence: {
        ...steppingEvidence({
          grid: discrete.grid,
          dt,
          stepping: spent.steps,
          steps: machine.steps,
          made: machine.made,
          pulse,
          band: scene.band,
          ended: endOf(runs, turns),
          residual,
        }),
        powerBalance: figures?.map((f) => (f.accepted - f.radiated - f.lost) / f.accepted) ?? null,
        ...restOf(runs),
        ...networkEvidence(s, channels, runs, band),
        seconds: wall.seconds(),
        spent: { modes: wall.modes, ...spent },
        threads: machine.threads,
        bytes: machine.bytes,
      },
    },
    arrays,
  );
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
