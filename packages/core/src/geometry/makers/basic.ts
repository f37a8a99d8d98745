import { inPlane, type Point2, type Point3 } from '../../shapes/index.ts';
import { apply, compose, invert } from '../../numerics/affine.ts';
import { stripLoops, sweptRings } from '../paths.ts';
import { axisFrame, frameAlong, type WireAxis } from '../item.ts';
import { GeometryFault } from '../fault.ts';
import { unionLoops } from '../flat.ts';
import { buildSolid, prismSolid, ringSolid } from '../solids.ts';
import type { BuildContext, BuildResult, Maker } from './maker.ts';
import { faceOf, needFlat } from './maker.ts';
import type { Axis } from '../../numerics/axis.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

type Simple = 'box' | 'cylinder' | 'cone' | 'ball' | 'torus' | 'prism' | 'rings' | 'revolve';
/** Solids that need no other line. */
export const simple: Maker<Simple> = (recipe, { kernel, origins, line }) => ({
  solid: buildSolid(kernel, origins, line, recipe),
  ...(recipe.form === 'cylinder' && recipe.bore === 0 ? { wire: rodAxis(recipe) } : {}),
});

/** A rod is a straight wire too. */
function rodAxis({ axis, base, height, radius }: { axis: Axis; base: Point3; height: number; radius: number }): WireAxis {
  const top: Point3 = [...base];
  top[axis] += height;
  return { radius, points: [base, top], closed: false };
}

/** A sheet across an axis or a tilted plane. */
export const sheet: Maker<'sheet'> = ({ normal, offset, loops }) => ({ sheet: { frame: axisFrame(normal, offset), loops } });

/** A solid or sheet of strokes of a width, such as letters. */
export const strokes: Maker<'strokes'> = ({ normal, offset, width, lines }, { kernel }) => ({
  sheet: {
    frame: axisFrame(normal, offset),
    loops: unionLoops(
      kernel,
      lines.map((l) => stripLoops(kernel, l, width, { closed: false, corners: 'round', mitre: 0, radius: 0 })),
    ),
  },
});

/** A curve through points. */
export const curve: Maker<'curve'> = ({ points, closed, marks }) => ({ curve: { points, closed, marks } });

/** A frame by its matrix. */
export const frame: Maker<'frame'> = ({ matrix }) => ({ frame: matrix });
/** A frame on a face of another line. */
export const frameOnFace: Maker<'frame on face'> = (_, bench) => {
  const { face } = faceOf(bench);
  needFlat(bench, face);
  return { frame: frameAlong(face.centre, face.normal) };
};

const pathOf = (bench: BuildContext): NonNullable<BuildResult['curve']> => bench.inputs[0].item.curve!;
const along = { ends: ['start', 'end'] as [string, string] };

/** A profile swept along a curve. */
export const sweep: Maker<'sweep'> = ({ profile }, bench) => {
  const path = pathOf(bench);
  const manifold = ringSolid(bench.kernel, bench.origins, bench.line, sweptRings(path, profile), { ...along, closed: path.closed });
  return { solid: { manifold, exact: null } };
};

/** Corners of the section of a drawn wire. */
const wireSides = 24;

/** A round wire along a curve, with a coat around it where it has one. */
export const wire: Maker<'wire'> = ({ radius, path: own, coat }, bench) => {
  const path: NonNullable<BuildResult['curve']> = own ? { ...own, marks: [] } : pathOf(bench);
  const round = Array.from({ length: wireSides }, (_, i): Point2 => {
    const t = (2 * Math.PI * i) / wireSides;
    return [radius * Math.cos(t), radius * Math.sin(t)];
  });
  const rings = sweptRings(path, round);
  const manifold = ringSolid(bench.kernel, bench.origins, bench.line, rings, { ...along, closed: path.closed, side: () => 'side' });
  return {
    solid: { manifold, exact: straightWire(path.points, radius) },
    wire: { radius, points: path.points, closed: path.closed, ...(coat ? { coat } : {}) },
  };
};

/** The exact shape of a straight wire. */
function straightWire(points: readonly Point3[], radius: number) {
  if (points.length !== 2) return null;
  const [a, b] = points;
  const height = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
  const matrix = frameAlong(a, [0, 1, 2].map((i) => (b[i] - a[i]) / height) as Point3);
  const of = { form: 'cylinder', axis: 2, base: [0, 0, 0] as Point3, height, radius } as const;
  return { form: 'moved', matrix, inverse: invert(matrix), of } as const;
}

/**
 * A strip along a flat curve: a sheet, or a solid.
 * @throws GeometryFault where the path does not lie in the plane.
 */
export const trace: Maker<'trace'> = (recipe, bench) => {
  const path = pathOf(bench);
  // The curve is in world axes; the plane is one of the working frame.
  const base = bench.frame ?? axisFrame(2, 0);
  const toLocal = bench.frame ? invert(bench.frame) : null;
  const points = path.points.map((p) => (toLocal ? apply(toLocal, p) : p));
  const n = recipe.normal;
  const offset = points[0][n];
  const size = Math.max(...points.map((p) => Math.hypot(p[0] - points[0][0], p[1] - points[0][1], p[2] - points[0][2])));
  if (points.some((p) => Math.abs(p[n] - offset) > sameMesh * size))
    throw new GeometryFault('The path does not lie in the plane of the trace.', 'Choose another plane, or flatten the path.', 'path');
  const [u, w] = inPlane[n];
  const flat = points.map((p): Point2 => [p[u], p[w]]);
  const loops = stripLoops(bench.kernel, flat, recipe.width, { ...recipe, closed: path.closed });
  const plane = axisFrame(n, offset);
  const inWorld = bench.frame ? compose(base, plane) : plane;
  if (recipe.thickness === 0) return { sheet: { frame: inWorld, loops } };
  if (!bench.frame) {
    const manifold = prismSolid(bench.kernel, bench.origins, bench.line, n, offset, recipe.thickness, loops);
    return { solid: { manifold, exact: { form: 'prism', normal: n, offset, height: recipe.thickness, loops } } };
  }
  return prismOn(bench, inWorld, loops, 0, recipe.thickness);
};

/** A solid over outlines of a frame's xy plane, from z = `low` to `high` of the frame. */
export function prismOn(bench: BuildContext, frame: readonly number[], loops: Point2[][], low: number, high: number): BuildResult {
  const flat = prismSolid(bench.kernel, bench.origins, bench.line, 2, low, high - low, loops);
  const manifold = flat.transform(columns(frame));
  flat.delete();
  const of = { form: 'prism', normal: 2, offset: low, height: high - low, loops } as const;
  return { solid: { manifold, exact: { form: 'moved', matrix: frame, inverse: invert(frame), of } } };
}

/** A matrix as the kernel takes it: four columns of four. */
export const columns = (m: readonly number[]) =>
  [m[0], m[4], m[8], 0, m[1], m[5], m[9], 0, m[2], m[6], m[10], 0, m[3], m[7], m[11], 1] as unknown as Parameters<NonNullable<BuildResult['solid']>['manifold']['transform']>[0]; // prettier-ignore
