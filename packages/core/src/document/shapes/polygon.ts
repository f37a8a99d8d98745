import { z } from 'zod';
import { type Chip, planeChoice, planeName, type SentencePart, vector2, vector3, vectorChips } from '../chips.ts';
import { lineBase, planeAxes, type Point2, type Shape } from './shape.ts';

export const polygonSchema = z.strictObject({
  kind: z.literal('polygon'),
  ...lineBase,
  plane: planeName,
  points: z.array(vector2).min(3).max(2000).describe('Corners in order, measured from the origin in the plane'),
  at: vector3.describe('Where the plane’s origin is placed'),
});
export type PolygonLine = z.infer<typeof polygonSchema>;

/** Signed area of a closed outline (shoelace formula), square metres. */
export function signedArea(points: readonly Point2[]): number {
  let twice = 0;
  points.forEach(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length];
    twice += x * ny - nx * y;
  });
  return twice / 2;
}

const side = (a: Point2, b: Point2, p: Point2): number => Math.sign((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]));

/** Indices of two edges that cross, or null for a simple outline. */
export function crossingEdges(points: readonly Point2[]): [number, number] | null {
  const n = points.length;
  for (let i = 0; i < n; i++) {
    const a = points[i];
    const b = points[(i + 1) % n];
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const c = points[j];
      const d = points[(j + 1) % n];
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return [i, j];
    }
  }
  return null;
}

export const polygon: Shape<PolygonLine> = {
  kind: 'polygon',
  title: 'Polygon',
  about: 'A flat sheet with straight edges between the points you give',
  schema: polygonSchema,
  chips: (line) => [
    ...line.points.flatMap((_, i): Chip[] => [
      { path: `points.${i}.0`, label: `point ${i + 1} ${line.plane[0]}`, quantity: 'length' },
      { path: `points.${i}.1`, label: `point ${i + 1} ${line.plane[1]}`, quantity: 'length' },
    ]),
    ...vectorChips('at', 'position', 3),
  ],
  sentence: (line) => [
    'Polygon',
    { name: true },
    planeChoice,
    '·',
    { material: true },
    '·',
    'origin at',
    { chip: 'at.0' },
    { chip: 'at.1' },
    { chip: 'at.2' },
    '· through',
    ...line.points.flatMap((_, i): SentencePart[] => ['(', { chip: `points.${i}.0` }, { chip: `points.${i}.1` }, ')']),
  ],
  recipe(line, v) {
    const [u, w, n] = planeAxes[line.plane];
    const outline = line.points.map((_, i): Point2 => [v[`points.${i}.0`] + v[`at.${u}`], v[`points.${i}.1`] + v[`at.${w}`]]);
    const crossed = crossingEdges(outline);
    if (crossed) {
      const [a, b] = crossed.map((i) => i + 1);
      return {
        fault: `The outline crosses itself: the edge after point ${a} meets the edge after point ${b}.`,
        fix: 'Put the points in order around the outline.',
        chip: `points.${crossed[0]}.0`,
      };
    }
    const extent = Math.max(...outline.map((p) => Math.max(Math.abs(p[0] - outline[0][0]), Math.abs(p[1] - outline[0][1]))));
    if (Math.abs(signedArea(outline)) <= 1e-12 * extent * extent)
      return { fault: 'The outline encloses no area.', fix: 'Move a point so that the points do not lie on one line.', chip: 'points.0.0' };
    return { form: 'sheet', normal: n, offset: v[`at.${n}`], outline };
  },
  fresh: (name) => ({
    kind: 'polygon',
    name,
    material: 'Copper',
    plane: 'xy',
    points: [
      ['0 mm', '0 mm'],
      ['10 mm', '0 mm'],
      ['0 mm', '10 mm'],
    ],
    at: ['0 mm', '0 mm', '0 mm'],
  }),
};
