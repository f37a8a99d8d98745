import type { Axis } from '../numerics/axis.ts';

/** Surface samples of one tangential field component on one face of a closed box. */
export interface FaceSamples {
  /** 0, 1, 2: axis of the face's normal, and +1 or -1 outward. */
  normal: Axis;
  outward: 1 | -1;
  /** Coordinate of the face on its normal axis, metres. */
  at: number;
  /** Component axis, and whether it is E (V/m) or H' = eta0 H (V/m). */
  component: Axis;
  magnetic: boolean;
  /** The two in-plane axes and the coordinates and widths of the samples along them. */
  axes: [Axis, Axis];
  coordinates: [Float64Array, Float64Array];
  widths: [Float64Array, Float64Array];
  /** Complex samples [second axis][first axis]. */
  re: Float64Array;
  im: Float64Array;
}

/** A pattern on equally spaced angles: theta 0..pi in `nTheta` points, phi 0..2pi in `nPhi` points (last before 2 pi). */
export interface Pattern {
  nTheta: number;
  nPhi: number;
  /** [theta][phi][re Etheta, im Etheta, re Ephi, im Ephi], V, coefficient of exp(-jkr)/r. */
  values: Float64Array;
}

/** What an integral over a face adds to: a component of the radiation vector N (of J = n x H) or L (of M = -n x E), and its sign. */
export function currentOf({ normal, component, outward, magnetic }: Pick<FaceSamples, 'normal' | 'component' | 'outward' | 'magnetic'>): {
  axis: number;
  sign: number;
} {
  // n x e_component = sign e_other, with other the third axis.
  const cross = ((component - normal + 3) % 3 === 1 ? 1 : -1) * outward;
  return { axis: 3 - normal - component, sign: magnetic ? cross : -cross };
}

/** Far field in a direction, re and im of E_theta and E_phi, from the radiation vectors N (times eta0) and L: re, im of x, y, z; written to `out` from `at` on. */
export function fieldOf(
  n: ArrayLike<number>,
  l: ArrayLike<number>,
  k: number,
  theta: number,
  phi: number,
  out: Float64Array | number[],
  at = 0,
): void {
  const [ct, st, cp, sp] = [Math.cos(theta), Math.sin(theta), Math.cos(phi), Math.sin(phi)];
  const scale = k / (4 * Math.PI);
  // E_theta = -jk/(4 pi) (L_phi + eta N_theta); E_phi = jk/(4 pi) (L_theta - eta N_phi).
  for (let q = 0; q < 2; q++) {
    const [nx, ny, nz, lx, ly, lz] = [n[q], n[2 + q], n[4 + q], l[q], l[2 + q], l[4 + q]];
    const a = scale * (ly * cp - lx * sp + (nx * cp + ny * sp) * ct - nz * st);
    const b = scale * ((lx * cp + ly * sp) * ct - lz * st + nx * sp - ny * cp);
    // The real part turns into the imaginary one, and that into the real one with its sign changed.
    out[at + 1 - q] = q ? a : -a;
    out[at + 3 - q] = q ? -b : b;
  }
}
