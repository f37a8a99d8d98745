import { ProblemError } from '../../document/index.ts';
import { coreVersion } from '../../version.ts';
import { cellCount, cellsOf } from '../../grid/index.ts';
import { nearToFar, patternPower } from '../../radiation/index.ts';
import type { PatternFigures, ResultArray, ResultSet } from '../../results/index.ts';
import type { Scene } from '../../scene/index.ts';
import type { Progress, SolveOptions } from '../solver.ts';
import { stepLimit } from './check.ts';
import { type Discrete, discretise } from './discretise.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { type Pulse, pulseAt, pulseFor, pulseLevel } from './pulse.ts';
import { boxFaces, boxPower, lossPower, planeAtNodes, planRecording, type RecordingPlan } from './recorders.ts';
import { Simulation } from './simulation.ts';

/** Frequencies of the S-parameters, Hz. */
export const bandFrequencies = ({ from, to, points }: Scene['band']): Float64Array =>
  Float64Array.from({ length: points }, (_, i) => from + ((to - from) * i) / (points - 1));

/** Samples per period of the highest frequency in the pulse for the running Fourier sums. */
const samplesPerPeriod = 2.4;
/** Wall seconds between two progress reports. */
const reportEvery = 0.4;

interface Waves {
  /** Incident power of the source at each frequency (relative), port voltage and S11. */
  sRe: Float64Array;
  sIm: Float64Array;
  source: PortSpectrum;
  voltage: PortSpectrum;
}

/** S11 from the source and port spectra: V is taken as the mean over a step, as the lumped resistor sees it. */
function reflect(source: PortSpectrum, voltage: PortSpectrum, dt: number): Waves {
  const n = source.frequencies.length;
  const sRe = new Float64Array(n);
  const sIm = new Float64Array(n);
  for (let f = 0; f < n; f++) {
    const mean = Math.cos(Math.PI * source.frequencies[f] * dt);
    const [a, b] = [source.re[f], source.im[f]];
    const [c, d] = [2 * voltage.re[f] * mean, 2 * voltage.im[f] * mean];
    const p = a * a + b * b;
    sRe[f] = (c * a + d * b) / p - 1;
    sIm[f] = (d * a - c * b) / p;
  }
  return { sRe, sIm, source, voltage };
}

/** Solves a scene in the time domain with its first port excited. Throws ProblemError if the grid shows a fault. */
export async function solveScene(scene: Scene, { host, onProgress, signal }: SolveOptions): Promise<ResultSet> {
  const discrete = discretise(scene);
  if (discrete.problems.length) throw new ProblemError(discrete.problems);
  const { dt, grid } = discrete;
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const maxSteps = stepLimit(scene, dt);
  const plan = planRecording(scene, discrete);
  const excited = 0;
  const source = (port: number, t: number): number => (port === excited ? pulseAt(pulse, t) : 0);
  const every = Math.max(1, Math.floor(1 / (samplesPerPeriod * pulse.highest * dt)));
  const simulation = await Simulation.create(
    {
      discrete,
      waveform: source,
      resistance: (p) => scene.ports[p].resistance,
      maxSteps,
      regions: plan.regions,
      frequencies: scene.recordAt,
      every,
      lowest: scene.band.from,
      boundaries: scene.boundaries,
    },
    host,
  );
  try {
    const band = bandFrequencies(scene.band);
    const sourceBand = new PortSpectrum(band, dt, 0.5);
    const sourceSeries = Float64Array.from({ length: maxSteps }, (_, n) => pulseAt(pulse, (n + 0.5) * dt));
    const voltageBand = scene.ports.map(() => new PortSpectrum(band, dt, 1));
    const stopAt = scene.details.stopAt ?? 1e-5;
    const energies: [number, number][] = [];
    const pulseSteps = Math.ceil(pulse.length / dt);
    const perPeriod = Math.max(8, Math.round(1 / (pulse.centre * dt)));
    let peak = 0;
    let energy = 1;
    let ended: 'decayed' | 'steps' | 'stopped' = 'steps';
    const started = host.now();
    let lastReport = started;
    while (simulation.steps < maxSteps) {
      const raw = await simulation.advance(Math.min(perPeriod, maxSteps - simulation.steps));
      peak = Math.max(peak, raw);
      energy = raw / peak;
      energies.push([simulation.steps, energy]);
      await host.breathe();
      if (simulation.steps >= pulseSteps && energy <= stopAt) {
        ended = 'decayed';
        break;
      }
      if (signal?.aborted) {
        ended = 'stopped';
        break;
      }
      const now = host.now();
      if (onProgress && now - lastReport > reportEvery) {
        lastReport = now;
        sourceBand.update(sourceSeries.subarray(0, simulation.steps));
        voltageBand[excited].update(simulation.voltage(excited));
        onProgress(report(simulation.steps, maxSteps, pulseSteps, energies, stopAt, now - started, reflect(sourceBand, voltageBand[excited], dt)));
      }
    }
    const seconds = host.now() - started;
    sourceBand.update(sourceSeries.subarray(0, simulation.steps));
    voltageBand.forEach((v, p) => v.update(simulation.voltage(p)));
    return assemble();

    function assemble(): ResultSet {
      const waves = voltageBand.map((v) => reflect(sourceBand, v, dt));
      const arrays: Record<string, ResultArray> = {};
      const ports = scene.ports.length;
      const s = new Float64Array(band.length * ports * 2);
      waves.forEach((w, p) => {
        // A passive port receives b = V / sqrt(R) where the source would have sent a = Vs / (2 sqrt(R)).
        const ratio = p === excited ? 1 : Math.sqrt(scene.ports[excited].resistance / scene.ports[p].resistance);
        for (let f = 0; f < band.length; f++) {
          const own = p === excited ? 0 : 1;
          s[(f * ports + p) * 2] = (w.sRe[f] + own) * ratio;
          s[(f * ports + p) * 2 + 1] = w.sIm[f] * ratio;
        }
      });
      arrays.frequency = { shape: [band.length], data: band };
      arrays.s = { shape: [band.length, ports, 2], data: s };
      Object.assign(arrays, timeSignal(simulation, ports, dt));
      arrays.energy = { shape: [2, energies.length], data: Float64Array.from([...energies.map((e) => e[0]), ...energies.map((e) => e[1])]) };
      const recorded = recordedFields({ scene, d: discrete, plan, simulation, pulse, excited, every }, arrays);
      const balance = recorded.figures?.map((f) => (f.accepted - f.radiated - f.lost) / f.accepted) ?? null;
      let largest = 0;
      for (let f = 0; f < band.length; f++) largest = Math.max(largest, Math.hypot(waves[excited].sRe[f], waves[excited].sIm[f]));
      const farField = scene.recorders.find((r) => r.kind === 'far-field');
      return {
        meta: {
          format: 'jadebell-result',
          version: 1,
          solver: 'fdtd',
          coreVersion,
          ports: scene.ports.map(({ name, resistance }) => ({ name, resistance })),
          excited: scene.ports[excited].name,
          recordAt: scene.recordAt,
          farField: farField && recorded.figures ? { name: farField.name, step: recorded.step, figures: recorded.figures } : null,
          fieldPlanes: recorded.planes,
          evidence: {
            steps: simulation.steps,
            timeStep: dt,
            cells: [cellsOf(grid, 0), cellsOf(grid, 1), cellsOf(grid, 2)],
            cellsPerWavelength: grid.cellsPerWavelength,
            residualEnergy: energy,
            ended,
            pulseAtEdges: [
              pulseLevel(pulse, scene.band.from) - pulseLevel(pulse, pulse.centre),
              pulseLevel(pulse, scene.band.to) - pulseLevel(pulse, pulse.centre),
            ],
            powerBalance: balance,
            largestReflection: largest,
            seconds,
            threads: simulation.threads,
            cellsPerSecond: (cellCount(grid) * simulation.steps) / seconds,
            bytes: simulation.bytes,
          },
        },
        arrays,
      };
    }
  } finally {
    simulation.close();
  }
}

/** Forecast from the decay of the energy since the pulse. */
function report(
  step: number,
  maxSteps: number,
  pulseSteps: number,
  energies: [number, number][],
  stopAt: number,
  elapsed: number,
  w: Waves,
): Progress {
  const last = energies[energies.length - 1];
  let steps = Math.min(maxSteps, pulseSteps * 2);
  const back = energies[Math.max(0, energies.length - 6)];
  if (step > pulseSteps && back[1] > last[1]) {
    const rate = Math.log(back[1] / last[1]) / (last[0] - back[0]);
    steps = Math.min(maxSteps, Math.ceil(step + Math.log(last[1] / stopAt) / rate));
  } else if (step >= steps) steps = maxSteps;
  const fraction = Math.min(0.99, step / steps);
  return {
    fraction,
    step,
    steps,
    energy: last[1],
    secondsLeft: (elapsed / step) * (steps - step),
    s: { frequencies: Array.from(w.source.frequencies), re: Array.from(w.sRe), im: Array.from(w.sIm) },
  };
}

/** The port voltages over time, thinned to at most 2000 samples. */
function timeSignal(simulation: Simulation, ports: number, dt: number): Record<string, ResultArray> {
  const every = Math.max(1, Math.ceil(simulation.steps / 2000));
  const count = Math.floor(simulation.steps / every);
  const signals = Array.from({ length: ports }, (_, p) => simulation.voltage(p));
  return {
    time: { shape: [count], data: Float64Array.from({ length: count }, (_, n) => (n + 1) * every * dt) },
    signal: {
      shape: [count, ports],
      data: Float64Array.from({ length: count * ports }, (_, i) => signals[i % ports][(Math.floor(i / ports) + 1) * every - 1]),
    },
  };
}

interface Recorded {
  scene: Scene;
  d: Discrete;
  plan: RecordingPlan;
  simulation: Simulation;
  pulse: Pulse;
  excited: number;
  /** Steps between Fourier samples. */
  every: number;
}

/** Fields and patterns at the recorded frequencies, scaled to 1 W incident with the source's phase taken out. */
function recordedFields(
  { scene, d, plan, simulation, pulse, excited, every }: Recorded,
  arrays: Record<string, ResultArray>,
): { figures: PatternFigures[] | null; step: number; planes: ResultSet['meta']['fieldPlanes'] } {
  const { dt } = d;
  const nf = scene.recordAt.length;
  const planes = plan.planes.map((p) => {
    const [u, v] = ([0, 1, 2] as const).filter((a) => a !== p.normal) as [0 | 1 | 2, 0 | 1 | 2];
    return { name: p.name, normal: p.normal, at: d.grid.lines[p.normal][p.index], u, v };
  });
  const far = scene.recorders.find((r) => r.kind === 'far-field');
  if (!nf) return { figures: null, step: 0, planes };
  const source = new PortSpectrum(scene.recordAt, dt, 0.5);
  source.update(Float64Array.from({ length: simulation.steps }, (_, n) => pulseAt(pulse, (n + 0.5) * dt)));
  const voltage = new PortSpectrum(scene.recordAt, dt, 1);
  voltage.update(simulation.voltage(excited));
  const waves = reflect(source, voltage, dt);
  const resistance = scene.ports[excited].resistance;
  // The Fourier sums lack the sampling interval; incident power of a source Vs behind R is |Vs/2|^2 / (2R).
  const scales = scene.recordAt.map((_, f): [number, number] => {
    const size = Math.hypot(source.re[f], source.im[f]);
    const factor = (every * dt * Math.sqrt(8 * resistance)) / (size * size);
    return [factor * source.re[f], -factor * source.im[f]];
  });
  const sums = (r: number): ReturnType<Simulation['sums']> => simulation.sums(r);

  plan.planes.forEach((p, n) => {
    const [ua, va] = [planes[n].u, planes[n].v];
    const nu = p.hi[ua] - p.lo[ua] + 1;
    const nv = p.hi[va] - p.lo[va] + 1;
    const data = new Float32Array(nf * nu * nv * 6);
    for (let f = 0; f < nf; f++) planeAtNodes(plan, n, sums, nf, f, scales[f], data, f * nu * nv * 6);
    arrays[`plane:${p.name}`] = { shape: [nf, nv, nu, 6], data };
    arrays[`plane:${p.name}:u`] = { shape: [nu], data: d.grid.lines[ua].slice(p.lo[ua], p.hi[ua] + 1) };
    arrays[`plane:${p.name}:v`] = { shape: [nv], data: d.grid.lines[va].slice(p.lo[va], p.hi[va] + 1) };
  });

  if (!far || far.kind !== 'far-field') return { figures: null, step: 0, planes };
  const nTheta = Math.max(7, Math.round(Math.PI / far.step) + 1);
  const nPhi = 2 * (nTheta - 1);
  const data = new Float64Array(nf * nTheta * nPhi * 4);
  const figures = scene.recordAt.map((frequency, f): PatternFigures => {
    const faces = boxFaces(plan, d, sums, nf, f, scales[f]);
    const pattern = nearToFar(faces, frequency, nTheta, nPhi);
    data.set(pattern.values, f * nTheta * nPhi * 4);
    const { power, peak, theta, phi } = patternPower(pattern);
    const accepted = 1 - waves.sRe[f] ** 2 - waves.sIm[f] ** 2;
    const radiated = boxPower(faces);
    const lost = lossPower(plan, d, sums, nf, f, scales[f]);
    return {
      frequency,
      radiated,
      fromPattern: power,
      accepted,
      lost,
      directivity: (4 * Math.PI * peak) / power,
      gain: (4 * Math.PI * peak * radiated) / (power * accepted),
      realisedGain: (4 * Math.PI * peak * radiated) / power,
      theta,
      phi,
      radiationEfficiency: radiated / accepted,
      totalEfficiency: radiated,
    };
  });
  arrays.farField = { shape: [nf, nTheta, nPhi, 4], data };
  return { figures, step: Math.PI / (nTheta - 1), planes };
}
