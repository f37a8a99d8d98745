import type { Complex } from '../numerics/complex.ts';
/** A far field in one direction: re and im of E_theta and E_phi, V. */
export type FarVector = readonly [reTheta: number, imTheta: number, rePhi: number, imPhi: number];

/** Ways to split a far field, in the order they are offered. */
export const polarisations = ['total', 'theta', 'phi', 'co', 'cross', 'right', 'left'] as const;
export type Polarisation = (typeof polarisations)[number];

export const polarisationNames: Record<Polarisation, string> = {
  total: 'total',
  theta: 'theta',
  phi: 'phi',
  co: 'co-polar',
  cross: 'cross-polar',
  right: 'right-hand circular',
  left: 'left-hand circular',
};

/**
 * One component of a far field, complex, V; of 'total' its size. Co- and cross-polar after the third definition of A. C. Ludwig (IEEE Trans. AP-21,
 * 116, 1973) for a source polarised along `reference`, radians from phi = 0; right and left by the IEEE sense, looking along propagation, for
 * exp(+j w t): right is theta - j phi, its phase counted from the same reference, so that it is even about the axis.
 */
export function component([a, b, c, d]: FarVector, what: Polarisation, phi = 0, reference = 0): Complex {
  switch (what) {
    case 'total':
      return [Math.hypot(a, b, c, d), 0];
    case 'theta':
      return [a, b];
    case 'phi':
      return [c, d];
  }
  const [cos, sin] = [Math.cos(phi - reference), Math.sin(phi - reference)];
  if (what === 'right' || what === 'left') {
    const way = what === 'right' ? 1 : -1;
    const [re, im] = [(a - way * d) * Math.SQRT1_2, (b + way * c) * Math.SQRT1_2];
    return [cos * re - way * sin * im, cos * im + way * sin * re];
  }
  return what === 'co' ? [cos * a - sin * c, cos * b - sin * d] : [sin * a + cos * c, sin * b + cos * d];
}

/** Axial ratio of the polarisation ellipse, from 1 (circular) to infinity (linear). */
export function axialRatio(e: FarVector): number {
  const right = Math.hypot(...component(e, 'right'));
  const left = Math.hypot(...component(e, 'left'));
  return Math.abs(right - left) > 0 ? (right + left) / Math.abs(right - left) : Infinity;
}

/** Tilt of the ellipse's long axis from theta towards phi, radians in (-pi/2, pi/2]. */
export const tilt = ([a, b, c, d]: FarVector): number => Math.atan2(2 * (a * c + b * d), a * a + b * b - c * c - d * d) / 2;
