/**
 * Reference solution for dipoles: the reaction formulation with piecewise-sinusoidal currents and tests on the axis and
 * surface of a thin wire (J. H. Richmond, Radiation and Scattering by Thin-Wire Structures, NASA CR-2399, 1974). The field of
 * a sinusoidal current is known in closed form; its test integral is taken by Gauss-Legendre quadrature.
 */
import { abs, c0, type Complex, div, eta0, mul, sub } from '@jadebell/core/numerics';

const nodes = [
  -0.9602898564975363, -0.7966664774136267, -0.525532409916329, -0.1834346424956498, 0.1834346424956498, 0.525532409916329, 0.7966664774136267,
  0.9602898564975363,
];
const weights = [
  0.1012285362903763, 0.2223810344533745, 0.3137066458778873, 0.362683783378362, 0.362683783378362, 0.3137066458778873, 0.2223810344533745,
  0.1012285362903763,
];

/** Input impedance in ohms of a centre-fed straight wire of length l and radius a, `modes` odd. */
export function thinWireImpedance(l: number, a: number, f: number, modes = 41): Complex {
  const k = (2 * Math.PI * f) / c0;
  const h = l / (modes + 1);
  const s = Math.sin(k * h);
  // Mutual impedance depends on the distance of the modes only.
  const mutual = Array.from({ length: modes }, (_, n): [number, number] => {
    let re = 0;
    let im = 0;
    for (const side of [-1, 1])
      for (let part = 0; part < 4; part++)
        for (let q = 0; q < nodes.length; q++) {
          const u = ((part + (nodes[q] + 1) / 2) * h) / 4;
          const test = Math.sin(k * (h - u)) / s;
          const z = n * h + side * u;
          // E_z of the mode at z = 0: -j eta/(4 pi sin kh) (g(z-h) + g(z+h) - 2 cos(kh) g(z)), g = exp(-jkR)/R.
          for (const [at, w] of [
            [z - h, 1],
            [z + h, 1],
            [z, -2 * Math.cos(k * h)],
          ] as const) {
            const r = Math.hypot(at, a);
            const scale = (w * test * weights[q] * h * eta0) / (8 * 4 * Math.PI * s * r);
            // minus E: +j exp(-jkr) = sin(kr) + j cos(kr).
            re += scale * Math.sin(k * r);
            im += scale * Math.cos(k * r);
          }
        }
    return [re, im];
  });
  const middle = (modes - 1) / 2;
  const current = solveComplex(
    modes,
    (i, j) => mutual[Math.abs(i - j)],
    (i) => (i === middle ? [1, 0] : [0, 0]),
  )[middle];
  return div([1, 0], current);
}

/** Dense complex system by Gaussian elimination with pivoting. */
function solveComplex(n: number, entry: (i: number, j: number) => Complex, right: (i: number) => Complex): Complex[] {
  const m = Array.from({ length: n }, (_, i) => [...Array.from({ length: n }, (__, j): Complex => [...entry(i, j)]), right(i)]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (abs(m[r][c]) > abs(m[pivot][c])) pivot = r;
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const q = div(m[r][c], m[c][c]);
      for (let j = c; j <= n; j++) m[r][j] = sub(m[r][j], mul(q, m[c][j]));
    }
  }
  return m.map((row, i) => div(row[n], row[i]));
}
