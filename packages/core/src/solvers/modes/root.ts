import type { Complex } from '../../numerics/complex.ts';
import { nothing } from '../../numerics/tolerance.ts';

/** The root with falling or vanishing wave: imaginary part not above zero. */
export function rootOf(re: number, im: number): Complex {
  const size = Math.sqrt(Math.hypot(re, im));
  const half = Math.atan2(im, re) / 2;
  const [x, y] = [size * Math.cos(half), size * Math.sin(half)];
  // A passive section's mode decays the way it goes; of a lossless one below cutoff take -j alpha.
  if (Math.abs(x) < nothing * Math.abs(y)) return [0, -Math.abs(y)];
  return x < 0 ? [-x, -y] : [x, y];
}
