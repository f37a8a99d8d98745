import type { Axis } from '../numerics/axis.ts';

/** A closed triangle mesh in world coordinates, metres. */
export interface MeshShape {
  form: 'mesh';
  /** x, y, z of each corner. */
  positions: Float32Array;
  /** Three corners a triangle, counter-clockwise seen from outside. */
  triangles: Uint32Array;
}

/** Triangles by the bins of the plane across an axis that they touch; y and z are its two coordinates in cyclic order. */
interface Bins {
  y0: number;
  z0: number;
  dy: number;
  dz: number;
  n: number;
  start: Uint32Array;
  list: Uint32Array;
}
const known = new WeakMap<MeshShape, Bins[]>();

function binsOf(mesh: MeshShape, axis: Axis): Bins {
  const all = known.get(mesh) ?? [];
  known.set(mesh, all);
  if (all[axis]) return all[axis];
  const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
  const { positions: p, triangles: t } = mesh;
  let [y0, y1, z0, z1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let v = 0; v < p.length; v += 3) {
    y0 = Math.min(y0, p[v + u]);
    y1 = Math.max(y1, p[v + u]);
    z0 = Math.min(z0, p[v + w]);
    z1 = Math.max(z1, p[v + w]);
  }
  const n = Math.max(1, Math.min(512, Math.ceil(Math.sqrt(t.length / 3))));
  const dy = (y1 - y0) / n || 1;
  const dz = (z1 - z0) / n || 1;
  const range = (a: number, b: number, c: number, from: number, step: number): [number, number] => [
    Math.max(0, Math.min(n - 1, Math.floor((Math.min(a, b, c) - from) / step))),
    Math.max(0, Math.min(n - 1, Math.floor((Math.max(a, b, c) - from) / step))),
  ];
  const start = new Uint32Array(n * n + 1);
  const each = (use: (bin: number, triangle: number) => void): void => {
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [3 * t[i], 3 * t[i + 1], 3 * t[i + 2]];
      const [j0, j1] = range(p[a + u], p[b + u], p[c + u], y0, dy);
      const [k0, k1] = range(p[a + w], p[b + w], p[c + w], z0, dz);
      for (let k = k0; k <= k1; k++) for (let j = j0; j <= j1; j++) use(k * n + j, i);
    }
  };
  each((bin) => start[bin + 1]++);
  for (let i = 0; i < n * n; i++) start[i + 1] += start[i];
  const list = new Uint32Array(start[n * n]);
  const next = start.slice();
  each((bin, i) => (list[next[bin]++] = i));
  const made = { y0, z0, dy, dz, n, start, list };
  all[axis] = made;
  return made;
}

/**
 * Stretches inside a mesh on a line along an axis, measured from `origin`; (y, z) are the line's coordinates across, in cyclic
 * order after the axis. By the winding number, so a mesh that overlaps itself counts once. An edge shared by two triangles is met by exactly one of them: the side test is evaluated
 * on the edge's ends in a fixed order and a tie counts as left.
 */
export function meshSpans(mesh: MeshShape, axis: Axis, y: number, z: number, origin: number): number[] {
  const b = binsOf(mesh, axis);
  const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
  const j = Math.floor((y - b.y0) / b.dy);
  const k = Math.floor((z - b.z0) / b.dz);
  if (j < 0 || k < 0 || j > b.n || k > b.n) return [];
  const bin = Math.min(k, b.n - 1) * b.n + Math.min(j, b.n - 1);
  const { positions: p, triangles: t } = mesh;
  const hits: { x: number; turn: number }[] = [];
  for (let s = b.start[bin]; s < b.start[bin + 1]; s++) {
    const i = b.list[s];
    const [v0, v1, v2] = [t[i], t[i + 1], t[i + 2]];
    const e0 = left(p, v0, v1, u, w, y, z);
    const e1 = left(p, v1, v2, u, w, y, z);
    const e2 = left(p, v2, v0, u, w, y, z);
    if (e0 !== e1 || e1 !== e2) continue;
    const [x0, y0, z0] = [p[3 * v0 + axis], p[3 * v0 + u], p[3 * v0 + w]];
    const [uy, uz, wy, wz] = [p[3 * v1 + u] - y0, p[3 * v1 + w] - z0, p[3 * v2 + u] - y0, p[3 * v2 + w] - z0];
    const area = uy * wz - uz * wy;
    if (area === 0) continue;
    const f = ((y - y0) * wz - (z - z0) * wy) / area;
    const g = (uy * (z - z0) - uz * (y - y0)) / area;
    hits.push({ x: x0 + f * (p[3 * v1 + axis] - x0) + g * (p[3 * v2 + axis] - x0) - origin, turn: e0 ? -1 : 1 });
  }
  hits.sort((p1, p2) => p1.x - p2.x || p2.turn - p1.turn);
  const out: number[] = [];
  let winding = 0;
  for (const { x, turn } of hits) {
    const before = winding;
    winding += turn;
    if (before === 0 && winding !== 0) out.push(x);
    else if (before !== 0 && winding === 0) {
      if (out[out.length - 1] < x) out.push(x);
      else out.pop();
    }
  }
  return out.length % 2 ? out.slice(0, -1) : out;
}

/** Whether (y, z) lies to the left of the directed edge, seen against the axis. Both directions of an edge always disagree. */
function left(p: Float32Array, a: number, b: number, u: number, w: number, y: number, z: number): boolean {
  const swap = a > b;
  const [i, j] = swap ? [3 * b, 3 * a] : [3 * a, 3 * b];
  const side = (p[j + u] - p[i + u]) * (z - p[i + w]) - (p[j + w] - p[i + w]) * (y - p[i + u]) >= 0;
  return side !== swap;
}
