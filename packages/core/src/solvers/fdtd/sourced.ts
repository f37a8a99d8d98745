import { abs, type Complex } from '../../numerics/complex.ts';
import { ProblemError } from '../../document/index.ts';
import { directionsOf } from '../../recorders/index.ts';
import { type ResultArray, resultOf, type ResultSet } from '../../results/index.ts';
import { farFieldOf, type GridScene, numbersOf, type SceneSource } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import type { Discrete } from './discrete.ts';
import { energyArray, steppingEvidence } from './evidence.ts';
import { farProducts, readFar, voltageSpectrum } from './farReading.ts';
import type { ProductKernel } from '../../numerics/product.ts';
import { runSteps } from './march.ts';
import { planRecording, tellRecorders } from './recorders.ts';
import { solveModes } from './rectangleModes.ts';
import { Simulation } from './simulation.ts';
import { gridSource } from './sources/index.ts';
import { planOf, progressOf, steppingOf } from './stepping.ts';
import type { TimeEvidence } from '../../methods/index.ts';

/**
 * Solves a discrete model of a scene that a source excites from without: a plane wave of 1 V/m, or a dipole that gives 1 W. Lumped ports are loads. Throws
 * ProblemError if the grid shows a fault.
 */
export async function solveSourced(
  scene: GridScene,
  from: SceneSource,
  d: Discrete,
  options: SolveOptions,
  observe?: (s: Simulation) => void,
): Promise<ResultSet<TimeEvidence>> {
  const { host } = options;
  const { grid } = d;
  const stepping = steppingOf(scene, d, observe !== undefined);
  const { dt, pulse, every } = stepping;
  const source = gridSource(from, { scene, d, grid, pulse });
  const problems = [...d.problems, ...source.problems].filter((p) => p.severity === 'error');
  if (problems.length) throw new ProblemError(problems);
  const plan = planRecording(scene, d, source.box);
  await solveModes(plan.sought, scene, d, host);
  const started = host.now();
  const tellProgress = progressOf(options, stepping, 1);
  const simulation = await Simulation.create(
    {
      ...planOf(scene, d, stepping),
      injection: source.injection,
      waveform: () => 0,
      regions: plan.regions,
      probes: [...plan.probes, ...source.probes],
    },
    host,
  );
  try {
    const pulseSteps = source.injection.steps;
    const began = host.now();
    const run = await runSteps(simulation, {
      ...stepping,
      pulseSteps,
      host,
      signal: options.signal,
      each: (energies) => {
        observe?.(simulation);
        tellProgress(0, pulseSteps, energies);
      },
    });
    const steps = host.now() - began;
    const { scales, tell, arrays: own } = source.read({ probe: (n) => simulation.probe(plan.probes.length + n), every });
    const arrays: Record<string, ResultArray> = { energy: energyArray(run), ...own };
    const sums = (r: number): ReturnType<Simulation['sums']> => simulation.sums(r);
    const samples = { sums, scales, steps: simulation.steps, probe: (n: number) => simulation.probe(n) };
    const recorded = (['frequencies', 'time'] as const).flatMap((over) =>
      tellRecorders(scene, d, plan, over, samples, { arrays, places: new Set() }),
    );
    const far = readFarOfSource(scene, d, plan, simulation, scales, every * dt, await farProducts(scene, host));
    if (far) arrays.farField = far.array;
    const { told, balance } = tell(far && far.told);
    return resultOf<TimeEvidence>(
      {
        solver: 'fdtd',
        ...told,
        recordAt: scene.recordAt,
        recorded,
        evidence: {
          ...steppingEvidence({
            grid,
            dt,
            stepping: steps,
            steps: simulation.steps,
            made: simulation.steps,
            pulse,
            band: scene.band,
            ended: run.ended,
            residual: run.residual,
          }),
          powerBalance: balance,
          largestReflection: 0,
          asymmetry: null,
          seconds: host.now() - started,
          spent: { steps, fields: host.now() - began - steps },
          threads: simulation.threads,
          bytes: simulation.bytes,
        },
      },
      arrays,
    );
  } finally {
    simulation.close();
  }
}

/** The far field at the recorded frequencies for what the source is told for, as readings and as an array [frequency][theta][phi][4]; null where none is asked for. `interval` is that of the probes' samples, s. */
function readFarOfSource(
  scene: GridScene,
  d: Discrete,
  plan: ReturnType<typeof planRecording>,
  simulation: Simulation,
  scales: readonly Complex[],
  interval: number,
  products: ProductKernel,
): { array: ResultArray; told: NonNullable<Parameters<ReturnType<ReturnType<typeof gridSource>['read']>['tell']>[0]> } | null {
  const asked = farFieldOf(scene);
  if (!asked) return null;
  const { nTheta, nPhi, step } = directionsOf(asked.step);
  const numbers = numbersOf(asked.kept, scene.recordAt.length);
  const data = new Float64Array(numbers.length * nTheta * nPhi * 4);
  const readings = numbers.map((f, n) => {
    const voltage = (probe: number): number => {
      const { re, im } = voltageSpectrum(simulation, probe, [scene.recordAt[f]], d.dt);
      return (abs(scales[f]) / interval) * Math.hypot(re[0], im[0]);
    };
    const sums = (r: number): ReturnType<Simulation['sums']> => simulation.sums(r);
    const reading = readFar({ scene, d, plan, sums, f, scale: scales[f], nTheta, nPhi, voltage, products });
    data.set(reading.pattern.values, n * nTheta * nPhi * 4);
    return reading;
  });
  return { array: { shape: [numbers.length, nTheta, nPhi, 4], data }, told: { name: asked.name, step, readings } };
}
