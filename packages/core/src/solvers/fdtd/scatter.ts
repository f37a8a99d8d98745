import { problem, ProblemError } from '../../document/index.ts';
import { c0, eta0 } from '../../numerics/constants.ts';
import { cellCount, cellsOf, type Grid } from '../../grid/index.ts';
import { farFieldAt, nearToFar, patternPower } from '../../radiation/index.ts';
import type { ResultArray, ResultSet, ScatterFigures, TimeEvidence } from '../../results/index.ts';
import { farFieldOf, numbersOf, type GridScene, type SceneWave } from '../../scene/index.ts';
import { coreVersion } from '../../version.ts';
import type { SolveOptions } from '../solver.ts';
import { stepLimit } from './check.ts';
import type { Discrete } from './discrete.ts';
import { planWave, type TotalBox } from './discreteWave.ts';
import { elementLosses, voltageSpectrum } from './fieldSum.ts';
import { forecast, march } from './march.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { pulseAt, pulseFor, pulseLevel } from './pulse.ts';
import { directionsOf, powerThrough } from '../../recorders/index.ts';
import { boxFaces, boxGap, lossPower, metalLosses, planRecording, tellRecorders } from './recorders.ts';
import { solveModes } from './rectangleModes.ts';
import { Simulation } from './simulation.ts';
import { reportEvery, samplesPerPeriod } from './solve.ts';

/** Cells between the recording box, which sees the scattered field alone, and the box in which the wave is. */
const waveGap = 2;

/** The box in which the total field is computed. */
export const totalBox = ({ lines, pml }: Grid): TotalBox => ({
  lo: [0, 1, 2].map((a) => pml[2 * a] + boxGap + waveGap) as TotalBox['lo'],
  hi: [0, 1, 2].map((a) => lines[a].length - 1 - pml[2 * a + 1] - boxGap - waveGap) as TotalBox['hi'],
});

/**
 * Solves a discrete model of a scene lit by a plane wave of 1 V/m: total field within a box, scattered field outside. Lumped ports are loads. Throws
 * ProblemError if the grid shows a fault.
 */
export async function scatterScene(
  scene: GridScene,
  wave: SceneWave,
  d: Discrete,
  { host, onProgress, signal }: SolveOptions,
  observe?: (s: Simulation) => void,
): Promise<ResultSet<TimeEvidence>> {
  const { dt, grid } = d;
  const box = totalBox(grid);
  const problems = [...d.problems, ...outside(scene, wave, grid, box)];
  if (problems.length) throw new ProblemError(problems);
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const maxSteps = stepLimit(scene, dt);
  const plan = planRecording(scene, d, box);
  await solveModes(plan.sought, scene, d, host);
  const every = Math.max(1, Math.floor(1 / (samplesPerPeriod * pulse.highest * dt)));
  const entering = planWave(grid, dt, box, wave, pulse);
  const stopAt = scene.details.stopAt ?? 1e-5;
  const started = host.now();
  let lastReport = started;
  const simulation = await Simulation.create(
    {
      discrete: d,
      wave: entering,
      waveform: () => 0,
      resistance: (p) => scene.ports[p].resistance,
      load: (p) => scene.ports[p].load ?? null,
      maxSteps,
      regions: plan.regions,
      probes: plan.probes,
      frequencies: scene.recordAt,
      every,
      lowest: scene.band.from,
      boundaries: scene.boundaries,
    },
    host,
  );
  try {
    const pulseSteps = entering.steps;
    const run = await march(simulation, {
      maxSteps,
      perPeriod: Math.max(8, Math.round(1 / (pulse.centre * dt))),
      pulseSteps,
      stopAt,
      host,
      signal,
      each: (energies) => {
        observe?.(simulation);
        const now = host.now();
        if (!onProgress || now - lastReport <= reportEvery) return;
        lastReport = now;
        onProgress(forecast(energies, { maxSteps, pulseSteps, stopAt, elapsed: now - started, turn: 0, turns: 1 }));
      },
    });
    const seconds = host.now() - started;
    const arrays: Record<string, ResultArray> = {
      energy: { shape: [2, run.energies.length], data: Float64Array.from([...run.energies.map((e) => e[0]), ...run.energies.map((e) => e[1])]) },
    };
    // The spectrum of the wave where it passes the origin: fields come out for 1 V/m and phase zero there.
    const source = new PortSpectrum(scene.recordAt, dt, 0.5);
    source.update(Float64Array.from({ length: Math.ceil(pulse.length / dt) }, (_, n) => pulseAt(pulse, (n + 0.5) * dt)));
    const scales = scene.recordAt.map((f, n): [number, number] => {
      const [re, im] = [source.re[n], source.im[n]];
      const angle = 2 * Math.PI * f * entering.delay;
      const factor = (every * dt) / (re * re + im * im);
      return [factor * (re * Math.cos(angle) + im * Math.sin(angle)), factor * (re * Math.sin(angle) - im * Math.cos(angle))];
    });
    const sums = (r: number): ReturnType<Simulation['sums']> => simulation.sums(r);
    const from = { sums, scales, steps: simulation.steps, probe: (n: number) => simulation.probe(n) };
    const recorded = (['frequencies', 'time'] as const).flatMap((over) => tellRecorders(scene, d, plan, over, from, { arrays, places: new Set() }));
    const far = farFieldOf(scene);
    let scattered: ResultSet['meta']['scattered'] = null;
    if (far) {
      const { nTheta, nPhi, step } = directionsOf(far.step);
      const numbers = numbersOf(far.kept, scene.recordAt.length);
      const data = new Float64Array(numbers.length * nTheta * nPhi * 4);
      const figures = numbers.map((f, n): ScatterFigures => {
        const frequency = scene.recordAt[f];
        const faces = boxFaces(plan, d, sums, f, scales[f]);
        const pattern = nearToFar(faces, frequency, nTheta, nPhi);
        data.set(pattern.values, n * nTheta * nPhi * 4);
        const mean = Math.cos(Math.PI * frequency * dt);
        const inLoads = elementLosses(scene, dt, f, (p) => {
          const { re, im } = voltageSpectrum(simulation, p, [frequency], dt);
          return (Math.hypot(...scales[f]) / (every * dt)) * Math.hypot(re[0], im[0]);
        });
        const inMetal = metalLosses(plan, d, sums, scene.recordAt, f, scales[f]).reduce((sum, m) => sum + m.power, 0);
        const lost = mean ** 2 * (lossPower(plan, d, sums, scene.recordAt, f, scales[f]) + inMetal) + inLoads;
        const { power, peak, theta, phi } = patternPower(pattern);
        const density = 1 / (2 * eta0);
        return {
          frequency,
          scattering: (mean * powerThrough(faces)) / density,
          fromPattern: power / density,
          absorption: lost / density,
          extinction: forward(faces, frequency, wave),
          largest: (4 * Math.PI * peak) / density,
          theta,
          phi,
          back: (4 * Math.PI * towards(faces, frequency, wave.from)) / density,
        };
      });
      arrays.farField = { shape: [numbers.length, nTheta, nPhi, 4], data };
      scattered = { name: far.name, step, figures };
    }
    return {
      meta: {
        format: 'jadebell-result',
        version: 3,
        solver: 'fdtd',
        coreVersion,
        ports: [],
        excitations: [],
        wave: { name: wave.name, theta: wave.from[0], phi: wave.from[1] },
        recordAt: scene.recordAt,
        farField: null,
        scattered,
        recorded,
        evidence: {
          steps: simulation.steps,
          timeStep: dt,
          cells: [cellsOf(grid, 0), cellsOf(grid, 1), cellsOf(grid, 2)],
          cellsPerWavelength: grid.cellsPerWavelength,
          residualEnergy: run.residual,
          ended: run.ended,
          pulseAtEdges: [
            pulseLevel(pulse, scene.band.from) - pulseLevel(pulse, pulse.centre),
            pulseLevel(pulse, scene.band.to) - pulseLevel(pulse, pulse.centre),
          ],
          // What is taken out of the wave, by the field straight ahead, against what is scattered and absorbed.
          powerBalance: scattered?.figures.map((f) => (f.extinction - f.scattering - f.absorption) / f.extinction) ?? null,
          largestReflection: 0,
          asymmetry: null,
          seconds,
          threads: simulation.threads,
          cellsPerSecond: (cellCount(grid) * simulation.steps) / seconds,
          bytes: simulation.bytes,
        },
      },
      arrays,
    };
  } finally {
    simulation.close();
  }
}

type Faces = Parameters<typeof nearToFar>[0];

/** Power per solid angle in one direction. */
const towards = (faces: Faces, frequency: number, [theta, phi]: readonly [number, number]): number =>
  farFieldAt(faces, frequency, theta, phi).reduce((sum, v) => sum + v * v, 0) / (2 * eta0);

/** Extinction cross-section by the optical theorem, 4 pi / k times the part of the forward field that is a quarter period behind. */
function forward(faces: Faces, frequency: number, wave: SceneWave): number {
  const [theta, phi] = [Math.PI - wave.from[0], wave.from[1] + Math.PI];
  const p = farFieldAt(faces, frequency, theta, phi);
  const unit = [
    [Math.cos(theta) * Math.cos(phi), Math.cos(theta) * Math.sin(phi), -Math.sin(theta)],
    [-Math.sin(phi), Math.cos(phi), 0],
  ];
  // Im of F . conj(e).
  let sum = 0;
  for (const c of [0, 1]) for (let a = 0; a < 3; a++) sum += unit[c][a] * (p[2 * c + 1] * wave.re[a] - p[2 * c] * wave.im[a]);
  return (-2 * c0 * sum) / frequency;
}

/** Bodies must lie inside the box of the total field. */
function outside(scene: GridScene, wave: SceneWave, grid: Grid, box: TotalBox): ReturnType<typeof problem>[] {
  const out = scene.bodies.some((b) => [0, 1, 2].some((a) => b.min[a] < grid.lines[a][box.lo[a]] || b.max[a] > grid.lines[a][box.hi[a]]));
  return out
    ? [
        problem(
          'error',
          'wave.room',
          { part: 'ports', name: wave.name },
          'A body reaches through the box in which the plane wave is, four cells before the boundary.',
          'Give the boundaries a larger margin.',
        ),
      ]
    : [];
}
