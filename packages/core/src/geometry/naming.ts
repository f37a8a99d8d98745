import type { Point3 } from '../shapes/index.ts';
import type { Face, Surface } from './surface.ts';

type Edged = Pick<Surface, 'edges' | 'edgeFaces'>;

/** Seven digits: what single precision keeps. */
const tidy = (v: number): number => Number(v.toPrecision(7));
const pointAt = (s: Edged, i: number): Point3 => [tidy(s.edges[i]), tidy(s.edges[i + 1]), tidy(s.edges[i + 2])];
const order = (a: Point3, b: Point3): number => a[0] - b[0] || a[1] - b[1] || a[2] - b[2];

/** Connected runs of the edge between two faces, each from its lower end, in a fixed order. */
export function edgeRuns(surface: Edged, f: number, g: number): Point3[][] {
  const pieces: [Point3, Point3][] = [];
  for (let e = 0; e < surface.edgeFaces.length; e += 2) {
    const [p, q] = [surface.edgeFaces[e], surface.edgeFaces[e + 1]];
    if ((p === f && q === g) || (p === g && q === f)) pieces.push([pointAt(surface, 3 * e), pointAt(surface, 3 * e + 3)]);
  }
  const key = (p: Point3): string => p.join();
  const runs: Point3[][] = [];
  while (pieces.length) {
    const run = [...pieces.pop()!];
    for (let grown = true; grown;) {
      grown = false;
      for (let i = 0; i < pieces.length && !grown; i++) {
        const [a, b] = pieces[i];
        const [first, last] = [key(run[0]), key(run[run.length - 1])];
        if (key(a) === last) run.push(b);
        else if (key(b) === last) run.push(a);
        else if (key(a) === first) run.unshift(b);
        else if (key(b) === first) run.unshift(a);
        else continue;
        pieces.splice(i, 1);
        grown = true;
      }
    }
    runs.push(order(run[0], run[run.length - 1]) <= 0 ? run : run.reverse());
  }
  return runs.sort((a, b) => order(a[0], b[0]) || order(a[a.length - 1], b[b.length - 1]));
}

/** Points at which edges of all three faces meet, in a fixed order. */
export function cornersBetween(surface: Edged, faces: readonly number[]): Point3[] {
  const at = new Map<string, { point: Point3; faces: Set<number> }>();
  for (let e = 0; e < surface.edgeFaces.length; e += 2)
    for (const end of [0, 3]) {
      const point = pointAt(surface, 3 * e + end);
      const entry = at.get(point.join()) ?? { point, faces: new Set() };
      at.set(point.join(), entry);
      entry.faces.add(surface.edgeFaces[e]).add(surface.edgeFaces[e + 1]);
    }
  return [...at.values()].filter((c) => faces.every((f) => c.faces.has(f))).map((c) => c.point).sort(order); // prettier-ignore
}

/** A surface with its name, and for sheets and curves the points that have names of their own. */
export interface Named extends Pick<Surface, 'faces' | 'edges' | 'edgeFaces'> {
  name: string;
  min: readonly number[];
  max: readonly number[];
  /** Points of a sheet's outline or of a curve that the user gave, in order. */
  corners?: readonly Point3[];
}

const near = (a: readonly number[], b: readonly number[], size: number): boolean => a.every((v, i) => Math.abs(v - b[i]) <= 2e-6 * size);
const sizeOf = (b: Named): number => Math.max(...b.max.map((m, a) => Math.max(m - b.min[a], Math.abs(m), Math.abs(b.min[a])))) || 1;

/** How an expression names a face of a body: 'board.top', or 'board.hole.side' for one that came from another line. */
export const faceName = (body: { name: string; faces: readonly Face[] }, number: number): string => {
  const face = body.faces[number];
  return face.line === body.name ? `${body.name}.${face.name}` : `${body.name}.${face.line}.${face.name}`;
};

/** Faces whose edges meet at a point. */
function facesAt(body: Named, p: readonly number[]): number[] {
  const found = new Set<number>();
  const size = sizeOf(body);
  for (let e = 0; e < body.edgeFaces.length; e += 2)
    for (const end of [0, 3])
      if (near([body.edges[3 * e + end], body.edges[3 * e + end + 1], body.edges[3 * e + end + 2]], p, size))
        found.add(body.edgeFaces[e]).add(body.edgeFaces[e + 1]);
  return [...found];
}

/** How an expression names a point of a body, without the letter of the coordinate; null where it has no name. */
export function pointName(body: Named, p: readonly number[]): string | null {
  const size = sizeOf(body);
  const own = body.corners?.findIndex((c) => near(c, p, size)) ?? -1;
  if (own >= 0) return `${body.name}.p${own + 1}`;
  const faces = facesAt(body, p).slice(0, 3);
  if (faces.length === 3) {
    const all = cornersBetween(body, faces);
    const nth = all.findIndex((c) => near(c, p, size));
    if (nth >= 0) return `corner(${faces.map((f) => faceName(body, f)).join(', ')}${all.length > 1 ? `, ${nth + 1}` : ''})`;
  }
  return null;
}

/** How an expression names one coordinate of a point that lies at an end or in the middle of a body on that axis; null otherwise. */
export function extentName(body: Named, p: readonly number[], axis: number): string | null {
  const size = sizeOf(body);
  for (const [word, at] of [
    ['min', body.min[axis]],
    ['max', body.max[axis]],
    ['centre', (body.min[axis] + body.max[axis]) / 2],
  ] as const)
    if (Math.abs(at - p[axis]) <= 2e-6 * size) return `${body.name}.${word}.${'xyz'[axis]}`;
  return null;
}

/** How an expression names the length of the edge on which a segment of a body's edges lies; null where it has no name. */
export function edgeName(body: Named, segment: number): string | null {
  const [f, g] = [body.edgeFaces[2 * segment], body.edgeFaces[2 * segment + 1]];
  const ends = [0, 3].map((k) => [0, 1, 2].map((a) => body.edges[6 * segment + k + a]));
  if (body.corners) {
    const size = sizeOf(body);
    const [i, j] = ends.map((p) => body.corners!.findIndex((c) => near(c, p, size)));
    if (i < 0 || j < 0) return null;
    const parts = ['x', 'y', 'z'].filter((_, a) => Math.abs(ends[0][a] - ends[1][a]) > 2e-6 * size);
    const differences = parts.map((l) => `${body.name}.p${j + 1}.${l} - ${body.name}.p${i + 1}.${l}`);
    return parts.length === 1 ? `abs(${differences[0]})` : `hypot(${differences.join(', ')})`;
  }
  if (f === g) return null;
  const runs = edgeRuns(body, f, g);
  const size = sizeOf(body);
  const nth = runs.findIndex((run) =>
    run.some(
      (p, i) =>
        i + 1 < run.length &&
        ((near(p, ends[0], size) && near(run[i + 1], ends[1], size)) || (near(p, ends[1], size) && near(run[i + 1], ends[0], size))),
    ),
  );
  return nth < 0 ? null : `edge(${faceName(body, f)}, ${faceName(body, g)}${runs.length > 1 ? `, ${nth + 1}` : ''}).length`;
}
