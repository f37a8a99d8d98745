import type { Axis } from '../numerics/axis.ts';
import type { Point3 } from '../shapes/index.ts';
import { type Body, inPlane, isSheet } from './body.ts';
import { aligned, conducts, edgesOfSheet, measured, moved, type Sample, tapers, trianglesOf, type Width } from './widths.ts';

/** A width along an axis. */
export interface AlignedWidth extends Width {
  axis: Axis;
}

/** Corners' shares of the places on a triangle: its middle, and near each corner. */
const onTriangle = [[1 / 3, 1 / 3], [0.1, 0.1], [0.8, 0.1], [0.1, 0.8]] as const; // prettier-ignore
/** How far within its outline the height of a sheet over other metal is measured, as a part of the sheet's size. */
const within = 1e-3;

const unit = (axis: number, sign = 1): Point3 => [0, 1, 2].map((a) => (a === axis ? sign : 0)) as Point3;
/** Axis along which a vector lies; -1 for none. */
const axisOf = (v: Point3): number => v.findIndex((c) => Math.abs(c) > aligned);

/** Places on the flat faces of a solid that stand across an axis. */
function facesAcrossAxes(body: Body): Sample[] {
  if (isSheet(body)) return [];
  const { triangles, min, max } = body;
  const sample = (at: Point3, axis: number): Sample => ({ body, at, across: unit(axis), beside: unit((axis + 1) % 3), half: 0 });
  if (!triangles.length) {
    const middle = min.map((m, a) => (m + max[a]) / 2) as Point3;
    return [0, 1, 2].flatMap((a) => [min, max].map((end) => sample(middle.map((m, b) => (a === b ? end[a] : m)) as Point3, a)));
  }
  return trianglesOf(body).flatMap(({ corner, edges: [e, f], across }): Sample[] => {
    const axis = axisOf(across);
    return axis < 0 ? [] : onTriangle.map(([u, v]) => sample(corner.map((x, i) => x + u * e[i] + v * f[i]) as Point3, axis));
  });
}

/** Places just within the outline of a sheet, looked at across its plane both ways. */
function overSheet(body: Body, size: number): Sample[] {
  if (body.shape.form !== 'sheet') return [];
  const { normal } = body.shape;
  return [true, false].flatMap((acrossNone) =>
    edgesOfSheet(body, acrossNone).flatMap(({ at, across }) =>
      [-1, 1].flatMap((side) =>
        [-1, 1].map((way) => ({
          body,
          at: moved(at, across, side * within * size),
          across: unit(normal, way),
          beside: unit(inPlane[normal][0]),
          half: 0,
        })),
      ),
    ),
  );
}

/**
 * Local widths along the axes of metal, and of the gaps between it: at edges of sheets and faces of solids that stand across an axis, and over sheets. Of an
 * outline with parts of many widths its box tells none. Bodies in metres.
 */
export function alignedWidths(bodies: readonly Body[]): readonly AlignedWidth[] {
  let found = known.get(bodies);
  if (!found) known.set(bodies, (found = widthsOf(bodies)));
  return found;
}
const known = new WeakMap<readonly Body[], readonly AlignedWidth[]>();

function widthsOf(bodies: readonly Body[]): AlignedWidth[] {
  const metal = bodies.filter(conducts);
  return metal.flatMap((body) => {
    const size = Math.max(...[0, 1, 2].map((a) => body.max[a] - body.min[a]));
    const slack = 1e-5 * size;
    return [...edgesOfSheet(body, false), ...facesAcrossAxes(body), ...overSheet(body, size)].flatMap(
      ({ at, across, beside, half }): AlignedWidth[] => {
        const here = measured(metal, at, across, slack, slack);
        const axis = axisOf(across) as Axis;
        if (!here) return [];
        return (['metal', 'gap'] as const).flatMap((kind): AlignedWidth[] => {
          const width = Math.abs(here[kind]);
          if (!(width > slack) || !Number.isFinite(width)) return [];
          const sides = [1, 2].map((n) => unit((axis + n) % 3));
          if (sides.some((to) => tapers((p) => measured(metal, p, across, slack, slack)?.[kind], at, to, width))) return [];
          const along = unit(axis, Math.sign(here[kind]) * Math.sign(across[axis]));
          return [{ kind, body, axis, at, along, width, edge: beside.map((c) => half * c) as Point3 }];
        });
      },
    );
  });
}
