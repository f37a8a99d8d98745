import type { MeshData } from '../../document/index.ts';

/** What was found wrong with a mesh and mended. */
export interface Repair {
  mesh: MeshData;
  /** Closed and with every edge shared by two triangles. */
  closed: boolean;
  welded: number;
  removed: number;
  turned: number;
  holes: number;
  /** Edges that are still open or shared by more than two triangles. */
  bad: number;
}

/**
 * Mends a mesh: corners that coincide within `tolerance` become one, triangles of no area and doubles go, triangles are turned
 * to agree with their neighbours and to face outwards, and holes are closed by fans about their middle.
 */
export function repairMesh({ positions, triangles }: MeshData, tolerance?: number): Repair {
  let extent = 0;
  for (let i = 3; i < positions.length; i++) extent = Math.max(extent, Math.abs(positions[i] - positions[i % 3]));
  const step = tolerance ?? 1e-6 * extent;
  const { corners, map } = weld(positions, step || 1e-30);
  const welded = positions.length / 3 - corners.length / 3;
  let faces: [number, number, number][] = [];
  const seen = new Set<string>();
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const f: [number, number, number] = [map[triangles[i]], map[triangles[i + 1]], map[triangles[i + 2]]];
    if (f[0] === f[1] || f[1] === f[2] || f[2] === f[0]) continue;
    const key = [...f].sort((a, b) => a - b).join();
    if (seen.has(key)) continue;
    seen.add(key);
    faces.push(f);
  }
  const removed = triangles.length / 3 - faces.length;
  const turned = agree(corners, faces);
  const holes = closeHoles(corners, faces);
  if (holes) faces = faces.filter((f) => f[0] !== f[1] && f[1] !== f[2] && f[2] !== f[0]);
  const bad = badEdges(corners.length / 3, faces);
  return {
    mesh: { positions: Float32Array.from(corners), triangles: Uint32Array.from(faces.flat()) },
    closed: bad === 0 && faces.length > 3,
    welded,
    removed,
    turned,
    holes,
    bad,
  };
}

/** Corners that fall into the same or neighbouring cells of a lattice and lie within a step become one. */
function weld(positions: Float32Array, step: number): { corners: number[]; map: Uint32Array } {
  const cells = new Map<string, number>();
  const corners: number[] = [];
  const map = new Uint32Array(positions.length / 3);
  for (let v = 0; v < map.length; v++) {
    const p = [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
    const c = p.map((x) => Math.floor(x / step));
    let found = -1;
    for (let n = 0; n < 27 && found < 0; n++) {
      const at = cells.get(`${c[0] + (n % 3) - 1} ${c[1] + (Math.floor(n / 3) % 3) - 1} ${c[2] + Math.floor(n / 9) - 1}`);
      if (at !== undefined && Math.hypot(corners[3 * at] - p[0], corners[3 * at + 1] - p[1], corners[3 * at + 2] - p[2]) <= step) found = at;
    }
    if (found < 0) {
      found = corners.length / 3;
      corners.push(...p);
      cells.set(c.join(' '), found);
    }
    map[v] = found;
  }
  return { corners, map };
}

/** Triangles at each edge, by the edge's lower corner times the number of corners plus the higher. */
function edgeMap(count: number, faces: readonly (readonly number[])[]): Map<number, number[]> {
  const edges = new Map<number, number[]>();
  faces.forEach((f, t) => {
    for (let i = 0; i < 3; i++) {
      const [a, b] = [f[i], f[(i + 1) % 3]];
      const key = a < b ? a * count + b : b * count + a;
      const list = edges.get(key);
      if (list) list.push(t);
      else edges.set(key, [t]);
    }
  });
  return edges;
}

const runs = (f: readonly number[], a: number, b: number): boolean =>
  (f[0] === a && f[1] === b) || (f[1] === a && f[2] === b) || (f[2] === a && f[0] === b);

/** Turns triangles so that neighbours agree and each piece faces outwards; returns how many were turned. */
function agree(corners: readonly number[], faces: [number, number, number][]): number {
  const count = corners.length / 3;
  const edges = edgeMap(count, faces);
  const state = new Int8Array(faces.length);
  let turned = 0;
  for (let seed = 0; seed < faces.length; seed++) {
    if (state[seed]) continue;
    const piece = [seed];
    state[seed] = 1;
    const flipped = new Set<number>();
    for (let at = 0; at < piece.length; at++) {
      const f = faces[piece[at]];
      for (let i = 0; i < 3; i++) {
        const [a, b] = [f[i], f[(i + 1) % 3]];
        const shared = edges.get(a < b ? a * count + b : b * count + a)!;
        if (shared.length !== 2) continue;
        const other = shared[0] === piece[at] ? shared[1] : shared[0];
        if (state[other]) continue;
        state[other] = 1;
        if (runs(faces[other], a, b)) {
          [faces[other][1], faces[other][2]] = [faces[other][2], faces[other][1]];
          flipped.add(other);
        }
        piece.push(other);
      }
    }
    let six = 0;
    for (const t of piece) {
      const [a, b, c] = faces[t].map((v) => [corners[3 * v], corners[3 * v + 1], corners[3 * v + 2]]);
      six += a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
    }
    if (six < 0) {
      for (const t of piece) [faces[t][1], faces[t][2]] = [faces[t][2], faces[t][1]];
      turned += piece.length - flipped.size;
    } else turned += flipped.size;
  }
  return turned;
}

/** Closes loops of open edges by fans about their middle; returns how many. */
function closeHoles(corners: number[], faces: [number, number, number][]): number {
  const count = corners.length / 3;
  // The way around a hole runs against the triangles at its edge.
  const next = new Map<number, number>();
  for (const [key, shared] of edgeMap(count, faces)) {
    if (shared.length !== 1) continue;
    const [a, b] = [Math.floor(key / count), key % count];
    if (runs(faces[shared[0]], a, b)) next.set(b, a);
    else next.set(a, b);
  }
  let holes = 0;
  while (next.size) {
    const [start] = next.keys();
    const loop: number[] = [];
    for (let at: number | undefined = start; at !== undefined && next.has(at) && loop.length <= 100_000;) {
      loop.push(at);
      const to: number = next.get(at)!;
      next.delete(at);
      at = to;
    }
    if (loop.length < 3) continue;
    holes++;
    if (loop.length === 3) {
      faces.push([loop[0], loop[1], loop[2]]);
      continue;
    }
    const middle = [0, 1, 2].map((a) => loop.reduce((s, v) => s + corners[3 * v + a], 0) / loop.length);
    const hub = corners.length / 3;
    corners.push(...middle);
    loop.forEach((v, i) => faces.push([hub, v, loop[(i + 1) % loop.length]]));
  }
  return holes;
}

/** Number of edges that are not shared by exactly two triangles. */
function badEdges(count: number, faces: readonly (readonly number[])[]): number {
  let bad = 0;
  for (const shared of edgeMap(count, faces).values()) if (shared.length !== 2) bad++;
  return bad;
}
