import { type Body, both, crossedIn, either, flatSpans, type TiltedSheet } from '../../geometry/index.ts';
import { apply, applyLinear, invert, type Affine } from '../../numerics/affine.ts';
import type { Axis } from '../../numerics/axis.ts';
import type { Point2, Point3 } from '../../document/index.ts';

/** Slack at a sheet's outline, as a part of its size: what touches it counts as inside. */
const slack = 1e-6;

/** A sheet across no axis as a grid is cut by it. Metres. */
export class Plate {
  /** Unit vector across it. */
  readonly normal: Point3;
  private readonly inverse: Affine;
  private readonly loops: readonly Point2[][];
  private readonly tolerance: number;

  constructor(
    readonly body: Body,
    /** 1: perfect, otherwise 1 + class of its metal. */
    readonly mark: number,
  ) {
    const { frame, loops } = body.shape as TiltedSheet;
    this.inverse = invert(frame);
    this.loops = loops;
    const across = [frame[2], frame[6], frame[10]];
    this.normal = across.map((x) => x / Math.hypot(...across)) as Point3;
    this.tolerance = slack * Math.max(...[0, 1, 2].map((a) => body.max[a] - body.min[a]));
  }

  /** Distance of a point from its plane, signed. */
  distance = (p: Point3): number => apply(this.inverse, p)[2];

  /** Whether a point of its plane is metal, its outline and what lies within a tolerance of it counted in. */
  holds(p: Point3, t = this.tolerance): boolean {
    const [u, v] = apply(this.inverse, p);
    return [
      [0, t],
      [0, -t],
      [t, 0],
      [-t, 0],
    ].some(([du, dv]) => this.spans([u + du, v + dv], [1, 0]).some((x, i, all) => i % 2 === 0 && x <= t && all[i + 1] >= -t));
  }

  /** How far its metal goes on from a point of its plane along a direction in it, in lengths of the direction. */
  reach(p: Point3, d: Point3): number {
    const [u, v] = apply(this.inverse, p);
    const [du, dv] = applyLinear(this.inverse, d);
    const length = Math.hypot(du, dv);
    if (!(length > 0)) return 0;
    const t = this.tolerance;
    let best = 0;
    for (const side of [t, -t]) {
      const spans = this.spans([u - (side * dv) / length, v + (side * du) / length], [du, dv]);
      for (let i = 0; i < spans.length; i += 2) if (spans[i] <= t / length && spans[i + 1] > best) best = spans[i + 1];
    }
    return best;
  }

  /** Stretches of metal on the way from a point of its plane by a direction in it, as parts of that way. */
  along(p: Point3, d: Point3): number[] {
    const [u, v] = apply(this.inverse, p);
    const [du, dv] = applyLinear(this.inverse, d);
    const length = Math.hypot(du, dv);
    if (!(length > 0)) return [];
    const t = this.tolerance / length;
    const spans = [t, -t].map((side) => this.spans([u - side * dv, v + side * du], [du, dv]));
    return both(either(spans[0], spans[1]), [0, 1]);
  }

  /** Straight stretches in which it crosses a rectangle across an axis, which stands at `min` there. */
  inRectangle = (normal: Axis, min: Point3, max: Point3): [Point3, Point3][] => crossedIn(this.body.shape as TiltedSheet, normal, min, max);

  private spans = (p: Point2, d: Point2): number[] => flatSpans(this.loops, p, d);
}
