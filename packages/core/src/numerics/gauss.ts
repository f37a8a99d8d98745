/** Points on (0, 1) and weights of Gauss and Legendre, as sums over half the interval's points would give them. */
export interface Rule {
  readonly points: readonly number[];
  readonly weights: readonly number[];
}

/** The rule of n points on (0, 1) by Newton's method on the Legendre polynomial (J. Stoer, R. Bulirsch, Introduction to Numerical Analysis, 3.6). */
export function gauss(n: number): Rule {
  const points: number[] = [];
  const weights: number[] = [];
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (n - i - 0.25)) / (n + 0.5));
    let slope = 1;
    for (let round = 0; round < 50; round++) {
      let [p, q] = [1, 0];
      for (let k = 1; k <= n; k++) [p, q] = [((2 * k - 1) * x * p - (k - 1) * q) / k, p];
      slope = (n * (x * p - q)) / (x * x - 1);
      const step = p / slope;
      x -= step;
      if (Math.abs(step) < 1e-16) break;
    }
    points.push((1 + x) / 2);
    weights.push(1 / ((1 - x * x) * slope * slope));
  }
  return { points, weights };
}
