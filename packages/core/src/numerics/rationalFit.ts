/**
 * A rational function of one real variable through samples of a complex vector: value = sum w_j x_j / (z - z_j) over sum w_j / (z - z_j) on some of the
 * samples, one set of weights for the whole vector, chosen so that it meets the other samples as closely as it can (the AAA algorithm, Y. Nakatsukasa,
 * O. Sete, L. N. Trefethen, SIAM J. Sci. Comput. 40, 2018; for several functions at once P. Lietaert et al., IMA J. Numer. Anal. 42, 2022). Samples join one
 * by one, the worst met first, until all are met. Vectors are pairs of real and imaginary part.
 */
export class RationalFit {
  private readonly points: number[] = [];
  private readonly samples: Float64Array[] = [];
  /** Samples that carry the function, and their weights, pairs. */
  private support: number[] = [];
  private weights: Float64Array = new Float64Array(0);

  /** `tolerance` is the largest difference at a sample over the largest value of any. */
  constructor(private readonly tolerance: number) {}

  /** Adds a sample at a new place and fits anew. */
  add(z: number, x: Float64Array): void {
    this.points.push(z);
    this.samples.push(x);
    let size = 0;
    for (const s of this.samples) for (let i = 0; i < s.length; i += 2) size = Math.max(size, Math.hypot(s[i], s[i + 1]));
    const n = this.samples.length;
    this.support = [0];
    this.weights = Float64Array.of(1, 0);
    while (this.support.length < n) {
      let [worst, most] = [-1, -1];
      for (let i = 0; i < n; i++) {
        if (this.support.includes(i)) continue;
        const off = this.missed(i);
        if (off > most) [worst, most] = [i, off];
      }
      // The last sample is kept to test by, so that weights are never free.
      if (most <= this.tolerance * size) break;
      this.support.push(worst);
      if (this.support.length === n) break;
      this.weights = smallestVector(this.columns());
    }
    // Where all are needed the weights of the polynomial through them are as good as any.
    if (this.support.length === n) this.weights = polynomialWeights(this.support.map((i) => this.points[i]));
  }

  private missed(i: number): number {
    const told = this.at(this.points[i]);
    let off = 0;
    for (let c = 0; c < told.length; c += 2) off = Math.max(off, Math.hypot(told[c] - this.samples[i][c], told[c + 1] - this.samples[i][c + 1]));
    return Number.isNaN(off) ? Infinity : off;
  }

  /** Divided differences between the support and all other samples: one column for each of the support. */
  private columns(): Float64Array[] {
    const others = this.points.map((_, i) => i).filter((i) => !this.support.includes(i));
    return this.support.map((j) => {
      const length = this.samples[j].length;
      const out = new Float64Array(others.length * length);
      let at = 0;
      for (const i of others) {
        const scale = 1 / (this.points[i] - this.points[j]);
        for (let c = 0; c < length; c++) out[at++] = scale * (this.samples[i][c] - this.samples[j][c]);
      }
      return out;
    });
  }

  /** The function at a place: all of the vector, or its first `count` pairs. */
  at(z: number, count = this.samples[0].length / 2): Float64Array {
    const out = new Float64Array(2 * count);
    const same = this.support.findIndex((i) => this.points[i] === z);
    if (same >= 0) {
      out.set(this.samples[this.support[same]].subarray(0, 2 * count));
      return out;
    }
    let [dr, di] = [0, 0];
    this.support.forEach((s, j) => {
      const [a, b] = [this.weights[2 * j] / (z - this.points[s]), this.weights[2 * j + 1] / (z - this.points[s])];
      dr += a;
      di += b;
      const x = this.samples[s];
      for (let i = 0; i < 2 * count; i += 2) {
        out[i] += a * x[i] - b * x[i + 1];
        out[i + 1] += a * x[i + 1] + b * x[i];
      }
    });
    const d = dr * dr + di * di;
    for (let i = 0; i < 2 * count; i += 2) {
      const [a, b] = [out[i], out[i + 1]];
      out[i] = (a * dr + b * di) / d;
      out[i + 1] = (b * dr - a * di) / d;
    }
    return out;
  }
}

/** Weights of the polynomial through points, scaled to a largest of 1. */
function polynomialWeights(z: readonly number[]): Float64Array {
  const w = z.map((a, i) => 1 / z.reduce((p, b, j) => (i === j ? p : p * (a - b)), 1));
  const most = Math.max(...w.map(Math.abs));
  return Float64Array.from(w.flatMap((v) => [v / most, 0]));
}

/** The unit vector that a matrix, given by its columns, makes smallest: orthogonal factors, then inverse iteration on the triangle. */
function smallestVector(columns: readonly Float64Array[]): Float64Array {
  const n = columns.length;
  const basis: Float64Array[] = [];
  const triangle: Float64Array[] = [];
  for (const x of columns) {
    const rest = x.slice();
    const column = new Float64Array(2 * n);
    // Twice, so that what rounding left goes too.
    for (let round = 0; round < 2; round++)
      basis.forEach((q, j) => {
        let [re, im] = [0, 0];
        for (let i = 0; i < q.length; i += 2) {
          re += q[i] * rest[i] + q[i + 1] * rest[i + 1];
          im += q[i] * rest[i + 1] - q[i + 1] * rest[i];
        }
        for (let i = 0; i < q.length; i += 2) {
          rest[i] -= q[i] * re - q[i + 1] * im;
          rest[i + 1] -= q[i] * im + q[i + 1] * re;
        }
        column[2 * j] += re;
        column[2 * j + 1] += im;
      });
    const norm = (v: Float64Array): number => Math.sqrt(v.reduce((s, a) => s + a * a, 0));
    // A column that the others span still needs a diagonal.
    const diagonal = Math.max(norm(rest), 1e-15 * norm(x), 1e-300);
    column[2 * basis.length] = diagonal;
    basis.push(rest.map((v) => v / diagonal));
    triangle.push(column);
  }
  const r = (row: number, col: number): [number, number] => [triangle[col][2 * row], triangle[col][2 * row + 1]];
  let v: Float64Array = Float64Array.from({ length: 2 * n }, (_, i) => (i % 2 ? 0 : 1 / Math.sqrt(n)));
  for (let round = 0; round < 12; round++) {
    const y = v.slice();
    // R^H y = v, then R v = y.
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < i; j++) {
        const [a, b] = r(j, i);
        y[2 * i] -= a * y[2 * j] + b * y[2 * j + 1];
        y[2 * i + 1] -= a * y[2 * j + 1] - b * y[2 * j];
      }
      const d = r(i, i)[0];
      y[2 * i] /= d;
      y[2 * i + 1] /= d;
    }
    for (let i = n - 1; i >= 0; i--) {
      for (let j = i + 1; j < n; j++) {
        const [a, b] = r(i, j);
        y[2 * i] -= a * y[2 * j] - b * y[2 * j + 1];
        y[2 * i + 1] -= a * y[2 * j + 1] + b * y[2 * j];
      }
      const d = r(i, i)[0];
      y[2 * i] /= d;
      y[2 * i + 1] /= d;
    }
    const size = Math.hypot(...y);
    v = y.map((x) => x / size);
  }
  return v;
}
