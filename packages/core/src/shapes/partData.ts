import { deflateSync, inflateSync } from 'fflate';
import type { Point2 } from './recipe.ts';

/** Longest data that a part may unfold to, bytes; guards against files that lie about their size. */
const most = 200_000_000;

const toBase64 = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
};
const fromBase64 = (text: string): Uint8Array => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

function unfold(data: string): DataView {
  const packed = fromBase64(data);
  const bytes = inflateSync(packed, { out: new Uint8Array(Math.min(most, Math.max(64, packed.length * 60))) });
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

export interface MeshData {
  /** x, y, z of each corner, metres. */
  positions: Float32Array;
  /** Three corners a triangle. */
  triangles: Uint32Array;
}

/** Packs a mesh for a project file. */
export function packMesh({ positions, triangles }: MeshData): string {
  const bytes = new Uint8Array(8 + 4 * positions.length + 4 * triangles.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, positions.length / 3, true);
  view.setUint32(4, triangles.length / 3, true);
  positions.forEach((v, i) => view.setFloat32(8 + 4 * i, v, true));
  triangles.forEach((v, i) => view.setUint32(8 + 4 * positions.length + 4 * i, v, true));
  return toBase64(deflateSync(bytes, { level: 6 }));
}

/**
 * Unpacks a mesh.
 * @throws Error on data that are no mesh.
 */
export function unpackMesh(data: string): MeshData {
  const view = unfold(data);
  const corners = view.getUint32(0, true);
  const count = view.getUint32(4, true);
  if (view.byteLength < 8 + 12 * corners + 12 * count) throw new Error('The data are shorter than they say.');
  const positions = Float32Array.from({ length: 3 * corners }, (_, i) => view.getFloat32(8 + 4 * i, true));
  const triangles = Uint32Array.from({ length: 3 * count }, (_, i) => view.getUint32(8 + 12 * corners + 4 * i, true));
  if (triangles.some((v) => v >= corners)) throw new Error('A triangle names a corner that is not there.');
  if (positions.some((v) => !Number.isFinite(v))) throw new Error('A coordinate is no number.');
  return { positions, triangles };
}

/** Packs closed outlines for a project file. */
export function packOutlines(loops: readonly Point2[][]): string {
  const total = loops.reduce((n, l) => n + l.length, 0);
  const bytes = new Uint8Array(4 + 4 * loops.length + 16 * total);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, loops.length, true);
  let at = 4 + 4 * loops.length;
  loops.forEach((loop, i) => {
    view.setUint32(4 + 4 * i, loop.length, true);
    for (const p of loop)
      for (const c of p) {
        view.setFloat64(at, c, true);
        at += 8;
      }
  });
  return toBase64(deflateSync(bytes, { level: 6 }));
}

/**
 * Unpacks outlines.
 * @throws Error on data that are no outlines.
 */
export function unpackOutlines(data: string): Point2[][] {
  const view = unfold(data);
  const count = view.getUint32(0, true);
  if (view.byteLength < 4 + 4 * count) throw new Error('The data are shorter than they say.');
  let at = 4 + 4 * count;
  return Array.from({ length: count }, (_, i) => {
    const n = view.getUint32(4 + 4 * i, true);
    if (view.byteLength < at + 16 * n) throw new Error('The data are shorter than they say.');
    return Array.from({ length: n }, (): Point2 => {
      at += 16;
      return [view.getFloat64(at - 16, true), view.getFloat64(at - 8, true)];
    });
  });
}

/** Packs numbers as base64 of deflated little-endian float64; what they measure is not kept. */
export const packNumbers = (values: Float64Array): string =>
  toBase64(deflateSync(new Uint8Array(values.buffer, values.byteOffset, values.byteLength), { level: 6 }));

/**
 * What packNumbers packed.
 * @throws Error on data that are not whole.
 */
export function unpackNumbers(data: string): Float64Array {
  const view = unfold(data);
  if (view.byteLength % 8) throw new Error('The data are not whole numbers of eight bytes.');
  return Float64Array.from({ length: view.byteLength / 8 }, (_, i) => view.getFloat64(8 * i, true));
}
