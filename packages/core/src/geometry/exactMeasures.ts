import { signedArea } from '../shapes/index.ts';
import { determinant } from '../numerics/affine.ts';
import type { Exact } from './exact.ts';

/** Volume in closed form, cubic metres, or null where the triangles must serve. */
export function exactVolume(e: Exact): number | null {
  switch (e.form) {
    case 'box':
      return e.max.reduce((v, m, a) => v * (m - e.min[a]), 1);
    case 'cylinder':
      return Math.PI * e.radius ** 2 * e.height;
    case 'cone':
      return (Math.PI / 3) * e.height * (e.radii[0] ** 2 + e.radii[0] * e.radii[1] + e.radii[1] ** 2);
    case 'ball':
      return (4 / 3) * Math.PI * e.radii[0] * e.radii[1] * e.radii[2];
    case 'prism':
      return e.loops.length === 1 ? Math.abs(signedArea(e.loops[0])) * e.height : null;
    case 'moved': {
      const inner = exactVolume(e.of);
      return inner === null ? null : inner * Math.abs(determinant(e.matrix));
    }
    default:
      return null;
  }
}

/** Surface in closed form, square metres, or null. */
export function exactArea(e: Exact): number | null {
  if (e.form === 'box') {
    const [x, y, z] = e.max.map((m, a) => m - e.min[a]);
    return 2 * (x * y + y * z + z * x);
  }
  if (e.form === 'cylinder') return 2 * Math.PI * e.radius * (e.radius + e.height);
  if (e.form === 'cone')
    return Math.PI * (e.radii[0] ** 2 + e.radii[1] ** 2 + (e.radii[0] + e.radii[1]) * Math.hypot(e.height, e.radii[0] - e.radii[1]));
  if (e.form === 'ball' && e.radii.every((r) => r === e.radii[0])) return 4 * Math.PI * e.radii[0] ** 2;
  return null;
}
