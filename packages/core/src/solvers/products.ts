import type { ProductKernel } from '../numerics/product.ts';
import { firstByte as base } from './arena.ts';
import { workspace } from './workspace.ts';

/** Products of matrices in the compiled kernels, in a memory of their own. */
export async function productKernel(module: unknown): Promise<ProductKernel> {
  const { exports, reserve } = await workspace(module);
  return {
    multiply(a, b, m, k, n, c) {
      const [left, right, out] = [16 * Math.ceil((m * k) / 2), 8 * k * n, 8 * m * n];
      const memory = reserve(left + right + out);
      new Float64Array(memory, base, m * k).set(a.subarray(0, m * k));
      new Float64Array(memory, base + left, k * n).set(b.subarray(0, k * n));
      const result = new Float64Array(memory, base + left + right, m * n);
      result.fill(0);
      exports.product(base, base + left, base + left + right, m, k, n);
      c.set(result);
    },
  };
}
