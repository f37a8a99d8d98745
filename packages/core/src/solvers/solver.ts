import type { Problem } from '../document/index.ts';
import type { Scene } from '../scene/index.ts';
import type { ResultArray, ResultSet } from '../results/index.ts';

/** A thread that runs the time-domain kernel on shared memory, provided by the host (server, command line, browser). */
export interface KernelThread {
  /** Calls the kernel's `run` with these arguments; resolves when it returns. */
  run(args: number[]): Promise<void>;
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

/** What a run will cost. */
export interface Estimate {
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

/** State of a run under way. */
export interface Progress {
  /** 0 to 1, a forecast. */
  fraction: number;
  step: number;
  steps: number;
  /** Excitation under way, from 0, and how many there are. */
  turn: number;
  turns: number;
  /** Field energy over its peak. */
  energy: number;
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
export interface Solver {
  name: string;
  title: string;
  check(scene: Scene, machine: Machine): Problem[];
  estimate(scene: Scene, machine: Machine): Estimate;
  solve(scene: Scene, options: SolveOptions): Promise<ResultSet>;
}
