/**
 * Reference solution for dipoles: the reaction formulation with piecewise-sinusoidal currents and tests on the axis and
 * surface of a thin wire (J. H. Richmond, Radiation and Scattering by Thin-Wire Structures, NASA CR-2399, 1974). The field of
 * a sinusoidal current is known in closed form; its test integral is taken by Gauss-Legendre quadrature.
 */
import { c0, eta0 } from '@jadebell/core/numerics';

const nodes = [
  -0.9602898564975363, -0.7966664774136267, -0.525532409916329, -0.1834346424956498, 0.1834346424956498, 0.525532409916329, 0.7966664774136267,
  0.9602898564975363,
];
const weights = [
  0.1012285362903763, 0.2223810344533745, 0.3137066458778873, 0.362683783378362, 0.362683783378362, 0.3137066458778873, 0.2223810344533745,
  0.1012285362903763,
];

/** Input impedance in ohms of a centre-fed straight wire of length l and radius a, `modes` odd. */
export function thinWireImpedance(l: number, a: number, f: number, modes = 41): { re: number; im: number } {
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
  const d = current[0] ** 2 + current[1] ** 2;
  return { re: current[0] / d, im: -current[1] / d };
}

/** Dense complex system by Gaussian elimination with pivoting. */
function solveComplex(n: number, entry: (i: number, j: number) => [number, number], right: (i: number) => [number, number]): [number, number][] {
  const m = Array.from({ length: n }, (_, i) => [...Array.from({ length: n }, (__, j): [number, number] => [...entry(i, j)]), right(i)]);
  const over = (a: [number, number], b: [number, number]): [number, number] => {
    const d = b[0] ** 2 + b[1] ** 2;
    return [(a[0] * b[0] + a[1] * b[1]) / d, (a[1] * b[0] - a[0] * b[1]) / d];
  };
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.hypot(...m[r][c]) > Math.hypot(...m[pivot][c])) pivot = r;
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const q = over(m[r][c], m[c][c]);
      for (let j = c; j <= n; j++) {
        const [x, y] = m[c][j];
        m[r][j] = [m[r][j][0] - q[0] * x + q[1] * y, m[r][j][1] - q[0] * y - q[1] * x];
      }
    }
  }
  return m.map((row, i) => over(row[n], row[i]));
}
