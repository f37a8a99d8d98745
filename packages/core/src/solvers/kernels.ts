import { firstByte } from './arena.ts';

/** The parts of WebAssembly that are used; the core has no DOM types. */
interface Wasm {
  Memory: new (d: { initial: number; maximum: number; shared: boolean }) => { buffer: ArrayBufferLike; grow(pages: number): number };
  instantiate(module: unknown, imports: object): Promise<{ exports: KernelExports }>;
}
export const wasm = (globalThis as unknown as { WebAssembly: Wasm }).WebAssembly;
export type KernelExports = Record<string, (...args: number[]) => number>;

/** The compiled kernels on a memory. Throws Error where their own data reach into what the host gives out. */
export async function kernelInstance(module: unknown, memory: unknown): Promise<KernelExports> {
  const now = (): number => performance.now();
  const abort = (): void => {
    throw new Error('A compiled kernel stopped.');
  };
  const { exports } = await wasm.instantiate(module, { env: { memory, now, abort } });
  const own = exports.ownBytes();
  if (own > firstByte) throw new Error(`The kernels need ${own} bytes of their own, but the host begins at ${firstByte}.`);
  return exports;
}
