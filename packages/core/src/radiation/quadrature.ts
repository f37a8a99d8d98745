/**
 * Clenshaw-Curtis weights for the integral over theta of f(theta) sin(theta), f given at n + 1 equally spaced angles from
 * 0 to pi. Exact for f a polynomial of degree n in cos(theta). (Clenshaw and Curtis, Numer. Math. 2, 1960, 197.)
 */
export function thetaWeights(n: number): Float64Array {
  const w = new Float64Array(n + 1);
  for (let i = 0; i <= n; i++) {
    let sum = 0;
    for (let k = 0; 2 * k <= n; k++) {
      const ends = k === 0 || 2 * k === n ? 0.5 : 1;
      sum += (ends * Math.cos((2 * Math.PI * k * i) / n) * 2) / (1 - 4 * k * k);
    }
    w[i] = (sum * 2 * (i === 0 || i === n ? 0.5 : 1)) / n;
  }
  return w;
}
