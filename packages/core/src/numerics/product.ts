/** Products of real matrices, row-major: A of m rows of k and B of k rows of n into C of m rows of n, where n is a multiple of four. */
export interface ProductKernel {
  multiply(a: Float64Array, b: Float64Array, m: number, k: number, n: number, c: Float64Array): void;
}

/** The least multiple of four that holds so many: a width of rows that products take. */
export const fours = (n: number): number => 4 * Math.ceil(n / 4);

/** The same without compiled code, several times slower. */
export const plainProducts: ProductKernel = {
  multiply(a, b, m, k, n, c) {
    c.fill(0, 0, m * n);
    for (let r = 0; r < m; r++)
      for (let i = 0, from = 0; i < k; i++) {
        const s = a[r * k + i];
        for (let to = r * n, end = to + n; to < end; to++, from++) c[to] += s * b[from];
      }
  },
};
