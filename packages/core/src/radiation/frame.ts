import { plus, times, type Vec3 } from '../numerics/vector.ts';

/** Where a pattern is seen from: the origin of its phase, metres, and the local axes as unit vectors. */
export interface PatternFrame {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
  z: Vec3;
}

export const globalFrame: PatternFrame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** Unit vectors at (theta, phi) of the axes x, y, z: outwards, along theta, along phi. */
export function sphericalBase(theta: number, phi: number): { r: Vec3; theta: Vec3; phi: Vec3 } {
  const [st, ct, sp, cp] = [Math.sin(theta), Math.cos(theta), Math.sin(phi), Math.cos(phi)];
  return { r: [st * cp, st * sp, ct], theta: [ct * cp, ct * sp, -st], phi: [-sp, cp, 0] };
}

/** Axes of a frame whose z points to (theta, phi) and whose x is turned by `roll` about it from the direction of growing theta, radians. */
export function frameTowards(theta: number, phi: number, roll = 0, origin: Vec3 = [0, 0, 0]): PatternFrame {
  const base = sphericalBase(theta, phi);
  const [c, s] = [Math.cos(roll), Math.sin(roll)];
  const turned = (along: number, aside: number): Vec3 => plus(times(along, base.theta), times(aside, base.phi));
  return { origin, x: turned(c, s), y: turned(-s, c), z: base.r };
}

/** A direction given in the frame's own axes, in global ones. */
export const outwards = (frame: PatternFrame, local: Vec3): Vec3 =>
  plus(plus(times(local[0], frame.x), times(local[1], frame.y)), times(local[2], frame.z));
