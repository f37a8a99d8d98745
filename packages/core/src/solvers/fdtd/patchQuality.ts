import { alignedWidths, type Body } from '../../geometry/index.ts';

/** Of a wavelength: how high a sheet over metal may lie for a patch, and how large it is in the board at least, both ways. */
const [highest, smallest] = [0.06, 0.25];
/** Part of a sheet's edges that lie over metal from which on it is a patch over ground; a ground with strips over it has fewer. */
const mostly = 0.5;
/** Places that are looked at along the edges of one sheet: three on each, up to so many. */
const [onEdge, mostPlaces] = [3, 900];

/**
 * Quality factor, by radiation alone, of the patch of the lowest board in a model: sqrt(er) lambda / 4h (after C. A. Balanis, Antenna Theory, 4th ed., sec. 14.2.2, of its
 * order); 0 where there is none. `wave` is the free wavelength, metres.
 */
export function patchQuality(bodies: readonly Body[], wave: number): number {
  const near = new Map<Body, { count: number; height: number }>();
  for (const { kind, body, axis, width } of alignedWidths(bodies)) {
    if (kind !== 'gap' || body.shape.form !== 'sheet' || body.shape.normal !== axis || width > highest * wave) continue;
    const known = near.get(body);
    near.set(body, { count: (known?.count ?? 0) + 1, height: Math.min(width, known?.height ?? Infinity) });
  }
  const boards = bodies.filter((b) => b.material.kind === 'dielectric');
  return [...near].reduce((best, [body, { count, height }]) => {
    if (body.shape.form !== 'sheet') return best;
    const edges = body.shape.loops.reduce((sum, loop) => sum + loop.length, 0);
    const { normal, offset } = body.shape;
    const under = boards.find((b) => b.min[normal] <= offset && b.max[normal] >= offset);
    const er = under?.material.permittivity ?? 1;
    const sizes = [0, 1, 2].flatMap((a) => (a === normal ? [] : [body.max[a] - body.min[a]]));
    const patch = count >= mostly * Math.min(mostPlaces, onEdge * edges) && Math.min(...sizes) > (smallest * wave) / Math.sqrt(er);
    return patch ? Math.max(best, (Math.sqrt(er) * wave) / (4 * height)) : best;
  }, 0);
}
