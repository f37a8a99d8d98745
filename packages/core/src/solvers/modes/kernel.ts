import type { Eliminate } from '../../numerics/fronts.ts';
import { kernelImports, wasm } from '../kernels.ts';

/** First byte of the matrix; the kernel's own data ends below. */
const base = 65536;

/** The elimination of the compiled kernels, on a memory of its own that grows as the fronts do. */
export async function denseKernel(module: unknown): Promise<Eliminate> {
  const page = 65536;
  const memory = new wasm.Memory({ initial: 64, maximum: 65536, shared: true });
  const { exports } = await wasm.instantiate(module, kernelImports(memory));
  return (f, n, p) => {
    // Rows are padded to an even length.
    const even = n + (n & 1);
    const need = Math.ceil((base + even * n * 8) / page) + 1;
    const have = memory.buffer.byteLength / page;
    if (need > have) memory.grow(need - have);
    const work = new Float64Array(memory.buffer, base, even * n);
    if (even === n) work.set(f);
    else for (let r = 0; r < n; r++) work.set(f.subarray(r * n, (r + 1) * n), r * even);
    exports.eliminate(base, even, p, n);
    if (even === n) f.set(work);
    else for (let r = 0; r < n; r++) f.set(work.subarray(r * even, r * even + n), r * n);
  };
}
