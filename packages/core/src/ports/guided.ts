import { count, length, optionalChoice, type Field, type SentencePart, vector2 } from '../entries/index.ts';
import { z } from 'zod';
import type { Body } from '../geometry/index.ts';
import type { Point3 } from '../shapes/index.ts';
import type { Placing } from './port.ts';
import type { SceneGuide } from './types.ts';
import type { Axis } from '../numerics/axis.ts';

const pathRows = z.array(vector2).max(2).optional();
/** Two points of the port's plane, or none. */
const voltagePath: Field<[string, string][] | undefined> = {
  schema: pathRows.describe(
    'Two points of its plane, in the two other axes in the order x, y, z: the voltage of each mode from the first to the second is positive',
  ) as z.ZodType<[string, string][] | undefined>,
  fresh: undefined,
  chips: (path, points = [], entry) => {
    const names = typeof entry.normal === 'string' ? [...'xyz'.replace(entry.normal, '')] : ['first axis', 'second axis'];
    return points.flatMap((_, i) => names.map((n, k) => ({ path: `${path}.${i}.${k}`, label: `point ${i + 1} ${n}`, quantity: 'length' as const })));
  },
  parts: (path): SentencePart[] => [
    { list: path, label: 'point', columns: ['first', 'second'].map((label) => ({ label: `${label} axis`, quantity: 'length' as const })), least: 0 },
  ],
};

/** What every guided port has. */
export const guidedFields = {
  modes: count('modes', '1', 1, 12, 'How many modes of the cross-section it sends and takes, those of lowest cutoff first'),
  shift: length('reference plane shift', '0 mm', 'Distance by which the reference plane lies inside the structure'),
  path: voltagePath,
  behind: optionalChoice(
    'behind it',
    { on: 'the model goes on', ends: 'the model ends' },
    'What lies behind a port that sees several media: its cross-section without end, or empty space with a metal back in it, as at the edge of a board',
  ),
};
export const guidedSentence = '· {modes} modes · reference plane {shift} inside · voltage along {path} · behind it {behind}';

/** What guided ports have in common, in SI: name, place among the ports, modes, shift, voltage path and what lies behind; null where the path has no length. */
export function guidedCommon(
  { name, path, behind }: { name: string; path?: [string, string][]; behind?: 'on' | 'ends' },
  v: Record<string, number>,
  { order, fail }: Placing,
): Pick<SceneGuide, 'name' | 'order' | 'modes' | 'shift' | 'path' | 'ends'> | null {
  const common = { name, order, modes: v.modes, shift: v.shift, ...(behind === 'ends' ? { ends: true } : {}) };
  if (!path?.length) return common;
  const [p, q] = path.map((_, i): [number, number] => [v[`path.${i}.0`], v[`path.${i}.1`]]);
  if (!q || (p[0] === q[0] && p[1] === q[1]))
    return fail('port.path', 'path.0.0', 'The voltage path has no length.', 'Give two points of the port’s plane, or remove both.');
  return { ...common, path: [p, q] };
}

/** Extent of a flat face across an axis, from its triangles; its coordinates are those of the body's own flat faces. */
export function faceRectangle(body: Body, face: number, normal: Axis): { min: Point3; max: Point3 } {
  const min: Point3 = [Infinity, Infinity, Infinity];
  const max: Point3 = [-Infinity, -Infinity, -Infinity];
  for (let t = 0; t < body.faceOf.length; t++) {
    if (body.faceOf[t] !== face) continue;
    for (let c = 0; c < 3; c++)
      for (let a = 0; a < 3; a++) {
        const x = body.positions[3 * body.triangles[3 * t + c] + a];
        min[a] = Math.min(min[a], x);
        max[a] = Math.max(max[a], x);
      }
  }
  // Triangles are in single precision.
  const exact = (x: number, a: number): number =>
    [...body.planes[a], body.min[a], body.max[a]].reduce((best, p) => (Math.abs(p - x) < Math.abs(best - x) ? p : best), Infinity);
  const size = Math.max(...body.max.map((m, a) => m - body.min[a]));
  for (const a of [0, 1, 2])
    for (const end of [min, max]) {
      const e = exact(end[a], a);
      if (Math.abs(e - end[a]) < 1e-5 * size) end[a] = e;
    }
  min[normal] = max[normal];
  return { min, max };
}
