/** The parts of WebAssembly that are used; the core has no DOM types. */
interface Wasm {
  Memory: new (d: { initial: number; maximum: number; shared: boolean }) => { buffer: ArrayBufferLike; grow(pages: number): number };
  instantiate(module: unknown, imports: object): Promise<{ exports: Record<string, (...args: number[]) => void> }>;
}
export const wasm = (globalThis as unknown as { WebAssembly: Wasm }).WebAssembly;

/** Imports the kernels expect. */
export const kernelImports = (memory: unknown): object => ({
  env: {
    memory,
    now: () => performance.now(),
    abort: () => {
      throw new Error('A compiled kernel stopped.');
    },
  },
});
