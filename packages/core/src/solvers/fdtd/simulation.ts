import type { Axis } from '../../numerics/axis.ts';
import type { SceneLoad } from '../../scene/index.ts';
import type { Region, RegionSums } from '../../yee/index.ts';
import { kernelInstance, wasm } from '../kernels.ts';
import type { KernelThread, SolverHost } from '../solver.ts';
import type { Discrete } from './discrete.ts';
import type { Injection } from './injection.ts';
import { P } from '../layout.ts';
import type { GuideModes } from './modeTypes.ts';
import { packAnnexes } from './packing/annexes.ts';
import { packGuides } from './packing/guides.ts';
import { packInjection } from './packing/injection.ts';
import { packLayers, packRows } from './packing/layers.ts';
import { packMedia } from './packing/media.ts';
import { packBranches, packCuts } from './packing/metal.ts';
import { packPorts } from './packing/ports.ts';
import { packSplits } from './packing/splits.ts';
import { packProbes, packSums, type SumsAt } from './packing/recording.ts';
import { fieldBytes, Sheet } from './packing/sheet.ts';
import { packThreads } from './packing/threads.ts';
import { rebalanced } from './slabs.ts';

export interface SimulationPlan {
  discrete: Discrete;
  /** Source voltage of each port at (n + 1/2) dt. */
  waveform: (port: number, t: number) => number;
  /** Resistance of each port, ohms. */
  resistance: (port: number) => number;
  /** Passive element in a port's place, if any. */
  load?: (port: number) => SceneLoad | null;
  /** Modes of the guided ports, in the order of the discrete model; none where absent. */
  guides?: GuideModes[];
  /** Source of a guided port's mode at (n + 1/2) dt. */
  drive?: (guide: number, mode: number, t: number) => number;
  /** What a source from without adds to the fields. */
  injection?: Injection;
  maxSteps: number;
  /** Samples kept at every step. */
  probes?: Probe[];
  regions: Region[];
  /** Hertz. */
  frequencies: number[];
  /** Steps between Fourier samples. */
  every: number;
  /** Lowest frequency of interest, sets the absorbing layers. */
  lowest: number;
  boundaries: readonly string[];
}

/** The mean of two neighbouring samples of a field, kept at every step. Fields 0..5: Ex, Ey, Ez, Hx, Hy, Hz. */
export interface Probe {
  field: number;
  at: [number, number, number];
  /** Indices by which the second sample is moved, and weights of either. */
  shift: [number, number, number];
  weights: [number, number];
}

/** Cells below which one thread does it all. */
const smallModel = 20_000;

/** Bytes that a model takes, without building it. `sums` is the number of floats of Fourier sums. */
export function memoryNeeded(cells: readonly [number, number, number], outerCells: readonly number[], dictionaryBytes: number, sums: number): number {
  const [nx, ny, nz] = cells;
  const sx = (nx + 4) & ~3;
  const xBlock = outerCells[0] + outerCells[1] ? 2 * 16 : 0;
  const psi =
    4 *
    (xBlock * (ny + 1) * (nz + 1) + sx * (outerCells[2] + outerCells[3] + 2) * (nz + 1) + sx * (ny + 1) * (outerCells[4] + outerCells[5] + 2)) *
    4;
  return 6 * fieldBytes(sx, ny, nz) + psi + dictionaryBytes + 12 * (ny + 1) * nz + sums * 4;
}

/**
 * A time-domain model in shared memory, ready to be stepped. Arrays of the six fields have shape [nz + 1][ny + 1][sx],
 * x fastest; E in V/m, H multiplied by the impedance of free space.
 */
export class Simulation {
  readonly bytes: number;
  private step = 0;
  private constructor(
    private readonly plan: SimulationPlan,
    private readonly buffer: ArrayBufferLike,
    private readonly run: (...args: number[]) => unknown,
    private readonly helpers: KernelThread[],
    private readonly at: {
      config: number;
      voltages: number[];
      records: number[];
      probes: number[];
      energy: number;
      /** Costs of planes, see slabs.ts. */
      costs: Float64Array;
      sums: SumsAt[];
    },
    bytes: number,
  ) {
    this.bytes = bytes;
  }

  static async create(plan: SimulationPlan, host: SolverHost): Promise<Simulation> {
    const sheet = new Sheet(plan);
    const { words, arena } = sheet;
    const [nx, ny, nz] = sheet.cells;
    // Small models lose more by waiting than they gain by sharing.
    const threads = nx * ny * nz < smallModel ? 1 : Math.max(1, Math.min(host.threads, nz));
    packRows(sheet);
    packSplits(sheet);
    const zSlots = packLayers(sheet);
    const { voltages, edges } = packPorts(sheet);
    const records = packGuides(sheet);
    packBranches(sheet, edges);
    const media = packMedia(sheet);
    packInjection(sheet);
    packCuts(sheet);
    const probes = packProbes(sheet);
    const sums = packSums(sheet);
    const annexes = packAnnexes(sheet, records);
    const costs = packThreads(sheet, threads, { layer: (k) => zSlots[k] >= 0, ...media });

    const memory = new wasm.Memory({ initial: arena.pages(), maximum: arena.pages(), shared: true });
    for (const one of [sheet, ...annexes]) {
      one.write(memory.buffer);
      quietBias(memory.buffer, one);
    }

    const kernel = await kernelInstance(host.module, memory);
    const helpers = await Promise.all(Array.from({ length: threads - 1 }, () => host.spawn(host.module, memory)));
    const at = { config: sheet.config, voltages, records, probes, energy: words[P.ENERGY], costs, sums };
    return new Simulation(plan, memory.buffer, kernel.run, helpers, at, arena.bytes);
  }

  /** Sets the electric field, V/m, of every edge off the outer walls; for tests. */
  setElectric(value: (c: Axis, at: [number, number, number]) => number): void {
    const { sx, grid } = this.plan.discrete;
    const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
    const words = new Uint32Array(this.buffer, this.at.config, P.WORDS);
    for (const c of [0, 1, 2] as const) {
      const field = new Float32Array(this.buffer, words[P.EX + c], sx * (ny + 1) * (nz + 1));
      for (let k = c === 2 ? 0 : 1; k < nz; k++)
        for (let j = c === 1 ? 0 : 1; j < ny; j++)
          for (let i = c === 0 ? 0 : 1; i < nx; i++) field[(k * (ny + 1) + j) * sx + i] = value(c, [i, j, k]);
    }
  }

  /** Row length in floats, and rows of a plane, of the field arrays. */
  get shape(): { sx: number; rows: number } {
    const { sx, grid } = this.plan.discrete;
    return { sx, rows: grid.lines[1].length };
  }

  /** A component of E as it stands, V/m, on all edges; x fastest. */
  electric(c: Axis): Float32Array {
    const { sx, grid } = this.plan.discrete;
    const [at] = new Uint32Array(this.buffer, this.at.config + 4 * (P.EX + c), 1);
    return new Float32Array(this.buffer, at, sx * grid.lines[1].length * grid.lines[2].length);
  }

  get steps(): number {
    return this.step;
  }
  get threads(): number {
    return this.helpers.length + 1;
  }

  /** Runs `count` steps on all threads and gives the field energy after them (arbitrary unit). */
  async advance(count: number): Promise<number> {
    const threads = this.threads;
    const args = (t: number): number[] => [this.at.config, t, threads, this.step, count, 1];
    const others = this.helpers.map((h, i) => h.run(args(i + 1)));
    this.run(...args(0));
    await Promise.all(others);
    this.step += count;
    if (threads > 1) this.rebalance();
    return new Float64Array(this.buffer, this.at.energy, threads).reduce((s, v) => s + v, 0);
  }

  /** Moves the borders of the threads' slabs by what the last steps took. */
  private rebalance(): void {
    const { config, costs } = this.at;
    const words = new Uint32Array(this.buffer, config, P.WORDS);
    const slabs = new Int32Array(this.buffer, words[P.SLABS], this.threads + 1);
    slabs.set(rebalanced(slabs.slice(), costs, new Float64Array(this.buffer, words[P.BUSY], this.threads)));
  }

  /**
   * Fades the running Fourier sums out between two steps, by half a period of a cosine, and takes nothing after them: what still
   * rings outside the band then does not spill into it.
   */
  fadeSums(from: number, to: number): void {
    const { every, frequencies, maxSteps } = this.plan;
    const [at] = new Uint32Array(this.buffer, this.at.config + 4 * P.DFT_TWIDDLE, 1);
    const row = 4 * frequencies.length;
    const samples = Math.floor(maxSteps / every);
    const twiddle = new Float32Array(this.buffer, at, samples * row);
    for (let s = Math.ceil(from / every); s < samples; s++) {
      const t = Math.min(1, ((s + 1) * every - from) / (to - from));
      const weight = 0.5 + 0.5 * Math.cos(Math.PI * t);
      for (let i = s * row; i < (s + 1) * row; i++) twiddle[i] *= weight;
    }
  }

  /** Voltage of a port after each step so far, V. */
  voltage(port: number): Float64Array {
    return new Float64Array(this.buffer, this.at.voltages[port], this.step);
  }

  /**
   * Amplitude of a guided mode's E after each step, and of its H half a step before, at the port's plane. Of a port with profiles:
   * E before each step, and H half a step after, on a profile, those of all modes counted through.
   */
  guided(guide: number, mode: number): { v: Float64Array; i: Float64Array } {
    const at = this.at.records[guide] + 2 * mode * this.plan.maxSteps * 8;
    return { v: new Float64Array(this.buffer, at, this.step), i: new Float64Array(this.buffer, at + this.plan.maxSteps * 8, this.step) };
  }

  /** Samples of a probe after each step so far; E in V/m, H times the impedance of free space. */
  probe(n: number): Float32Array {
    return new Float32Array(this.buffer, this.at.probes[n], this.step);
  }

  /** Fourier sums of a region so far. */
  sums(region: number): RegionSums {
    const s = this.at.sums[region];
    return { region: this.plan.regions[region], padded: s.padded, count: s.count, data: new Float32Array(this.buffer, s.at, s.floats) };
  }

  close(): void {
    for (const h of this.helpers) h.close();
  }
}

/** Of the faint static field, V/m. */
const bias = 1e-20;

/** Writes the bias on every edge that is not metal, a wall or padding: it keeps the quiet region ahead of the wave out of denormal numbers, which are slow. */
function quietBias(memory: ArrayBufferLike, { d, cells: [, ny, nz], words }: Sheet): void {
  for (const c of [0, 1, 2] as const) biasOf(new Float32Array(memory, words[P.EX + c], (fieldBytes(d.sx, ny, nz) / 4) | 0), d, c);
}
function biasOf(field: Float32Array, d: Discrete, c: Axis): void {
  const [nx, ny, nz] = d.grid.lines.map((x) => x.length - 1);
  for (let k = 0; k < nz; k++)
    for (let j = 0; j <= ny; j++) {
      const row = d.rowOf[(k * 3 + c) * (ny + 1) + j];
      if (row === 0) continue;
      const at = (k * (ny + 1) + j) * d.sx;
      const from = at + (c === 0 ? 0 : 1);
      if (row === 1) field.fill(bias, from, at + nx);
      else {
        const cb = (row - 2) * 2 * d.sx + d.sx;
        for (let i = c === 0 ? 0 : 1; i < nx; i++) if (d.dictionary[cb + i] !== 0) field[at + i] = bias;
      }
    }
}
