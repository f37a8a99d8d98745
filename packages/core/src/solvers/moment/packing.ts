import type { WireMesh } from '../../grid/index.ts';
import { Arena } from '../arena.ts';
import { tables } from '../layout.ts';
import { Rows } from '../rows.ts';
import type { NearList } from './near.ts';

/** Columns that the kernel eliminates at once. */
export const panelRows = 32;
/** Bytes of a panel that each thread keeps. */
export const panelBytes = panelRows * 32 * 16;

/** Bases at each end of each segment, by 2 segment + end: first, and [basis, sign] of each. */
export interface Ends {
  first: Int32Array;
  list: [basis: number, sign: number][];
}

/** Where the kernel's memory holds what the host still reads or writes, bytes. */
export interface WirePlaces {
  fill: number;
  /** Two words of the barrier. */
  meet: number;
  matrix: number;
  pivots: number;
  packed: number;
  left: number;
}

/** What a system of wires is made of: its mesh, what is close to what, and how large it is. */
export interface WirePlan {
  mesh: WireMesh;
  /** Unknowns: bases and others behind them; columns of a row, an even number. */
  size: number;
  columns: number;
  threads: number;
  near: NearList;
  /** Segments of the images over a perfect ground, and the pairs close to them. */
  images: { segments: Float64Array; near: NearList } | null;
  ends: Ends;
  /** First segment that has a basis from each on. */
  firstSource: Int32Array;
}

const nearRows = ({ source, pairs }: NearList): Uint8Array => {
  const rows = new Rows('wireNear', pairs.length);
  pairs.forEach(({ integrals: [t00, t01, t10, t11], rho2 }, i) => rows.set(i, { source: source[i], rho2, t00, t01, t10, t11 }));
  return rows.bytes;
};

/** Lays out the memory of a system; `write` fills it once it is there. Throws RangeError beyond 4 GB. */
export function packWires(plan: WirePlan): { places: WirePlaces; pages: number; write(buffer: ArrayBufferLike): void } {
  const { mesh, size, columns, threads, near, images, ends } = plan;
  const arena = new Arena();
  const parts: [at: number, bytes: Uint8Array][] = [];
  const put = (data: Int32Array | Float64Array | Uint8Array): number => {
    const at = arena.take(data.byteLength);
    parts.push([at, new Uint8Array(data.buffer, data.byteOffset, data.byteLength)]);
    return at;
  };
  const halves = new Rows('wireHalf', mesh.halves.length);
  mesh.halves.forEach(({ segment, end, sign }, i) => halves.set(i, { segment, end, sign }));
  const endRows = new Rows('wireEnd', ends.list.length);
  ends.list.forEach(([basis, sign], i) => endRows.set(i, { basis, sign }));
  const places: WirePlaces = {
    fill: arena.take(tables.wireFill.size),
    meet: arena.take(8),
    matrix: arena.take(size * columns * 16),
    pivots: arena.take(4 * size),
    packed: arena.take(threads * panelBytes),
    left: arena.take((size + panelRows) * panelRows * 16),
  };
  const fill = new Rows('wireFill', 1);
  fill.set(0, {
    bases: mesh.bases,
    width: 16 * columns,
    matrix: places.matrix,
    segments: put(mesh.segments),
    count: mesh.count,
    images: images ? put(images.segments) : 0,
    nearFirst: put(near.first),
    nearList: put(nearRows(near)),
    imageFirst: images ? put(images.near.first) : 0,
    imageList: images ? put(nearRows(images.near)) : 0,
    halfFirst: put(mesh.halfFirst),
    halves: put(halves.bytes),
    endFirst: put(ends.first),
    ends: put(endRows.bytes),
    scratch: arena.take(tables.wireSums.size * mesh.count * threads),
    firstSource: put(plan.firstSource),
  });
  parts.push([places.fill, fill.bytes]);
  return {
    places,
    pages: arena.pages(),
    write: (buffer) => parts.forEach(([at, bytes]) => new Uint8Array(buffer, at, bytes.length).set(bytes)),
  };
}
