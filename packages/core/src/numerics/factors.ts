/** The dense pieces of the direct solver; matrices are row-major, complex values are pairs of real and imaginary part. */
export interface FrontKernel {
  /** Zeroed room for a front of n unknowns, n rows of `width` values each; the next call takes it back. */
  room(n: number, complex: boolean): { f: Float64Array; width: number };
  /** Eliminates the first p of n unknowns in that room: L (unit diagonal) and U where they fall, the rest updated. */
  eliminate(n: number, p: number, complex: boolean): void;
  /** A new store of factors for this many unknowns. A kernel may keep one only: the factors of an earlier store are lost then. */
  factors(unknowns: number, complex: boolean): Factors;
}

/** Factors of fronts, in the order of their elimination. */
export interface Factors {
  /**
   * Keeps of an eliminated front, rows of `width` values, the own unknowns' rows (L below the diagonal) and of the rest the columns of
   * L.
   */
  add(unknowns: Int32Array, own: number, f: Float64Array, width: number): void;
  /** Solves in place: right side in, solution out. */
  solve(x: Float64Array): void;
}

interface Front {
  unknowns: Int32Array;
  own: number;
  upper: Float64Array;
  lower: Float64Array;
}

/** Room of the plain kernel. */
let held = new Float64Array(0);

/** The same without compiled code: slower, for small problems. */
export const plainKernel: FrontKernel = {
  room(n, complex) {
    held = new Float64Array((complex ? 2 : 1) * n * n);
    return { f: held, width: n };
  },
  eliminate(n, p, complex) {
    const f = held;
    for (let k = 0; k < p; k++)
      for (let r = k + 1; r < n; r++) {
        if (!complex) {
          const l = (f[r * n + k] /= f[k * n + k]);
          if (l !== 0) for (let c = k + 1; c < n; c++) f[r * n + c] -= l * f[k * n + c];
          continue;
        }
        const [at, top] = [2 * (r * n + k), 2 * (k * n + k)];
        const [lr, li] = over(f[at], f[at + 1], f[top], f[top + 1]);
        f[at] = lr;
        f[at + 1] = li;
        for (let c = 2; c < 2 * (n - k); c += 2) {
          const [x, y] = [f[top + c], f[top + c + 1]];
          f[at + c] -= lr * x - li * y;
          f[at + c + 1] -= lr * y + li * x;
        }
      }
  },
  factors(_, complex) {
    const fronts: Front[] = [];
    const parts = complex ? 2 : 1;
    return {
      add(unknowns, own, f, width) {
        const n = unknowns.length;
        const upper = new Float64Array(parts * own * n);
        const lower = new Float64Array(parts * (n - own) * own);
        for (let r = 0; r < n; r++) {
          const row = parts * r * width;
          if (r < own) upper.set(f.subarray(row, row + parts * n), parts * r * n);
          else lower.set(f.subarray(row, row + parts * own), parts * (r - own) * own);
        }
        fronts.push({ unknowns, own, upper, lower });
      },
      solve(x) {
        const y = new Float64Array(parts * Math.max(0, ...fronts.map((f) => f.unknowns.length)));
        const take = complex ? takeComplex : takeReal;
        for (const { unknowns, own, upper, lower } of fronts)
          for (let r = 0; r < unknowns.length; r++) {
            const at = parts * unknowns[r];
            if (r < own) take(upper, parts * r * unknowns.length, y, 0, r, x, at);
            else take(lower, parts * (r - own) * own, y, 0, own, x, at);
            if (r < own) for (let k = 0; k < parts; k++) y[parts * r + k] = x[at + k];
          }
        for (const { unknowns, own, upper } of fronts.toReversed()) {
          const n = unknowns.length;
          for (let r = own; r < n; r++) for (let k = 0; k < parts; k++) y[parts * r + k] = x[parts * unknowns[r] + k];
          for (let r = own - 1; r >= 0; r--) {
            const at = parts * unknowns[r];
            const pivot = parts * (r * n + r);
            take(upper, pivot + parts, y, parts * (r + 1), n - r - 1, x, at);
            if (complex) [x[at], x[at + 1]] = over(x[at], x[at + 1], upper[pivot], upper[pivot + 1]);
            else x[at] /= upper[pivot];
            for (let k = 0; k < parts; k++) y[parts * r + k] = x[at + k];
          }
        }
      },
    };
  },
};

const over = (a: number, b: number, c: number, d: number): [number, number] => {
  const s = c * c + d * d;
  return [(a * c + b * d) / s, (b * c - a * d) / s];
};

/** Takes the sum of `count` products a b out of x at `at`. */
function takeReal(a: Float64Array, from: number, b: Float64Array, shift: number, count: number, x: Float64Array, at: number): void {
  let s = 0;
  for (let i = 0; i < count; i++) s += a[from + i] * b[shift + i];
  x[at] -= s;
}

function takeComplex(a: Float64Array, from: number, b: Float64Array, shift: number, count: number, x: Float64Array, at: number): void {
  let [re, im] = [0, 0];
  for (let i = 0; i < 2 * count; i += 2) {
    const [p, q, u, v] = [a[from + i], a[from + i + 1], b[shift + i], b[shift + i + 1]];
    re += p * u - q * v;
    im += p * v + q * u;
  }
  x[at] -= re;
  x[at + 1] -= im;
}
