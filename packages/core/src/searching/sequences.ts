/** Numbers from 0 to 1 that a seed determines: the generator mulberry32 of T. Ettinger. */
export function randomOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Bits of the numbers of a Sobol sequence. */
const bits = 32;

/**
 * Primitive polynomials (without their first and last coefficient) and first direction numbers of the dimensions from the second on: S. Joe and F. Y. Kuo,
 * SIAM J. Sci. Comput. 30 (2008) 2635, table for D(6).
 */
const directions: readonly (readonly [a: number, m: readonly number[]])[] = [
  [0, [1]],
  [1, [1, 3]],
  [1, [1, 3, 1]],
  [2, [1, 1, 1]],
  [1, [1, 1, 3, 3]],
  [4, [1, 3, 5, 13]],
  [2, [1, 1, 5, 5, 17]],
  [4, [1, 1, 5, 5, 5]],
  [7, [1, 1, 7, 11, 19]],
  [11, [1, 1, 5, 1, 1]],
  [13, [1, 1, 1, 3, 11]],
  [14, [1, 3, 5, 5, 31]],
  [1, [1, 3, 3, 9, 7, 49]],
  [13, [1, 1, 1, 15, 21, 21]],
  [16, [1, 3, 1, 13, 27, 49]],
  [19, [1, 1, 1, 15, 7, 5]],
  [22, [1, 3, 1, 15, 13, 25]],
  [25, [1, 1, 5, 5, 19, 61]],
  [1, [1, 3, 7, 11, 23, 15, 103]],
];

/** Most dimensions of a Sobol sequence here. */
export const mostDimensions = directions.length + 1;

function directionNumbers(dimension: number): Uint32Array {
  const v = new Uint32Array(bits);
  if (dimension === 0) return v.map((_, i) => 2 ** (bits - 1 - i));
  const [a, m] = directions[dimension - 1];
  const s = m.length;
  for (let i = 0; i < bits; i++) {
    if (i < s) {
      v[i] = m[i] * 2 ** (bits - 1 - i);
      continue;
    }
    v[i] = v[i - s] ^ (v[i - s] >>> s);
    for (let k = 1; k < s; k++) if ((a >>> (s - 1 - k)) & 1) v[i] ^= v[i - k];
  }
  return v;
}

/**
 * The first points of a Sobol sequence, each in the middle of its cell of the finest division: rows of `dimensions` numbers between 0 and 1, by Gray code
 * (I. A. Antonov and V. M. Saleev, 1979). A longer sequence begins with a shorter one.
 * @throws RangeError for more dimensions than there are direction numbers.
 */
export function sobol(count: number, dimensions: number): number[][] {
  if (dimensions > mostDimensions) throw new RangeError(`A Sobol sequence has at most ${mostDimensions} dimensions here.`);
  const v = Array.from({ length: dimensions }, (_, d) => directionNumbers(d));
  const x = new Uint32Array(dimensions);
  return Array.from({ length: count }, (_, n) => {
    // The place of the lowest zero of the number before tells which direction turns.
    if (n) for (let d = 0, c = 31 - Math.clz32(n & -n); d < dimensions; d++) x[d] ^= v[d][c];
    return Array.from(x, (value) => (value + 0.5) / 2 ** bits);
  });
}

/**
 * A Latin hypercube: each of `count` equal slices of each dimension holds one point, at random within it. M. D. McKay, R. J. Beckman and W. J. Conover,
 * Technometrics 21 (1979) 239.
 */
export function latinHypercube(count: number, dimensions: number, seed: number): number[][] {
  const random = randomOf(seed);
  const columns = Array.from({ length: dimensions }, () => {
    const slices = Array.from({ length: count }, (_, n) => n);
    for (let n = count - 1; n > 0; n--) {
      const other = Math.floor(random() * (n + 1));
      [slices[n], slices[other]] = [slices[other], slices[n]];
    }
    return slices.map((n) => (n + random()) / count);
  });
  return Array.from({ length: count }, (_, n) => columns.map((c) => c[n]));
}
