import { type Complex, mul } from '../../numerics/complex.ts';
import { rightDivide } from '../../numerics/complexSolve.ts';
import type { WireMesh } from '../../grid/index.ts';
import type { SceneSource, SceneWave, WireScene } from '../../scene/index.ts';
import { addCircuit, type Circuit } from './circuit.ts';
import { addEarth } from './earth/addEarth.ts';
import { freePower, pointField } from '../../radiation/index.ts';
import { testField } from './excite.ts';
import { incidentField, pointCurrents } from './sources.ts';
import type { WireSystem } from './system.ts';

/**
 * What a wire model does at one frequency: currents at ports and probes, then the coefficients of all bases, for 1 V in each port's gap with the others
 * closed, and, last, for the source from without with all closed.
 */
export interface Drives {
  /** Ports, and the source from without if there is one. */
  count: number;
  /** For each drive the currents at ports, loads and probes, A, and last what the wires do to a dipole where one is heard: [drive][place], pairs. */
  places: Float64Array;
  /** For each drive the coefficients of the bases: [drive][basis], pairs. */
  bases: Float64Array;
}

const placeCount = (c: Circuit): number => c.ports.length + c.loads.length + c.probes.length + (c.heard ? 1 : 0);

/** What a wave does from one direction with all gaps closed: currents at ports, loads and probes, and all bases. */
export interface Direction {
  places: Float64Array;
  bases: Float64Array;
}

/** Solves the system that was factored last for waves from other directions. */
export function solveDirections(system: WireSystem, scene: WireScene, circuit: Circuit, waves: readonly SceneWave[], frequency: number): Direction[] {
  const all = [...circuit.ports, ...circuit.loads, ...circuit.probes];
  return waves.map((wave) => {
    const x = testField(system.mesh, incidentField(scene, wave, frequency), system.size);
    system.solve(x);
    return { places: Float64Array.from(all.flatMap((at) => currentOf(at, x))), bases: x.slice(0, 2 * system.mesh.bases) };
  });
}

/** Drives in which the wave comes from another direction. */
export function fromDirection(drives: Drives, { places, bases }: Direction): Drives {
  const out = { count: drives.count, places: drives.places.slice(), bases: drives.bases.slice() };
  out.places.set(places, out.places.length - places.length);
  out.bases.set(bases, out.bases.length - bases.length);
  return out;
}

/** Factors the system at a frequency and solves for all drives. */
export async function solveDrives(
  system: WireSystem,
  scene: WireScene,
  circuit: Circuit,
  source: SceneSource | null,
  frequency: number,
): Promise<Drives> {
  const fill = async (half: boolean): Promise<void> => {
    await system.fill(frequency, half);
    if (scene.ground?.kind === 'earth') addEarth(system, scene.ground, system.images!, frequency);
    addCircuit(system, scene, circuit, frequency);
  };
  await fill(system.symmetric);
  if (!system.symmetric) await system.factor();
  else if (!(await system.factorSymmetric())) {
    await fill(false);
    await system.factor();
  }
  const { mesh, size } = system;
  const right: Float64Array[] = circuit.ports.map((at) => {
    const x = new Float64Array(2 * size);
    for (const [b, s] of at) x[2 * b] += s;
    return x;
  });
  const sent = source && testField(mesh, incidentField(scene, source, frequency), size);
  if (sent) right.push(sent.slice());
  const n = placeCount(circuit);
  const out: Drives = { count: right.length, places: new Float64Array(2 * n * right.length), bases: new Float64Array(2 * mesh.bases * right.length) };
  const all = [...circuit.ports, ...circuit.loads, ...circuit.probes];
  right.forEach((x, d) => {
    system.solve(x);
    out.bases.set(x.subarray(0, 2 * mesh.bases), 2 * mesh.bases * d);
    all.forEach((at, p) => out.places.set(currentOf(at, x), 2 * (n * d + p)));
    // By reciprocity the field of the wires on the moment is that of the moment on them; over its size, so that it weighs like a current in fits.
    if (circuit.heard) out.places.set(reaction(sent!, x, mesh.bases), 2 * (n * d + n - 1));
  });
  return out;
}

function currentOf(at: readonly [number, number][], x: Float64Array): Complex {
  const sum: Complex = [0, 0];
  for (const [b, s] of at) {
    sum[0] += s * x[2 * b];
    sum[1] += s * x[2 * b + 1];
  }
  return sum;
}

/** Sum of what a source sends to each basis times its coefficient, over the size of what it sends. */
function reaction(sent: Float64Array, x: Float64Array, bases: number): Complex {
  const sum = sumOf(
    Array.from({ length: bases }, (_, m): Complex => [sent[2 * m], sent[2 * m + 1]]),
    (m) => [x[2 * m], x[2 * m + 1]],
  );
  const size = sizeOf(sent, bases);
  return [sum[0] / size, sum[1] / size];
}
const sizeOf = (sent: Float64Array, bases: number): number => Math.hypot(...sent.subarray(0, 2 * bases)) || 1;

/**
 * Power that a dipole of moment 1 gives, W, before wires that it excites: what it gives in free space, and the work against the field of its image and of
 * the wires.
 */
export function dipolePower(
  system: WireSystem,
  scene: WireScene,
  circuit: Circuit,
  dipole: Extract<SceneSource, { kind: 'dipole' }>,
  { drives, excited, frequency }: { drives: Drives; excited: Excited; frequency: number },
): number {
  const electric = dipole.of === 'electric';
  const [re] = placeCurrent(drives, circuit, excited, placeCount(circuit) - 1);
  const sent = testField(system.mesh, incidentField(scene, dipole, frequency), system.size);
  const field = new Float64Array(12);
  for (const image of pointCurrents(scene, dipole).slice(1)) pointField(image, frequency, dipole.at, field);
  const ofImage = dipole.direction.reduce((sum, d, a) => sum + d * field[(electric ? 0 : 6) + 2 * a], 0);
  // Reciprocity changes its sign between electric and magnetic sources.
  const ofWires = (electric ? 1 : -1) * re * sizeOf(sent, system.mesh.bases);
  return freePower(dipole.of, frequency) - (ofImage + ofWires) / 2;
}

/** The same excitation, so many times as strong. */
export function scaled({ factors, voltage, current }: Excited, by: number): Excited {
  const times = (list: readonly Complex[]): Complex[] => list.map(([re, im]): Complex => [by * re, by * im]);
  return { factors: times(factors), voltage: times(voltage), current: times(current) };
}

/** What the ports do together: voltages of their gaps, and the amplitudes of all drives that make them. */
export interface Excited {
  /** By drive: factor of its solution. */
  factors: Complex[];
  /** Voltages and currents of the ports. */
  voltage: Complex[];
  current: Complex[];
}

/**
 * Ports behind their own impedances: with Y between closed gaps, (1 + Z Y) V = E, where E is the open voltage of the one that sends, sqrt(8 R) V for 1 W, or, lit
 * by a source from without, -Z times the currents that it drives through closed gaps. `sends` is the port, null for that source.
 * @throws Error where the ports have no solution.
 */
export function exciteDrives(drives: Drives, circuit: Circuit, scene: WireScene, sends: number | null): Excited {
  const p = scene.ports.length;
  const n = placeCount(circuit);
  const y = (to: number, from: number): Complex => [drives.places[2 * (n * from + to)], drives.places[2 * (n * from + to) + 1]];
  const z = scene.ports.map(({ resistance, reactance }): Complex => [resistance, reactance]);
  // x A = b with A the transpose of 1 + Z Y.
  const a = new Float64Array(2 * p * p);
  const b = new Float64Array(2 * p);
  for (let i = 0; i < p; i++) {
    for (let j = 0; j < p; j++) {
      const [re, im] = mul(z[i], y(i, j));
      a[2 * (j * p + i)] = re + (i === j ? 1 : 0);
      a[2 * (j * p + i) + 1] = im;
    }
    const e: Complex = sends === null ? (mul(z[i], y(i, p)).map((v) => -v) as Complex) : [i === sends ? Math.sqrt(8 * z[i][0]) : 0, 0];
    b[2 * i] = e[0];
    b[2 * i + 1] = e[1];
  }
  const v = p ? rightDivide(b, a, 1, p) : new Float64Array(0);
  if (!v) throw new Error('The ports have no solution at this frequency.');
  const voltage = z.map((_, i): Complex => [v[2 * i], v[2 * i + 1]]);
  const factors: Complex[] = [...voltage, ...(drives.count > p ? [(sends === null ? [1, 0] : [0, 0]) as Complex] : [])];
  const current = z.map((_, i) => sumOf(factors, (d) => y(i, d)));
  return { factors, voltage, current };
}

function sumOf(factors: readonly Complex[], of: (d: number) => Complex): Complex {
  const sum: Complex = [0, 0];
  factors.forEach((f, d) => {
    const [re, im] = mul(f, of(d));
    sum[0] += re;
    sum[1] += im;
  });
  return sum;
}

/** Current at a place by its number among ports, loads and probes. */
export function placeCurrent(drives: Drives, circuit: Circuit, { factors }: Excited, place: number): Complex {
  const n = placeCount(circuit);
  return sumOf(factors, (d) => [drives.places[2 * (n * d + place)], drives.places[2 * (n * d + place) + 1]]);
}

/** Coefficients of all bases. */
export function coefficients(mesh: WireMesh, drives: Drives, { factors }: Excited): Float64Array {
  const out = new Float64Array(2 * mesh.bases);
  factors.forEach(([a, b], d) => {
    if (a === 0 && b === 0) return;
    const from = 2 * mesh.bases * d;
    for (let i = 0; i < out.length; i += 2) {
      const [x, y] = [drives.bases[from + i], drives.bases[from + i + 1]];
      out[i] += a * x - b * y;
      out[i + 1] += a * y + b * x;
    }
  });
  return out;
}

/** Power waves of S for what was sent into one port: out of each, over sqrt(2) in (R. Kurokawa, 1965). */
export function waveOut({ voltage, current }: Excited, scene: WireScene, to: number): Complex {
  const { resistance, reactance } = scene.ports[to];
  // b = (V - Z* I) / (2 sqrt R); what came in has a = sqrt 2.
  const [re, im] = mul([resistance, -reactance], current[to]);
  const scale = 1 / (2 * Math.sqrt(2 * resistance));
  return [(voltage[to][0] - re) * scale, (voltage[to][1] - im) * scale];
}
