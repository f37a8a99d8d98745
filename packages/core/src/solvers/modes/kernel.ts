import type { Factors, FrontKernel } from '../../numerics/factors.ts';
import { kernelImports, wasm } from '../kernels.ts';

/** First byte of data; the kernel's own lies below. */
const base = 65536;
const page = 65536;

/** A memory of its own with the kernels on it, handed out from the bottom. */
async function workspace(module: unknown): Promise<{
  exports: Record<string, (...args: number[]) => unknown>;
  /** Makes sure of so many bytes beyond the base. */
  reserve(bytes: number): ArrayBufferLike;
}> {
  const memory = new wasm.Memory({ initial: 64, maximum: 65536, shared: true });
  const { exports } = await wasm.instantiate(module, kernelImports(memory));
  return {
    exports,
    reserve(bytes) {
      const more = Math.ceil((base + bytes) / page) + 1 - memory.buffer.byteLength / page;
      if (more > 0) memory.grow(more);
      return memory.buffer;
    },
  };
}

/** The direct solver's pieces in the compiled kernels: one memory to eliminate in, one for the factors of one matrix at a time. */
export async function denseKernel(module: unknown): Promise<FrontKernel> {
  const work = await workspace(module);
  const store = await workspace(module);
  let latest = 0;
  return {
    eliminate(f, n, p, complex) {
      if (complex) {
        const inside = new Float64Array(work.reserve(f.byteLength), base, f.length);
        inside.set(f);
        work.exports.eliminateComplex(base, p, n);
        f.set(inside);
        return;
      }
      // Rows are padded to an even length.
      const even = n + (n & 1);
      const inside = new Float64Array(work.reserve(even * n * 8), base, even * n);
      if (even === n) inside.set(f);
      else for (let r = 0; r < n; r++) inside.set(f.subarray(r * n, (r + 1) * n), r * even);
      work.exports.eliminate(base, even, p, n);
      if (even === n) f.set(inside);
      else for (let r = 0; r < n; r++) f.set(inside.subarray(r * even, r * even + n), r * n);
    },
    factors(unknowns, complex): Factors {
      const own = ++latest;
      const parts = complex ? 2 : 1;
      const length = parts * unknowns;
      let next = base + 16 * Math.ceil((8 * length) / 16);
      let widest = 0;
      const fronts: [upper: number, lower: number, unknowns: number, own: number, all: number][] = [];
      const take = (bytes: number): number => {
        const at = next;
        next += 16 * Math.ceil(bytes / 16);
        store.reserve(next - base);
        return at;
      };
      const keep = (a: Float64Array): number => {
        const at = take(a.byteLength);
        new Float64Array(store.reserve(next - base), at, a.length).set(a);
        return at;
      };
      return {
        add(list, count, upper, lower) {
          const at = take(list.byteLength);
          new Int32Array(store.reserve(next - base), at, list.length).set(list);
          fronts.push([keep(upper), keep(lower), at, count, list.length]);
          widest = Math.max(widest, list.length);
        },
        solve(x) {
          if (own !== latest) throw new Error('The factors were overwritten by those of a later matrix.');
          const y = next;
          const inside = new Float64Array(store.reserve(next - base + 8 * parts * widest), base, length);
          inside.set(x);
          const { forward, backward } = store.exports;
          for (const [upper, lower, list, count, all] of fronts) forward(upper, lower, list, count, all, base, y, parts - 1);
          for (let i = fronts.length - 1; i >= 0; i--) {
            const [upper, , list, count, all] = fronts[i];
            backward(upper, list, count, all, base, y, parts - 1);
          }
          x.set(inside);
        },
      };
    },
  };
}
