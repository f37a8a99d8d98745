import { inPlane, type Point2, type Point3, type SheetRecipe } from '../shapes/index.ts';
import type { Body } from './body.ts';
import type { Exact } from './exact.ts';
import type { Fold } from './fold.ts';

/** Bodies of a model that is cut at a plane, drawn out from there as a prism of its section, and ended by its own mirror image. */
export function foldedBodies(bodies: readonly Body[], fold: Fold): Body[] {
  return bodies.flatMap((body): Body[] => {
    const { axis, at, inward } = fold;
    const [near, far] = inward > 0 ? [body.min[axis], body.max[axis]] : [body.max[axis], body.min[axis]];
    const depth = (x: number): number => inward * (x - at);
    // What begins beyond the cut is gone; what ends before it stands twice.
    if (depth(near) >= 0) return [];
    if (depth(far) <= 0) return [body, { ...body, name: `${body.name}'`, ...mirrored(body, fold) }];
    const shape = body.shape.form === 'sheet' ? foldedSheet(body.shape, fold) : { form: 'folded' as const, fold, of: body.shape as Exact };
    const ends = [near, mirrorOf(fold, near)].sort((a, b) => a - b);
    const planes = body.planes.map((p, a) =>
      a === axis ? p.filter((x) => depth(x) < 0).flatMap((x) => [x, mirrorOf(fold, x)]) : p,
    ) as Body['planes'];
    return [{ ...body, shape, planes, min: withAxis(body.min, axis, ends[0]), max: withAxis(body.max, axis, ends[1]) }];
  });
}

/** The mirror image of a coordinate along the fold's axis. */
export const mirrorOf = ({ at, inward, length }: Fold, x: number): number => 2 * at + inward * length - x;

const withAxis = (p: Point3, axis: number, x: number): Point3 => p.map((v, a) => (a === axis ? x : v)) as Point3;

/** Shape, extent and faces of the mirror image of a body that ends before the cut. */
function mirrored(body: Body, fold: Fold): Pick<Body, 'shape' | 'min' | 'max' | 'planes'> {
  const { axis } = fold;
  const image = (x: number): number => mirrorOf(fold, x);
  const shape =
    body.shape.form !== 'sheet'
      ? { form: 'folded' as const, fold, of: body.shape as Exact }
      : body.shape.normal === axis
        ? { ...body.shape, offset: image(body.shape.offset) }
        : { ...body.shape, loops: body.shape.loops.map((l) => l.map((p) => imageIn(p, which(body.shape as SheetRecipe, axis), image)).reverse()) };
  return {
    shape,
    planes: body.planes.map((p, a) => (a === axis ? p.map(image) : p)) as Body['planes'],
    min: withAxis(body.min, axis, image(body.max[axis])),
    max: withAxis(body.max, axis, image(body.min[axis])),
  };
}

/** Which coordinate of a sheet's outline runs along an axis. */
const which = (sheet: SheetRecipe, axis: number): 0 | 1 => (inPlane[sheet.normal][0] === axis ? 0 : 1);
const imageIn = (p: Point2, c: 0 | 1, image: (x: number) => number): Point2 => (c === 0 ? [image(p[0]), p[1]] : [p[0], image(p[1])]);

/**
 * Outlines of a folded sheet. The outlines before the cut are open strands from the cut to the cut; each joins its own image by straight
 * lines, so that no false edge arises (even-odd: a strand within another is a gap in it).
 */
function foldedSheet(sheet: SheetRecipe, fold: Fold): SheetRecipe {
  const c = which(sheet, fold.axis);
  const depth = (p: Point2): number => fold.inward * (p[c] - fold.at);
  const image = (x: number): number => mirrorOf(fold, x);
  const whole: Point2[][] = [];
  const strands: Point2[][] = [];
  for (const loop of sheet.loops) {
    const first = loop.findIndex((p, i) => depth(p) >= 0 && depth(loop[(i + 1) % loop.length]) < 0);
    if (first < 0) {
      if (loop.every((p) => depth(p) < 0)) whole.push(loop, loop.map((p) => imageIn(p, c, image)).reverse());
      continue;
    }
    let open: Point2[] | null = null;
    for (let n = 0; n < loop.length; n++) {
      const [p, q] = [loop[(first + n) % loop.length], loop[(first + n + 1) % loop.length]];
      const [a, b] = [depth(p), depth(q)];
      const cut = (): Point2 => {
        const t = a / (a - b);
        const other = p[1 - c] + t * (q[1 - c] - p[1 - c]);
        return c === 0 ? [fold.at, other] : [other, fold.at];
      };
      if (a >= 0 && b < 0) open = [cut()];
      if (b < 0) open!.push(q);
      else if (a < 0) {
        strands.push([...open!, cut()]);
        open = null;
      }
    }
  }
  const loops = strands.map((strand): Point2[] => [...strand, ...strand.map((p) => imageIn(p, c, image)).reverse()]);
  return { ...sheet, loops: [...whole, ...loops] };
}
