import { nearToFar, type Pattern, patternPower } from '../../radiation/index.ts';
import { powerThrough } from '../../recorders/index.ts';
import { farFieldOf, type GridScene, loadAdmittance } from '../../scene/index.ts';
import { plainProducts, type ProductKernel } from '../../numerics/product.ts';
import { productKernel } from '../products.ts';
import type { SolverHost } from '../solver.ts';
import type { Complex } from '../../numerics/complex.ts';
import type { RegionSums } from '../../yee/index.ts';
import type { Discrete } from './discrete.ts';
import { beforeWalls, withImages } from './images.ts';
import { PortSpectrum } from './portSpectrum.ts';
import type { GuidedWave } from './guidedWave.ts';
import { boxFaces, lossPower, metalLosses, type RecordingPlan } from './recorders.ts';
import type { Simulation } from './simulation.ts';

/** Power lost in lumped elements at a recorded frequency, W, from the size of each port's voltage spectrum in the result's phasors. */
function elementLosses(scene: GridScene, dt: number, f: number, voltage: (port: number) => number): number {
  const frequency = scene.recordAt[f];
  let total = 0;
  scene.ports.forEach(({ load, resistance, images }, p) => {
    // Where a source excites from without, ports are loads as well.
    const re = load ? loadAdmittance(load, frequency, dt)[0] : scene.source ? 1 / resistance : 0;
    if (re !== 0) total += 0.5 * (images ?? 1) * re * (Math.cos(Math.PI * frequency * dt) * voltage(p)) ** 2;
  });
  return total;
}

/** Spectrum of a lumped port's voltage at the recorded frequencies. */
export function voltageSpectrum(simulation: Simulation, port: number, frequencies: readonly number[], dt: number): PortSpectrum {
  const s = new PortSpectrum([...frequencies], dt, 1);
  s.update(simulation.voltage(port));
  return s;
}

/** What the Huygens box and the lossy media tell at one frequency. Powers in watts. */
export interface FarReading {
  frequency: number;
  faces: ReturnType<typeof boxFaces>;
  pattern: Pattern;
  /** Power integrated from the pattern, and through the box. */
  power: number;
  radiated: number;
  /** Largest power per solid angle, and where. */
  peak: number;
  theta: number;
  phi: number;
  /** Lost in media, metal and lumped elements; of that in each line of metal. */
  lost: number;
  lostInMetal: { line: string; power: number }[];
}

interface FarInput {
  scene: GridScene;
  d: Discrete;
  plan: RecordingPlan;
  sums(region: number): RegionSums;
  /** Number of the frequency among the recorded ones, and the complex factor of its sums. */
  f: number;
  scale: Complex;
  nTheta: number;
  nPhi: number;
  /** Size of a lumped port's voltage in the result's phasors. */
  voltage(port: number): number;
  /** Waves in guides that go on through the recording box; absent: none. */
  guided?: readonly GuidedWave[];
  products: ProductKernel;
}

/** What sums far fields: compiled, where one is asked for. */
export const farProducts = async (scene: GridScene, host: SolverHost): Promise<ProductKernel> =>
  farFieldOf(scene) ? productKernel(host.module) : plainProducts;

/** Far field and powers at one recorded frequency. */
export function readFar({ scene, d, plan, sums, f, scale, nTheta, nPhi, voltage, guided = [], products }: FarInput): FarReading {
  const frequency = scene.recordAt[f];
  const faces = boxFaces(plan, d, sums, [f, frequency], scale, guided);
  const hidden = plan.walls.filter((w) => !w.real);
  const both = nearToFar(withImages(faces, plan.walls), frequency, nTheta, nPhi, products);
  const pattern = beforeWalls(both, hidden);
  const { peak, theta, phi } = patternPower(pattern);
  // The image behind a wall that is no plane of symmetry radiates in the sum only; with it the pattern has no edge to be integrated to.
  const power = patternPower(both).power / 2 ** hidden.length;
  // Power in the scheme is that of the mean of E over a step, as at the ports; in a loss E and current are both such means.
  const mean = Math.cos(Math.PI * frequency * d.dt);
  const lostInMetal = metalLosses(plan, d, sums, scene.recordAt, f, scale).map((m) => ({ ...m, power: mean ** 2 * m.power }));
  return {
    frequency,
    faces,
    pattern,
    power,
    radiated: plan.parts * mean * powerThrough(faces),
    peak,
    theta,
    phi,
    lost:
      mean ** 2 * lossPower(plan, d, sums, scene.recordAt, f, scale) +
      lostInMetal.reduce((sum, m) => sum + m.power, 0) +
      elementLosses(scene, d.dt, f, voltage),
    lostInMetal,
  };
}

/** Figures of an antenna that accepts a power, for 1 W incident. */
export const antennaFigures = ({ frequency, power, radiated, peak, theta, phi, lost, lostInMetal }: FarReading, accepted: number) => ({
  frequency,
  radiated,
  fromPattern: power,
  accepted,
  lost,
  lostInMetal,
  directivity: (4 * Math.PI * peak) / power,
  gain: (4 * Math.PI * peak * radiated) / (power * accepted),
  realisedGain: (4 * Math.PI * peak * radiated) / power,
  theta,
  phi,
  radiationEfficiency: radiated / accepted,
  totalEfficiency: radiated,
});
