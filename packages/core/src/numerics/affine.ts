import type { Vec3 } from './vector.ts';

/** An affine map of space, three rows of four numbers: p -> A p + t. */
export type Affine = readonly number[];

export const identity: Affine = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];

/** A map that moves by a vector. */
export const translation = ([x, y, z]: Vec3): Affine => [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z];

/** Applies the map to a point. */
export const apply = (m: Affine, [x, y, z]: Vec3): [number, number, number] => [
  m[0] * x + m[1] * y + m[2] * z + m[3],
  m[4] * x + m[5] * y + m[6] * z + m[7],
  m[8] * x + m[9] * y + m[10] * z + m[11],
];
/** Applies its linear part to a direction. */
export const applyLinear = (m: Affine, [x, y, z]: Vec3): [number, number, number] => [
  m[0] * x + m[1] * y + m[2] * z,
  m[4] * x + m[5] * y + m[6] * z,
  m[8] * x + m[9] * y + m[10] * z,
];

/** The map that does b first, then a. */
export function compose(a: Affine, b: Affine): Affine {
  const out: number[] = [];
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 4; c++) out.push(a[4 * r] * b[c] + a[4 * r + 1] * b[4 + c] + a[4 * r + 2] * b[8 + c] + (c === 3 ? a[4 * r + 3] : 0));
  return out;
}

/** Determinant of the linear part. */
export const determinant = (m: Affine): number =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) - m[1] * (m[4] * m[10] - m[6] * m[8]) + m[2] * (m[4] * m[9] - m[5] * m[8]);

/** A map that cannot be turned round, since it flattens space. */
export class FlatMapError extends RangeError {}

/**
 * The inverse map.
 * @throws FlatMapError for a map that flattens space.
 */
export function invert(m: Affine): Affine {
  const d = determinant(m);
  if (!(Math.abs(d) > 0)) throw new FlatMapError('The map flattens space');
  const [a, b, c, , e, f, g, , i, j, k] = m;
  const r = [
    f * k - g * j,
    c * j - b * k,
    b * g - c * f,
    g * i - e * k,
    a * k - c * i,
    c * e - a * g,
    e * j - f * i,
    b * i - a * j,
    a * f - b * e,
  ].map((v) => v / d);
  const t = [m[3], m[7], m[11]];
  const row = (n: number): number[] => [r[3 * n], r[3 * n + 1], r[3 * n + 2], -(r[3 * n] * t[0] + r[3 * n + 1] * t[1] + r[3 * n + 2] * t[2])];
  return [...row(0), ...row(1), ...row(2)];
}

const snap = (v: number): number => (Math.abs(v - Math.round(v)) < 1e-15 ? Math.round(v) : v);

/** Turn by `angle` (radians, right-handed) about the line through `at` along `direction` (Rodrigues). */
export function rotation(direction: Vec3, angle: number, at: Vec3 = [0, 0, 0]): Affine {
  const n = Math.hypot(...direction) || 1;
  const [x, y, z] = direction.map((v) => v / n);
  const [c, s] = [snap(Math.cos(angle)), snap(Math.sin(angle))];
  const k = 1 - c;
  const linear: Affine = [c + x * x * k, x * y * k - z * s, x * z * k + y * s, 0, y * x * k + z * s, c + y * y * k, y * z * k - x * s, 0, z * x * k - y * s, z * y * k + x * s, c + z * z * k, 0]; // prettier-ignore
  return about(linear, at);
}

/** The linear map done about a fixed point. */
export const about = (linear: Affine, at: Vec3): Affine => compose(translation(at), compose(linear, translation([-at[0], -at[1], -at[2]])));

/** Reflection in the plane through `at` across `normal`. */
export function reflection(normal: Vec3, at: Vec3): Affine {
  const n = Math.hypot(...normal) || 1;
  const [x, y, z] = normal.map((v) => v / n);
  return about([1 - 2 * x * x, -2 * x * y, -2 * x * z, 0, -2 * x * y, 1 - 2 * y * y, -2 * y * z, 0, -2 * x * z, -2 * y * z, 1 - 2 * z * z, 0], at);
}

/** A map that stretches along the axes about a point. */
export const scaling = ([x, y, z]: Vec3, at: Vec3): Affine => about([x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0], at);

/** The frame with these axes (columns) and origin. */
export const frameOf = (x: Vec3, y: Vec3, z: Vec3, origin: Vec3): Affine => [
  x[0],
  y[0],
  z[0],
  origin[0],
  x[1],
  y[1],
  z[1],
  origin[1],
  x[2],
  y[2],
  z[2],
  origin[2],
];
