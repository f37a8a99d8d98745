/** Digits to which waves across a box are held by their values at nodes, and harmonics beyond which a pattern has none. */
const digits = 7;

/**
 * How many terms a plane wave needs over a radius `a` (in units of 1/k) to so many digits: that of its Bessel coefficients (W. C. Chew et al., Fast and Efficient
 * Algorithms in Computational Electromagnetics, 2001, ch. 3: excess bandwidth).
 */
export const termsOf = (a: number): number => Math.ceil(a + 1.8 * digits ** (2 / 3) * Math.max(a, 1) ** (1 / 3)) + 2;

/** Chebyshev nodes on both sides of a middle, an even number of pairs, the positive ones from the outermost in; metres. */
export function nodesOf(k: number, half: number): Float64Array {
  const pairs = 2 * Math.ceil(termsOf(k * half) / 4);
  return Float64Array.from({ length: pairs }, (_, m) => half * Math.cos(((2 * m + 1) * Math.PI) / (4 * pairs)));
}

/**
 * What samples at places `x` (about the middle, metres) of weights `w` stand for at the nodes, so that sums of plane waves over both are the same: the transpose
 * of interpolation. Rows of samples: one for the even part at each node, to be summed with the cosine of its place, then one for the odd part, with the sine; and
 * the same matrix transposed.
 */
export function condensing(
  nodes: Float64Array,
  half: number,
  x: ArrayLike<number>,
  w: ArrayLike<number>,
): { rows: Float64Array; columns: Float64Array } {
  const [pairs, count] = [nodes.length, x.length];
  const n = 2 * pairs;
  const [rows, columns] = [new Float64Array(n * count), new Float64Array(n * count)];
  // Barycentric weights of nodes of the first kind (J.-P. Berrut and L. N. Trefethen, SIAM Rev. 46, 2004).
  const weights = Float64Array.from({ length: n }, (_, m) => (m % 2 ? -1 : 1) * Math.sin(((2 * m + 1) * Math.PI) / (2 * n)));
  const place = (m: number): number => (m < pairs ? nodes[m] : -nodes[n - 1 - m]);
  const shares = new Float64Array(n);
  for (let i = 0; i < count; i++) {
    let sum = 0;
    let hit = -1;
    for (let m = 0; m < n; m++) {
      const d = x[i] - place(m);
      if (Math.abs(d) < 1e-14 * half) hit = m;
      shares[m] = weights[m] / d;
      sum += shares[m];
    }
    const at = (q: number): number => (hit < 0 ? shares[q] / sum : hit === q ? 1 : 0) * w[i];
    for (let m = 0; m < pairs; m++) {
      const [p, q] = [at(m), at(n - 1 - m)];
      columns[i * n + m] = rows[m * count + i] = p + q;
      columns[i * n + pairs + m] = rows[(pairs + m) * count + i] = p - q;
    }
  }
  return { rows, columns };
}
