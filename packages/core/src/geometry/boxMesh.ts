import type { Point3 } from '../shapes/index.ts';
import type { DrawnMesh } from './item.ts';
import type { Surface } from './surface.ts';

// All boxes have the same corners, triangles and edges in the same order, so that these stand once for hundreds of them.

/** Faces of a box in the order of its triangles. */
export const boxFaces = ['zmin', 'zmax', 'ymin', 'xmax', 'ymax', 'xmin'];
const across = [2, 2, 1, 0, 1, 0];
const outward = [-1, 1, -1, 1, 1, -1];
/** Outward normals of the faces; the same for all boxes, and so not to be written to. */
const normals = across.map((a, f): Point3 => [0, 1, 2].map((b) => (a === b ? outward[f] : 0)) as Point3);
/** Corners of each face, counter-clockwise from outside. */
const quads = [[0, 3, 2, 1], [4, 5, 6, 7], [0, 1, 5, 4], [1, 2, 6, 5], [2, 3, 7, 6], [3, 0, 4, 7]]; // prettier-ignore
/** Which end of x and y a corner has; the lower four come first. */
const ends = [[0, 0], [1, 0], [1, 1], [0, 1]]; // prettier-ignore

const triangles = Uint32Array.from(quads.flatMap(([p, q, s, t]) => [p, q, s, p, s, t]));
const faceOf = Uint16Array.from(quads.flatMap((_, f) => [f, f]));
const faceID = Uint32Array.from(faceOf);
const runIndex = Uint32Array.of(0, triangles.length);
/** Pairs of corners, and the faces that meet there. */
const edges = quads.flatMap((quad, f) =>
  quad.flatMap((p, i) => {
    const q = quad[(i + 1) % 4];
    const other = quads.findIndex((o, g) => g > f && o.includes(p) && o.includes(q));
    return other < 0 ? [] : [{ p, q, faces: [f, other] }];
  }),
);
const edgeFaces = Uint16Array.from(edges.flatMap((e) => e.faces));

/** A box between two corners, metres. */
export interface Box {
  min: Point3;
  max: Point3;
}

/** Numbers of a slab. */
const slabSize = 16_384;
let slab = new Float32Array(slabSize);
let used = 0;
/** Room for so many numbers: arrays of their own are dear to make and to clear away, and hundreds of boxes have two each. */
function room(count: number): Float32Array {
  if (used + count > slabSize) {
    slab = new Float32Array(slabSize);
    used = 0;
  }
  return slab.subarray(used, (used += count));
}

/** The eight corners, three coordinates each. */
function cornersOf({ min, max }: Box, corners: Float32Array): Float32Array {
  for (let v = 0; v < 8; v++) {
    const [x, y] = ends[v % 4];
    corners[3 * v] = (x ? max : min)[0];
    corners[3 * v + 1] = (y ? max : min)[1];
    corners[3 * v + 2] = (v > 3 ? max : min)[2];
  }
  return corners;
}

/** The mesh of a box under a number of the kernel. */
export const boxMesh = (box: Box, id: number): DrawnMesh => ({
  numProp: 3,
  vertProperties: cornersOf(box, new Float32Array(24)),
  triVerts: triangles,
  faceID,
  runOriginalID: Uint32Array.of(id),
  runIndex,
});

/** Triangles, faces and edges of a box, which a line made; in closed form. */
export function boxSurface(box: Box, line: string): Surface {
  const { min, max } = box;
  const positions = cornersOf(box, room(24));
  const size = [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
  const faces = boxFaces.map((name, f) => {
    const a = across[f];
    const centre: Point3 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2];
    centre[a] = outward[f] > 0 ? max[a] : min[a];
    return { line, name, area: size[(a + 1) % 3] * size[(a + 2) % 3], centre, normal: normals[f] };
  });
  const segments = room(6 * edges.length);
  edges.forEach(({ p, q }, e) => {
    for (let a = 0; a < 3; a++) {
      segments[6 * e + a] = positions[3 * p + a];
      segments[6 * e + 3 + a] = positions[3 * q + a];
    }
  });
  const [x, y, z] = size;
  return { positions, triangles, faceOf, faces, edges: segments, edgeFaces, volume: x * y * z, area: 2 * (x * y + y * z + z * x) };
}
