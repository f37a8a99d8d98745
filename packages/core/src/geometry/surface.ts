import { type Point3, signedArea } from '../shapes/index.ts';
import { apply } from '../numerics/affine.ts';
import { boxSurface } from './boxMesh.ts';
import { exactArea, exactVolume } from './exactMeasures.ts';
import { tidyLoops } from './flat.ts';
import type { Item } from './item.ts';
import { normalOf } from './item.ts';
import type { Kernel } from './kernel.ts';
import { fan, isConvex, type Origins } from './solids.ts';
import { sameMesh } from '../numerics/tolerance.ts';

/** A face: triangles that came from one face of one line. */
export interface Face {
  /** Name of the line it came from, and of the face there. */
  line: string;
  name: string;
  area: number;
  centre: Point3;
  /** Unit normal, or null for a curved face. */
  normal: Point3 | null;
}

/** Triangles of a body with the faces they belong to. */
export interface Surface {
  /** Three coordinates a corner, metres. */
  positions: Float32Array;
  /** Three corners a triangle. */
  triangles: Uint32Array;
  /** Face of each triangle. */
  faceOf: Uint16Array;
  faces: Face[];
  /** Segments of its edges, six coordinates each, and the two faces that meet there. */
  edges: Float32Array;
  edgeFaces: Uint16Array;
  volume: number;
  area: number;
}

/** Cosine of the angle above which an edge inside one face is drawn too. */
const sharp = Math.cos((40 * Math.PI) / 180);

/** Faces and edges from labelled triangles. An edge stands where two faces meet, and where one face has a crease. */
function assemble(positions: Float32Array, triangles: Uint32Array, faceOf: Uint16Array, labels: { line: string; name: string }[]): Surface {
  const normals = new Float64Array(triangles.length);
  // Of each face: its area, its first moments, and the sum of its normals.
  const sums = new Float64Array(7 * labels.length);
  let six = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = 3 * triangles[t];
    const b = 3 * triangles[t + 1];
    const c = 3 * triangles[t + 2];
    const ax = positions[a];
    const ay = positions[a + 1];
    const az = positions[a + 2];
    const bx = positions[b];
    const by = positions[b + 1];
    const bz = positions[b + 2];
    const cx = positions[c];
    const cy = positions[c + 1];
    const cz = positions[c + 2];
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay);
    const ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az);
    const nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    const twice = Math.sqrt(nx * nx + ny * ny + nz * nz);
    six += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
    const f = 7 * faceOf[t / 3];
    sums[f] += twice / 2;
    sums[f + 1] += (twice / 6) * (ax + bx + cx);
    sums[f + 2] += (twice / 6) * (ay + by + cy);
    sums[f + 3] += (twice / 6) * (az + bz + cz);
    sums[f + 4] += nx / 2;
    sums[f + 5] += ny / 2;
    sums[f + 6] += nz / 2;
    const inverse = twice > 0 ? 1 / twice : 0;
    normals[t] = nx * inverse;
    normals[t + 1] = ny * inverse;
    normals[t + 2] = nz * inverse;
  }
  let area = 0;
  const faces = labels.map(({ line, name }, i): Face => {
    const f = 7 * i;
    const own = sums[f];
    area += own;
    const [x, y, z] = [sums[f + 4], sums[f + 5], sums[f + 6]];
    const length = Math.sqrt(x * x + y * y + z * z);
    const by = own || 1;
    const normal: Point3 | null = own > 0 && length > 0.9999 * own ? [tidy(x / length), tidy(y / length), tidy(z / length)] : null;
    return { line, name, area: own, centre: [sums[f + 1] / by, sums[f + 2] / by, sums[f + 3] / by], normal };
  });
  // A face that lies in several planes, as of copies at several heights, is not flat.
  const low = new Float64Array(faces.length).fill(Infinity);
  const high = new Float64Array(faces.length).fill(-Infinity);
  for (let i = 0; i < triangles.length; i++) {
    const f = faceOf[(i / 3) | 0];
    const n = faces[f].normal;
    if (!n) continue;
    const v = 3 * triangles[i];
    const d = n[0] * positions[v] + n[1] * positions[v + 1] + n[2] * positions[v + 2];
    if (d < low[f]) low[f] = d;
    if (d > high[f]) high[f] = d;
  }
  const size = Math.sqrt(area);
  for (let f = 0; f < faces.length; f++) if (faces[f].normal && high[f] - low[f] > 1e-5 * size) faces[f].normal = null;
  const { edges, edgeFaces } = edgesOf(positions, triangles, faceOf, normals);
  return { positions, triangles, faceOf, faces, edges, edgeFaces, volume: six / 6, area };
}

const tidy = (c: number): number => (Math.abs(c - Math.round(c)) < sameMesh ? Math.round(c) + 0 : c);

function edgesOf(
  positions: Float32Array,
  triangles: Uint32Array,
  faceOf: Uint16Array,
  normals: Float64Array,
): { edges: Float32Array; edgeFaces: Uint16Array } {
  const corners = positions.length / 3;
  const first = new Map<number, number>();
  const found: number[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    for (let i = 0; i < 3; i++) {
      const p = triangles[t + i];
      const q = triangles[t + ((i + 1) % 3)];
      const key = p < q ? p * corners + q : q * corners + p;
      const other = first.get(key);
      if (other === undefined) {
        first.set(key, t);
        continue;
      }
      first.delete(key);
      const turn = normals[t] * normals[other] + normals[t + 1] * normals[other + 1] + normals[t + 2] * normals[other + 2];
      if (turn < 0.99999 && (turn < sharp || faceOf[t / 3] !== faceOf[other / 3])) found.push(p, q, faceOf[other / 3], faceOf[t / 3]);
    }
  // What is left bounds a sheet.
  for (const [key, t] of first) found.push(Math.floor(key / corners), key % corners, faceOf[t / 3], faceOf[t / 3]);
  const edges = new Float32Array((found.length / 4) * 6);
  const edgeFaces = new Uint16Array(found.length / 2);
  for (let e = 0; e < found.length / 4; e++)
    for (let s = 0; s < 2; s++) {
      for (let a = 0; a < 3; a++) edges[6 * e + 3 * s + a] = positions[3 * found[4 * e + s] + a];
      edgeFaces[2 * e + s] = found[4 * e + 2 + s];
    }
  return { edges, edgeFaces };
}

/** Corners as the kernel keeps them, without those that only its triangulation needs. */
function solidSurface(item: Item, origins: Origins): Surface {
  const { exact, box } = item.solid!;
  if (box) return boxSurface(box, item.line);
  const mesh = item.solid!.drawn ?? item.solid!.manifold.getMesh();
  const positions = mesh.numProp === 3 ? mesh.vertProperties : mesh.vertProperties.filter((_, i) => i % mesh.numProp < 3);
  const triangles = mesh.triVerts;
  const faceOf = new Uint16Array(triangles.length / 3);
  const labels: { line: string; name: string }[] = [];
  const known = new Map<string, number>();
  for (let run = 0; run < mesh.runOriginalID.length; run++) {
    const origin = origins.get(mesh.runOriginalID[run]);
    for (let t = mesh.runIndex[run] / 3; t < mesh.runIndex[run + 1] / 3; t++) {
      const line = origin?.line ?? item.line;
      const name = origin?.faces[mesh.faceID[t]] ?? 'surface';
      const key = `${line}.${name}`;
      let face = known.get(key);
      if (face === undefined) {
        face = labels.push({ line, name }) - 1;
        known.set(key, face);
      }
      faceOf[t] = face;
    }
  }
  const surface = assemble(positions, triangles, faceOf, labels);
  // Round bodies are drawn with facets; where there is a closed form, it is what is told.
  return { ...surface, volume: (exact && exactVolume(exact)) ?? surface.volume, area: (exact && exactArea(exact)) ?? surface.area };
}

function sheetSurface(kernel: Kernel, item: Item): Surface {
  const { frame, loops } = item.sheet!;
  const clean = loops.length === 1 ? (signedArea(loops[0]) > 0 ? loops : [[...loops[0]].reverse()]) : tidyLoops(kernel, loops);
  const positions = Float32Array.from(clean.flat().flatMap((p) => apply(frame, [p[0], p[1], 0])));
  const triangles = Uint32Array.from((clean.length === 1 && isConvex(clean[0]) ? fan(clean[0].length) : kernel.triangulate(clean)).flat());
  const surface = assemble(positions, triangles, new Uint16Array(triangles.length / 3), [{ line: item.line, name: 'face' }]);
  surface.faces[0].normal = normalOf(frame);
  return { ...surface, volume: 0 };
}

function curveSurface(item: Item): Surface {
  const { points, closed } = item.curve!;
  const edges: number[] = [];
  for (let i = 0; i + (closed ? 0 : 1) < points.length; i++) edges.push(...points[i], ...points[(i + 1) % points.length]);
  return {
    positions: new Float32Array(0),
    triangles: new Uint32Array(0),
    faceOf: new Uint16Array(0),
    faces: [],
    edges: Float32Array.from(edges),
    edgeFaces: new Uint16Array(edges.length / 3),
    volume: 0,
    area: 0,
  };
}

/** Surfaces of items, made when first asked for. */
const surfaces = new WeakMap<Item, Surface>();

/** Triangles, faces and edges of an item; made once. */
export function surfaceOf(kernel: Kernel, origins: Origins, item: Item): Surface {
  let surface = surfaces.get(item);
  if (!surface) {
    surface = item.solid ? solidSurface(item, origins) : item.sheet ? sheetSurface(kernel, item) : curveSurface(item);
    surfaces.set(item, surface);
  }
  return surface;
}
