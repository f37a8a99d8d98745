import type { Problem } from '../document/index.ts';
import type { FrontKernel } from '../numerics/factors.ts';
import type { Scene } from '../scene/index.ts';
import type { Evidence, ResultArray, ResultSet } from '../results/index.ts';

/** A thread that runs compiled kernels on shared memory, provided by the host (server, command line, browser). */
export interface KernelThread {
  /** Calls the time-domain kernel; resolves when it returns. */
  run(args: number[]): Promise<void>;
  /** Calls any exported kernel. */
  call(name: string, args: number[]): Promise<void>;
  close(): void;
}

/** What a solver needs from the machine it runs on. */
export interface SolverHost {
  /** The compiled kernels, a WebAssembly.Module. */
  module: unknown;
  /** Threads to use, this one included. */
  threads: number;
  /** Starts one more thread on the same memory. */
  spawn(module: unknown, memory: unknown): Promise<KernelThread>;
  /** Lets the host handle messages between blocks of steps. */
  breathe(): Promise<void>;
  /** Monotonic seconds. */
  now(): number;
}

/** What is known of a machine before a run. */
export interface Machine {
  /** Bytes a run may take. */
  memory: number;
  threads: number;
  /** Cell updates per second of the time-domain solver on all threads. */
  cellsPerSecond: number;
}

/** What a run in time will cost. */
export interface TimeEstimate {
  method?: undefined;
  cells: [number, number, number];
  bytes: number;
  /** Seconds of simulated time per step. */
  timeStep: number;
  /** Expected steps; the run stops earlier or later as the energy decays. */
  steps: number;
  maxSteps: number;
  /** Channels that are excited, one after the other. */
  excitations: number;
  /** Expected wall seconds on the machine. */
  seconds: number;
  cellsPerWavelength: number;
}

/** What a run on wires will cost. */
export interface WireEstimate {
  method: 'wires';
  segments: number;
  unknowns: number;
  bytes: number;
  /** Frequencies that are expected to be solved. */
  frequencies: number;
  excitations: number;
  seconds: number;
  segmentsPerWavelength: number;
}

export type Estimate = TimeEstimate | WireEstimate;

/** A cost in words, but for the time that it takes. */
export function costText(e: Estimate): string {
  const memory = `${Math.max(1, e.bytes / 1e6).toFixed(0)} MB`;
  const times = e.excitations > 1 ? `${e.excitations} × ` : '';
  return e.method === 'wires'
    ? `${e.segments.toLocaleString('en')} segments, ${e.unknowns.toLocaleString('en')} unknowns, ${memory}, about ${e.frequencies} frequencies solved, at least ${e.segmentsPerWavelength.toFixed(0)} segments a wavelength at the highest`
    : `${e.cells.join(' × ')} cells, ${memory}, about ${times}${e.steps.toLocaleString('en')} steps of ${(e.timeStep * 1e12).toPrecision(3)} ps, at least ${e.cellsPerWavelength.toFixed(0)} cells a wavelength at the highest frequency`;
}

/** State of a run under way. */
export interface Progress {
  /** 0 to 1, a forecast. */
  fraction: number;
  step: number;
  steps: number;
  /** Excitation under way, from 0, and how many there are. */
  turn: number;
  turns: number;
  /** Field energy over its peak, of a run in time. */
  energy?: number;
  /** Of accuracy certain: the pass under way, from 1, and how much the one before changed the result. */
  pass?: number;
  change?: number | null;
  secondsLeft: number | null;
  /** Reflection of the excited channel as it forms, on the band's frequencies. */
  s?: { frequencies: number[]; re: number[]; im: number[] };
}

/** What one excitation of a run leaves: it can be kept, and taken up by a later run of the same scene. */
export interface Job {
  excited: number;
  /** Plain JSON. */
  facts: unknown;
  arrays: Record<string, ResultArray>;
}

/** Where the jobs of a run are kept. */
export interface JobStore {
  /** Those that are done, by the channel that they excite. */
  have: ReadonlyMap<number, Job>;
  /** Called when one more is done. */
  done(job: Job): void;
}

export interface SolveOptions {
  host: SolverHost;
  /** Jobs that an earlier, stopped run of the same scene did, and where those of this one go; absent: nothing is kept. */
  jobs?: JobStore;
  onProgress?: (p: Progress) => void;
  /** Stops the run and keeps what was computed. */
  signal?: AbortSignal;
}

/** The face by which interface, server and command line know every solver. */
export interface Solver<S extends Scene = Scene, E extends Estimate = Estimate, V extends Evidence = Evidence> {
  name: string;
  title: string;
  check(scene: S, machine: Machine): Problem[];
  estimate(scene: S, machine: Machine): E;
  /** What takes longer to look at than a check may while a model is edited, such as ports on the grid and their modes; absent: nothing. */
  look?(scene: S, kernel?: FrontKernel): Problem[];
  solve(scene: S, options: SolveOptions): Promise<ResultSet<V>>;
}
