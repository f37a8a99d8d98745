/** A vector, direction or place in space. */
export type Vec3 = readonly [x: number, y: number, z: number];
type Made = [x: number, y: number, z: number];

/** The unit vector along an axis, or against it. */
export const unit = (axis: number, sign: 1 | -1 = 1): Made => [axis === 0 ? sign : 0, axis === 1 ? sign : 0, axis === 2 ? sign : 0];

/** a + b. */
export const plus = (a: Vec3, b: Vec3): Made => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** s a for a number s. */
export const times = (s: number, a: Vec3): Made => [s * a[0], s * a[1], s * a[2]];
/** a - b. */
export const minus = (a: Vec3, b: Vec3): Made => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** a . b. */
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** a x b. */
export const cross = (a: Vec3, b: Vec3): Made => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
/** The unit vector along a; a itself where it is nil. */
export const normalised = (a: Vec3): Made => {
  const n = Math.hypot(...a) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};
/** Two unit vectors across a direction and each other. */
export const acrossOf = (d: Vec3): [Made, Made] => {
  const u = normalised(cross(Math.abs(d[2]) < 0.9 * Math.hypot(...d) ? [0, 0, 1] : [1, 0, 0], d));
  return [u, normalised(cross(d, u))];
};
