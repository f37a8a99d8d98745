/**
 * Complex numbers, with exp(+j w t). One alone is a pair. Many of them lie either in one array, real and imaginary part in turn (matrices, results:
 * the last axis is 2), or, where loops run over one part, in two arrays of the same length (fields and operators of sections, sums of blocks).
 */
export type Complex = [re: number, im: number];

/** Complex numbers in two arrays of the same length. */
export interface Complexes {
  re: Float64Array;
  im: Float64Array;
}

/** A complex number that is only read. */
type Z = readonly [re: number, im: number];

/** a + b. */
export const add = ([a, b]: Z, [c, d]: Z): Complex => [a + c, b + d];
/** a - b. */
export const sub = ([a, b]: Z, [c, d]: Z): Complex => [a - c, b - d];
/** a b. */
export const mul = ([a, b]: Z, [c, d]: Z): Complex => [a * c - b * d, a * d + b * c];
/** a / b. */
export const div = ([a, b]: Z, [c, d]: Z): Complex => {
  const n = c * c + d * d;
  return [(a * c + b * d) / n, (b * c - a * d) / n];
};
/** x a for a real x. */
export const scale = (x: number, [a, b]: Z): Complex => [x * a, x * b];
/** The number of a size and a phase, radians. */
export const polar = (size: number, phase: number): Complex => [size * Math.cos(phase), size * Math.sin(phase)];
/** Conjugate of a. */
export const conj = ([a, b]: Z): Complex => [a, -b];
/** |a|. */
export const abs = ([a, b]: Z): number => Math.hypot(a, b);
/** |a|^2. */
export const abs2 = ([a, b]: Z): number => a * a + b * b;
/** Phase of a, radians from -pi to pi. */
export const arg = ([a, b]: Z): number => Math.atan2(b, a);
/** exp(a). */
export const exp = ([a, b]: Z): Complex => [Math.exp(a) * Math.cos(b), Math.exp(a) * Math.sin(b)];
