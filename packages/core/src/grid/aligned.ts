import { alignedWidths, isSheet } from '../geometry/index.ts';
import type { AxisLimit, Gridded, Sizes } from './constraints.ts';

/** Part of a body's extent from which on a width is that of the body, for which its extents ask already. */
const whole = 0.99;
/** Whether a width lies in the region. */
const inside = ({ min, max }: Gridded, at: readonly number[]): boolean => at.every((x, a) => x >= min[a] && x <= max[a]);

/**
 * How close lines must be allowed to stand, so that both ends of each local width along an axis have one: of gaps between metal and walls of metal as they are,
 * of sheets over metal for the cells of a layer, of strips for part of the cells across them.
 */
export function closestNeeded(scene: Gridded, { across, layers }: Pick<Sizes, 'across' | 'layers'>, ofCell: number): number {
  let least = Infinity;
  for (const { kind, body, axis, at, width } of alignedWidths(scene.bodies)) {
    if (!inside(scene, at)) continue;
    const over = body.shape.form === 'sheet' && body.shape.normal === axis;
    least = Math.min(least, kind === 'metal' ? (isSheet(body) ? (ofCell * width) / across : width) : over ? width / layers : width);
  }
  scene.boundaries.forEach((wall, s) => {
    if (wall !== 'electric') return;
    const end = (s & 1 ? scene.max : scene.min)[s >> 1];
    const extent = scene.max[s >> 1] - scene.min[s >> 1];
    for (const { material, min, max } of scene.bodies) {
      const apart = s & 1 ? end - max[s >> 1] : min[s >> 1] - end;
      if (material.kind === 'conductor' && apart > 1e-6 * extent) least = Math.min(least, apart / layers);
    }
  });
  return least;
}

/** Largest cells, so that parts of sheets that are narrower than the whole of it get `across` cells. */
export function alignedLimits(scene: Gridded, { coarsest, minCell }: Pick<Sizes, 'coarsest' | 'minCell'>, across: number): AxisLimit[] {
  const out = new Map<string, AxisLimit>();
  for (const { kind, body, axis, at, along, width } of alignedWidths(scene.bodies)) {
    const size = Math.max(minCell, width / across);
    if (kind === 'gap' || !isSheet(body) || width > whole * (body.max[axis] - body.min[axis]) || size >= coarsest || !inside(scene, at)) continue;
    const end = at[axis] + width * along[axis];
    const [from, to] = [Math.min(at[axis], end), Math.max(at[axis], end)];
    out.set(`${axis} ${from.toPrecision(9)} ${to.toPrecision(9)}`, { axis, from, to, size });
  }
  return [...out.values()];
}
