import { cross, minus, type Vec3 } from '../numerics/vector.ts';
import type { FieldVolume } from './fields.ts';
import { sameNumber } from '../numerics/tolerance.ts';

type Axes = FieldVolume['axes'];

/** Small pieces of surface: corners of triangles one after the other [n][3][3], metres, and each triangle's unit normal [n][3]. */
export interface Pieces {
  corners: Float32Array;
  normals: Float32Array;
}

/** Cut triangles at most this many times each: 4^6 pieces of one. */
const deepest = 6;
const most = 300_000;

/**
 * The faces of a mesh within a box of samples, cut into triangles whose sides are at most `limit` metres, so that a field can be seen on them.
 * Triangles turn their normals outwards as the mesh does.
 */
export function piecesOf(positions: ArrayLike<number>, triangles: ArrayLike<number>, axes: Axes, limit: number): Pieces {
  const corners: number[] = [];
  const normals: number[] = [];
  const [lo, hi] = [axes.map((a) => a[0]), axes.map((a) => a[a.length - 1])];
  const outside = (p: readonly Vec3[]): boolean =>
    [0, 1, 2].some((a) => p.every((v) => v[a] < lo[a] - sameNumber) || p.every((v) => v[a] > hi[a] + sameNumber));
  const half = (a: Vec3, b: Vec3): Vec3 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
  const cut = (a: Vec3, b: Vec3, c: Vec3, n: Vec3, depth: number): void => {
    if (outside([a, b, c]) || corners.length > 9 * most) return;
    const sides = [distance(a, b), distance(b, c), distance(c, a)];
    const longest = Math.max(...sides);
    if (longest <= limit || depth >= 2 * deepest) {
      corners.push(...a, ...b, ...c);
      normals.push(...n);
      return;
    }
    // The longest side is halved, so that pieces stay well shaped.
    if (longest === sides[0]) {
      const m = half(a, b);
      cut(a, m, c, n, depth + 1);
      cut(m, b, c, n, depth + 1);
    } else if (longest === sides[1]) {
      const m = half(b, c);
      cut(a, b, m, n, depth + 1);
      cut(a, m, c, n, depth + 1);
    } else {
      const m = half(c, a);
      cut(a, b, m, n, depth + 1);
      cut(m, b, c, n, depth + 1);
    }
  };
  const corner = (i: number): Vec3 => [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [corner(triangles[t]), corner(triangles[t + 1]), corner(triangles[t + 2])];
    const n = normalOf(a, b, c);
    if (n) cut(a, b, c, n, 0);
  }
  return { corners: Float32Array.from(corners), normals: Float32Array.from(normals) };
}

const distance = (a: Vec3, b: Vec3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

function normalOf(a: Vec3, b: Vec3, c: Vec3): Vec3 | null {
  const n = cross(minus(b, a), minus(c, a));
  const size = Math.hypot(n[0], n[1], n[2]);
  return size > 0 ? [n[0] / size, n[1] / size, n[2] / size] : null;
}

/** The six tetrahedra of a cell, by its corners in binary x + 2 y + 4 z: all share the diagonal 0-7, so that neighbours meet. */
const tetrahedra = [
  [0, 1, 3, 7],
  [0, 3, 2, 7],
  [0, 2, 6, 7],
  [0, 6, 4, 7],
  [0, 4, 5, 7],
  [0, 5, 1, 7],
] as const;

/**
 * The surface on which values [z][y][x] have one level, as corners of triangles [n][3][3], metres: marching tetrahedra with linear interpolation
 * (A. Doi and A. Koide, IEICE Trans. E74, 214, 1991). Cells with NaN are left out; at most about 300,000 triangles.
 */
export function levelSurface(axes: Axes, values: ArrayLike<number>, level: number): Float32Array {
  const [nx, ny, nz] = axes.map((a) => a.length);
  const out: number[] = [];
  const v = new Float64Array(8);
  const place: Vec3[] = Array.from({ length: 8 }, () => [0, 0, 0]);
  const meet = (a: number, b: number): void => {
    const t = (level - v[a]) / (v[b] - v[a]);
    for (let k = 0; k < 3; k++) out.push(place[a][k] + t * (place[b][k] - place[a][k]));
  };
  for (let z = 0; z < nz - 1; z++)
    for (let y = 0; y < ny - 1; y++)
      for (let x = 0; x < nx - 1; x++) {
        let above = 0;
        for (let k = 0; k < 8; k++) {
          const [i, j, l] = [x + (k & 1), y + ((k >> 1) & 1), z + (k >> 2)];
          v[k] = values[(l * ny + j) * nx + i];
          if (v[k] >= level) above++;
        }
        if (above === 0 || above === 8 || v.some(Number.isNaN)) continue;
        for (let k = 0; k < 8; k++) place[k] = [axes[0][x + (k & 1)], axes[1][y + ((k >> 1) & 1)], axes[2][z + (k >> 2)]];
        for (const tetra of tetrahedra) {
          const inside = tetra.filter((k) => v[k] >= level);
          const outside = tetra.filter((k) => v[k] < level);
          if (inside.length === 1) for (const o of outside) meet(inside[0], o);
          else if (inside.length === 3) for (const i of inside) meet(i, outside[0]);
          else if (inside.length === 2) {
            const [a, b] = inside;
            const [c, d] = outside;
            meet(a, c);
            meet(a, d);
            meet(b, d);
            meet(a, c);
            meet(b, d);
            meet(b, c);
          }
        }
        if (out.length > 9 * most) return Float32Array.from(out);
      }
  return Float32Array.from(out);
}
