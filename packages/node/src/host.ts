import { readFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { KernelThread, SolverHost } from '@jadebell/core/solvers';

interface WasmCompiler {
  compile(bytes: Uint8Array): Promise<unknown>;
}
const wasm = (globalThis as unknown as { WebAssembly: WasmCompiler }).WebAssembly;

const kernelFile = fileURLToPath(new URL('../../core/kernels/build/kernels.wasm', import.meta.url));
let compiled: Promise<unknown> | null = null;

/** The compiled kernels, once per process. */
export function kernels(): Promise<unknown> {
  compiled ??= readFile(kernelFile).then(
    (bytes) => wasm.compile(bytes),
    () => {
      throw new Error(`The kernels are not built: ${kernelFile} is missing. Run: npm run kernels`);
    },
  );
  return compiled;
}

/** Starts a worker thread on shared kernel memory. */
export async function spawnKernel(module: unknown, memory: unknown): Promise<KernelThread> {
  const worker = new Worker(new URL('./helper.mjs', import.meta.url), { workerData: { module, memory } });
  const next = (): Promise<void> =>
    new Promise((resolve, reject) => {
      const done = (): void => {
        worker.off('error', fail);
        resolve();
      };
      const fail = (error: Error): void => {
        worker.off('message', done);
        reject(error);
      };
      worker.once('message', done);
      worker.once('error', fail);
    });
  await next();
  const call = (name: string, args: number[]): Promise<void> => {
    const reply = next();
    worker.postMessage({ name, args });
    return reply;
  };
  return { call, run: (args) => call('run', args), close: () => void worker.terminate() };
}

/** Threads that solvers take: as many as the machine runs at once, or what JADEBELL_THREADS says. */
export const threadsHere = (): number => Number(process.env.JADEBELL_THREADS) || availableParallelism();

/** A solver host on Node's worker threads. */
export async function nodeHost(threads = threadsHere()): Promise<SolverHost> {
  return {
    module: await kernels(),
    threads,
    spawn: spawnKernel,
    breathe: () => new Promise((resolve) => setImmediate(resolve)),
    now: () => performance.now() / 1000,
  };
}
