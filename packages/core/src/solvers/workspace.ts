import { firstByte as base, pageBytes as page } from './arena.ts';
import { type KernelExports, kernelInstance, wasm } from './kernels.ts';

/** A memory of its own with the kernels on it, handed out from the bottom. */
export async function workspace(module: unknown): Promise<{
  exports: KernelExports;
  /** Makes sure of so many bytes beyond the base. */
  reserve(bytes: number): ArrayBufferLike;
}> {
  const memory = new wasm.Memory({ initial: 64, maximum: 65536, shared: true });
  const exports = await kernelInstance(module, memory);
  return {
    exports,
    reserve(bytes) {
      const more = Math.ceil((base + bytes) / page) + 1 - memory.buffer.byteLength / page;
      if (more > 0) memory.grow(more);
      return memory.buffer;
    },
  };
}
