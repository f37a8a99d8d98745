import type { Problem } from '../document/index.ts';
import type { FrontKernel } from '../numerics/factors.ts';
import type { Scene } from '../scene/index.ts';
import type { ResultArray, ResultSet } from '../results/index.ts';
import type { Estimate, Evidence } from '../methods/index.ts';

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
  /** Of adaptive accuracy: the pass under way, from 1, and how much the one before changed the result. */
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

/** What is known of a scene before it is solved. */
export interface Plan<M = unknown, C extends Estimate = Estimate> {
  problems: Problem[];
  /** The scene cut into cells or segments, and what solving it will cost; absent where an error stands in the way. */
  ready?: { mesh: M; estimate: C };
}

/** What shows of a mesh: the lines of a grid and its outer cells, or the ends of segments [3 n], metres. */
export interface MeshView {
  grid?: { lines: readonly Float64Array[]; outerCells: readonly number[] };
  nodes?: Float32Array;
}

/** The face by which interface, server and command line know every solver; its words are those of the method of its name. S its scene, M its mesh. */
export interface Solver<S extends Scene = Scene, M = unknown, C extends Estimate = Estimate, V extends Evidence = Evidence> {
  /** Looks at a scene as a specialist would before a run. */
  plan(scene: S, machine: Machine): Plan<M, C>;
  meshView(mesh: M): MeshView;
  /** What takes longer to look at than may be while a model is edited, such as ports on the grid and their modes; absent: nothing. */
  checkOnMesh?(scene: S, mesh: M, kernel?: FrontKernel): Problem[];
  solve(scene: S, options: SolveOptions): Promise<ResultSet<V>>;
}
