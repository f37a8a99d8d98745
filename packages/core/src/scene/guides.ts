import { type Place, type Point3, type Port, portChips, type Problem, problem } from '../document/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';
import type { Body } from '../geometry/index.ts';
import { faceName } from '../geometry/naming.ts';

/** A guided port in space: a rectangle across an axis, and the side on which the structure lies. */
export interface SceneGuide {
  name: string;
  /** Place among all ports of the document. */
  order: number;
  normal: 0 | 1 | 2;
  /** +1 if the wave goes into the structure towards larger coordinates. */
  into: 1 | -1;
  /** The rectangle; min and max are the same along `normal`. */
  min: Point3;
  max: Point3;
  modes: number;
  /** Distance of the reference plane inside the structure, metres. */
  shift: number;
  /** Ends of the path along which each mode's voltage is positive, in the two other axes in their order; absent: signs are as they come. */
  path?: [[number, number], [number, number]];
  /** It sees several media: the guide goes on behind it into absorbing layers. */
  mixed?: boolean;
  /** Sides of the region (xMin .. zMax) that are magnetic walls and on which its rim lies; absent: none. */
  magnetic?: boolean[];
  /** Parts of the whole port, of which this is one, where planes of symmetry cut it; absent: 1. */
  images?: number;
  /** Impedance of the whole port over that of this part; absent: 1. */
  wholeImpedance?: number;
}

export type GuidePort = Extract<Port, { kind: 'guide-face' | 'guide-plane' }>;
export const isGuide = (p: Port): p is GuidePort => p.kind === 'guide-face' || p.kind === 'guide-plane';

type Resolved = { guide: SceneGuide } | { problems: Problem[] };

const fail = (code: string, place: Place, message: string, fix: string): Resolved => ({ problems: [problem('error', code, place, message, fix)] });

/** Extent of a flat face across an axis, from its triangles; its coordinates are those of the body's own flat faces. */
function faceRectangle(body: Body, face: number, normal: 0 | 1 | 2): { min: Point3; max: Point3 } {
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

/** Places a guided port on the bodies. */
export function resolveGuide(port: GuidePort, order: number, scope: Scope, bodies: Body[]): Resolved {
  const place: Place = { part: 'ports', name: port.name };
  const { values, problems } = evaluateChips(port, portChips(port), scope, place);
  if (!values) return { problems };
  const common: Pick<SceneGuide, 'name' | 'order' | 'modes' | 'shift' | 'path'> = {
    name: port.name,
    order,
    modes: values.modes,
    shift: values.shift,
  };
  if (port.path?.length) {
    const [p, q] = port.path.map((_, i): [number, number] => [values[`path.${i}.0`], values[`path.${i}.1`]]);
    if (!q || (p[0] === q[0] && p[1] === q[1]))
      return fail(
        'port.path',
        { ...place, chip: 'path.0.0' },
        'The voltage path has no length.',
        'Give two points of the port’s plane, or remove both.',
      );
    common.path = [p, q];
  }
  if (port.kind === 'guide-plane') {
    const normal = 'xyz'.indexOf(port.normal) as 0 | 1 | 2;
    const [u, v] = ([0, 1, 2] as const).filter((a) => a !== normal);
    const min: Point3 = [values.at, values.at, values.at];
    const max: Point3 = [values.at, values.at, values.at];
    for (const [a, i] of [
      [u, 0],
      [v, 1],
    ]) {
      min[a] = Math.min(values[`from.${i}`], values[`to.${i}`]);
      max[a] = Math.max(values[`from.${i}`], values[`to.${i}`]);
      if (!(max[a] > min[a]))
        return fail('port.zero', { ...place, chip: `to.${i}` }, `The port has no extent along ${'xyz'[a]}.`, 'Move one of its corners.');
    }
    return { guide: { ...common, normal, into: port.into === 'up' ? 1 : -1, min, max } };
  }
  const at: Place = { ...place, chip: 'face' };
  if (!port.face)
    return fail('port.no-face', at, 'The port has no face yet.', 'Choose the face at which the guide ends; picking in the stage view does it.');
  for (const body of bodies) {
    const face = body.faces.findIndex((_, i) => faceName(body, i) === port.face);
    if (face < 0) continue;
    const n = body.faces[face].normal;
    const normal = n?.findIndex((x) => Math.abs(x) > 1 - 1e-6) ?? -1;
    if (!n || normal < 0) return fail('port.tilted', at, `${port.face} is not flat across an axis.`, 'Choose a flat face across x, y or z.');
    const { min, max } = faceRectangle(body, face, normal as 0 | 1 | 2);
    return { guide: { ...common, normal: normal as 0 | 1 | 2, into: n[normal] > 0 ? -1 : 1, min, max } };
  }
  return fail(
    'port.no-face',
    at,
    `There is no face named ${port.face}.`,
    'Choose a face of a body that still stands; picking in the stage view does it.',
  );
}
