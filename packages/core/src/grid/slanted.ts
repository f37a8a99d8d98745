import { type Body, Grounds, isSheet, slantedWidths, type Width } from '../geometry/index.ts';
import type { Point3 } from '../document/index.ts';
import type { Axis } from '../numerics/axis.ts';
import type { AxisLimit, Gridded, Sizes } from './constraints.ts';

/** Share of an axis in a direction from which on its cells matter to a width that lies along it. */
const matters = 0.15;
/** Cells of stretches that are told apart differ by so much. */
const classes = 1.15;
/** What drawings in straight pieces take off a width. */
const pieces = 1.02;

/** Heights over ground in as many cells as lie across a strip: within its height the field beside an edge dies away. */
const heights = 5;

/** The stretch of an axis on which metal or a gap lies, over the edge that a width stands for. */
const stretch = ({ at, along, width, edge }: Width, a: Axis): [number, number] => {
  const [end, side] = [at[a] + width * along[a], Math.abs(edge[a])];
  return [Math.min(at[a], end) - side, Math.max(at[a], end) + side];
};

/** Height of a sheet over the nearest ground beside its edge; Infinity over none. */
function heightOver(scene: Gridded): (w: Width) => number {
  const known = new Map<Body, Grounds>();
  return ({ body, kind, at, along, width }) => {
    if (kind !== 'metal' || body.shape.form !== 'sheet') return Infinity;
    let grounds = known.get(body);
    if (!grounds) known.set(body, (grounds = new Grounds(scene, body.shape.normal, body.shape.offset)));
    return Math.min(...grounds.at(at.map((x, a) => x + 1e-3 * width * along[a]) as Point3));
  };
}

/**
 * Largest cells, so that strips of sheets and gaps between them which run across no axis get `across` cells: on each axis stretches without overlap of like
 * cells. Solids have theirs from their extents.
 */
export function slantedLimits(scene: Gridded, { coarsest }: Sizes, across: number): AxisLimit[] {
  const height = heightOver(scene);
  const widths = slantedWidths(scene.bodies)
    .filter((w) => isSheet(w.body))
    .map((w) => ({ w, finest: Math.min(pieces * w.width, heights * height(w)) }));
  return ([0, 1, 2] as const).flatMap((axis) => {
    const byClass = new Map<number, [number, number][]>();
    for (const { w, finest } of widths) {
      const size = finest / across;
      // Across its plane a sheet has such cells beside it too, as fields beside a strip die away within its width.
      const { shape } = w.body;
      const normal = shape.form === 'sheet' && shape.normal === axis;
      const [low, high] = normal ? [w.at[axis], w.at[axis]] : stretch(w, axis);
      const beside = normal || (shape.form === 'tilted sheet' && Math.abs(shape.frame[4 * axis + 2]) > matters);
      const [from, to] = beside ? [low - size, high + size] : [low, high];
      if ((!beside && Math.abs(w.along[axis]) < matters) || size >= coarsest || to < scene.min[axis] || from > scene.max[axis]) continue;
      const key = Math.floor(Math.log(size) / Math.log(classes));
      const list = byClass.get(key);
      if (list) list.push([from, to]);
      else byClass.set(key, [[from, to]]);
    }
    return [...byClass].flatMap(([key, list]): AxisLimit[] => {
      const size = classes ** key;
      const joined: AxisLimit[] = [];
      for (const [from, to] of list.sort((p, q) => p[0] - q[0])) {
        const last = joined.at(-1);
        // Between stretches that are nearly one, cells would not grow.
        if (last && from <= last.to + 4 * size) last.to = Math.max(last.to, to);
        else joined.push({ axis, from, to, size });
      }
      return joined;
    });
  });
}

/** Cells that a grid has at least with such limits: on each axis those of the stretches of one size. */
export function leastCells(limits: readonly AxisLimit[]): number {
  const onAxis = [0, 1, 2].map((axis) => {
    const bySize = new Map<number, number>();
    for (const l of limits) if (l.axis === axis) bySize.set(l.size, (bySize.get(l.size) ?? 0) + (l.to - l.from) / l.size);
    return Math.max(1, ...bySize.values());
  });
  return onAxis[0] * onAxis[1] * onAxis[2];
}
