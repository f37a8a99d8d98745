/** A complex number as real and imaginary part. */
export type C = [re: number, im: number];

/** a + b. */
export const add = ([a, b]: C, [c, d]: C): C => [a + c, b + d];
/** a - b. */
export const sub = ([a, b]: C, [c, d]: C): C => [a - c, b - d];
/** a b. */
export const mul = ([a, b]: C, [c, d]: C): C => [a * c - b * d, a * d + b * c];
/** a / b. */
export const div = ([a, b]: C, [c, d]: C): C => {
  const n = c * c + d * d;
  return [(a * c + b * d) / n, (b * c - a * d) / n];
};
