import type { Factors, FrontKernel } from '../../numerics/factors.ts';
import { firstByte as base } from '../arena.ts';
import { workspace } from '../workspace.ts';

/** The direct solver's pieces in the compiled kernels: one memory to eliminate in, one for the factors of one matrix at a time. */
export async function denseKernel(module: unknown): Promise<FrontKernel> {
  const work = await workspace(module);
  const store = await workspace(module);
  let latest = 0;
  return {
    room(n, complex) {
      // Rows of real values are padded to an even length.
      const width = complex ? n : n + (n & 1);
      const length = (complex ? 2 : 1) * n * width;
      const f = new Float64Array(work.reserve(8 * length), base, length);
      f.fill(0);
      return { f, width };
    },
    eliminate(n, p, complex) {
      if (complex) work.exports.eliminateComplex(base, p, n);
      else work.exports.eliminate(base, n + (n & 1), p, n);
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
      /** Copies `rows` rows of `count` values from `from` on, `stride` apart. */
      const keep = (f: Float64Array, from: number, rows: number, stride: number, count: number): number => {
        const at = take(8 * rows * count);
        const to = new Float64Array(store.reserve(next - base), at, rows * count);
        for (let r = 0; r < rows; r++) to.set(f.subarray(from + r * stride, from + r * stride + count), r * count);
        return at;
      };
      return {
        add(list, count, f, width) {
          const at = take(list.byteLength);
          new Int32Array(store.reserve(next - base), at, list.length).set(list);
          const all = list.length;
          const upper = keep(f, 0, count, parts * width, parts * all);
          const lower = keep(f, parts * count * width, all - count, parts * width, parts * count);
          fronts.push([upper, lower, at, count, all]);
          widest = Math.max(widest, all);
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
