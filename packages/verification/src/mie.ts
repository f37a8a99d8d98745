import { type Complex, div, mul, sub, abs2 } from '@jadebell/core/numerics';

/** Riccati-Bessel functions psi_n = x j_n and chi_n = -x y_n of a real argument, n = 0 .. count, psi by downward recurrence. */
function riccati(x: number, count: number): { psi: number[]; chi: number[] } {
  const start = count + 30 + Math.ceil(x);
  const down = new Array<number>(start + 2).fill(0);
  down[start] = 1e-280;
  for (let n = start; n > 0; n--) {
    down[n - 1] = ((2 * n + 1) / x) * down[n] - down[n + 1];
    if (Math.abs(down[n - 1]) > 1e250) for (let m = n - 1; m <= start; m++) down[m] *= 1e-250;
  }
  const scale = Math.abs(Math.sin(x)) > 0.1 ? Math.sin(x) / down[0] : (Math.sin(x) / x - Math.cos(x)) / down[1];
  const psi = down.slice(0, count + 1).map((v) => v * scale);
  const chi = [Math.cos(x), Math.cos(x) / x + Math.sin(x)];
  for (let n = 1; n < count; n++) chi.push(((2 * n + 1) / x) * chi[n] - chi[n - 1]);
  return { psi, chi };
}

export interface Mie {
  /** Cross-sections over pi a^2. */
  scattering: number;
  extinction: number;
  /** Radar cross-section over pi a^2 at scattering angle theta (0 ahead, pi back), in the plane of E and across it. */
  radar(theta: number, plane: 'E' | 'H'): number;
}

/**
 * Series of Mie for a sphere of size x = k a: a perfect conductor (index null) or a lossless dielectric (index real). C. F. Bohren and
 * D. R. Huffman, Absorption and Scattering of Light by Small Particles, 1983, eqs. 4.53, 4.61, 4.62 and 4.74.
 */
export function mie(x: number, index: number | null): Mie {
  const count = Math.ceil(x + 4 * Math.cbrt(x) + 8);
  const { psi, chi } = riccati(x, count);
  const inner = index === null ? null : riccati(index * x, count).psi;
  const a: Complex[] = [];
  const b: Complex[] = [];
  for (let n = 1; n <= count; n++) {
    const xi: Complex = [psi[n], -chi[n]];
    const dPsi = psi[n - 1] - (n / x) * psi[n];
    const dXi: Complex = [dPsi, -(chi[n - 1] - (n / x) * chi[n])];
    if (inner === null || index === null) {
      a.push(div([dPsi, 0], dXi));
      b.push(div([psi[n], 0], xi));
    } else {
      const m = inner[n];
      const dm = inner[n - 1] - (n / (index * x)) * m;
      const [p, q] = [index * m, dm];
      a.push(div([p * dPsi - q * psi[n], 0], sub(mul([p, 0], dXi), mul([q, 0], xi))));
      b.push(div([m * dPsi - index * dm * psi[n], 0], sub(mul([m, 0], dXi), mul([index * dm, 0], xi))));
    }
  }
  let [scattering, extinction] = [0, 0];
  for (let n = 1; n <= count; n++) {
    const [an, bn] = [a[n - 1], b[n - 1]];
    scattering += (2 * n + 1) * (abs2(an) + abs2(bn));
    extinction += (2 * n + 1) * (an[0] + bn[0]);
  }
  return {
    scattering: (2 / x ** 2) * scattering,
    extinction: (2 / x ** 2) * extinction,
    radar: (theta, plane) => {
      const mu = Math.cos(theta);
      let [before, pi] = [0, 1];
      let s: Complex = [0, 0];
      for (let n = 1; n <= count; n++) {
        const tau = n * mu * pi - (n + 1) * before;
        const [u, v] = plane === 'E' ? [tau, pi] : [pi, tau];
        const f = (2 * n + 1) / (n * (n + 1));
        s = [s[0] + f * (a[n - 1][0] * u + b[n - 1][0] * v), s[1] + f * (a[n - 1][1] * u + b[n - 1][1] * v)];
        [before, pi] = [pi, ((2 * n + 1) * mu * pi - (n + 1) * before) / n];
      }
      return (4 * abs2(s)) / x ** 2;
    },
  };
}
