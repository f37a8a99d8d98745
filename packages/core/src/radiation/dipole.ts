import { type Complex, mul } from '../numerics/complex.ts';
import { c0, eta0 } from '../numerics/constants.ts';
import type { Pattern } from './surface.ts';

type V3 = readonly [number, number, number];

/** A point of current in free space: an electric moment I l, A m, or a magnetic one, V m; real, peak. */
export interface PointCurrent {
  of: 'electric' | 'magnetic';
  at: V3;
  moment: V3;
}

/** Power that a moment of size 1 gives in free space, W: eta k^2 / 12 pi of an electric one (A m), k^2 / 12 pi eta of a magnetic one (V m). */
export const freePower = (of: PointCurrent['of'], frequency: number): number =>
  (((2 * Math.PI * frequency) / c0) ** 2 * (of === 'electric' ? eta0 : 1 / eta0)) / (12 * Math.PI);

/** The image of a point of current in a perfect plane across z: upright electric and level magnetic moments keep their sign. */
export function imageOf({ of, at, moment: [x, y, z] }: PointCurrent, ground: number): PointCurrent {
  const s = of === 'electric' ? 1 : -1;
  return { of, at: [at[0], at[1], 2 * ground - at[2]], moment: [-s * x, -s * y, s * z] };
}

/**
 * E (V/m) and H (A/m) of a point of current at another point, added to `out`: re and im of Ex, Ey, Ez, Hx, Hy, Hz. Balanis, Antenna Theory (2016), 4.2,
 * in vectors; those of a magnetic moment follow by duality.
 */
export function pointField({ of, at, moment }: PointCurrent, frequency: number, p: ArrayLike<number>, out: Float64Array): void {
  const k = (2 * Math.PI * frequency) / c0;
  const d = [p[0] - at[0], p[1] - at[1], p[2] - at[2]];
  const r = Math.hypot(...d);
  const u = d.map((x) => x / r);
  const along = u[0] * moment[0] + u[1] * moment[1] + u[2] * moment[2];
  const wave: Complex = [Math.cos(k * r) / (4 * Math.PI * r), -Math.sin(k * r) / (4 * Math.PI * r)];
  // -j k across, and (1 / r)(1 - j / kr) of what falls faster.
  const far = mul(wave, [0, -k]);
  const near = mul(wave, [1 / r, -1 / (k * r * r)]);
  const turn = mul(wave, [1 / r, k]);
  const electric = of === 'electric';
  const [own, other] = electric ? [eta0, 1] : [1 / eta0, -1];
  const [e, h] = electric ? [0, 6] : [6, 0];
  for (let a = 0; a < 3; a++) {
    const across = moment[a] - u[a] * along;
    const close = 3 * u[a] * along - moment[a];
    const [b, c] = [(a + 1) % 3, (a + 2) % 3];
    const round = moment[b] * u[c] - moment[c] * u[b];
    for (const n of [0, 1]) {
      out[e + 2 * a + n] += own * (far[n] * across + near[n] * close);
      out[h + 2 * a + n] += other * turn[n] * round;
    }
  }
}

/** Adds the far field of points of current, times a factor, to a pattern: coefficients of exp(-jkr)/r, V. */
export function addPointPattern(points: readonly PointCurrent[], factor: number, frequency: number, { nTheta, nPhi, values }: Pattern): void {
  const k = (2 * Math.PI * frequency) / c0;
  for (let t = 0; t < nTheta; t++)
    for (let f = 0; f < nPhi; f++) {
      const [theta, phi] = [(Math.PI * t) / (nTheta - 1), (2 * Math.PI * f) / nPhi];
      const [ct, st, cp, sp] = [Math.cos(theta), Math.sin(theta), Math.cos(phi), Math.sin(phi)];
      const o = 4 * (t * nPhi + f);
      for (const { of, at, moment: m } of points) {
        const onTheta = m[0] * ct * cp + m[1] * ct * sp - m[2] * st;
        const onPhi = m[1] * cp - m[0] * sp;
        // E of an electric moment runs against it; of a magnetic one it is m x r turned round, which is (theta, phi) = (m_phi, -m_theta).
        const [a, b] = of === 'electric' ? [eta0 * onTheta, eta0 * onPhi] : [onPhi, -onTheta];
        const angle = k * (at[0] * st * cp + at[1] * st * sp + at[2] * ct);
        // -j k / 4 pi times exp(j angle).
        const scale = (factor * k) / (4 * Math.PI);
        const [re, im] = [scale * Math.sin(angle), -scale * Math.cos(angle)];
        values[o] += a * re;
        values[o + 1] += a * im;
        values[o + 2] += b * re;
        values[o + 3] += b * im;
      }
    }
}
