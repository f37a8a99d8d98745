import type { Axis } from '../numerics/axis.ts';
import { type Body, isSheet, rowSpans } from './body.ts';

/** First index of sorted `xs` with xs[i] >= x. */
function firstFrom(xs: ArrayLike<number>, x: number): number {
  let lo = 0;
  let hi = xs.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (xs[mid] >= x) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}

/**
 * Tells what fills points of space, row by row along x: the mark of the body there, 0 for none. Where bodies overlap the later one counts; sheets fill
 * nothing. In a region, points are kept off its walls, so that bodies at a wall go on beyond it.
 */
export class Filling {
  private readonly solids: { body: Body; mark: number }[];

  /** `marks` has one for each body; absent: their numbers from 1. Lengths in metres. */
  constructor(
    bodies: readonly Body[],
    marks: ArrayLike<number> = bodies.map((_, n) => n + 1),
    private readonly region?: { min: ArrayLike<number>; max: ArrayLike<number> },
  ) {
    this.solids = bodies
      .map((body, n) => ({ body, mark: marks[n] }))
      .filter(({ body }) => !isSheet(body))
      .sort((a, b) => a.body.order - b.body.order);
  }

  /** Moves a coordinate to just inside the region. */
  clamp(axis: Axis, x: number): number {
    if (!this.region) return x;
    const [from, to] = [this.region.min[axis], this.region.max[axis]];
    const margin = 1e-7 * (to - from);
    return Math.min(Math.max(x, from + margin), to - margin);
  }

  /** Whether any solid comes within the rectangle y0..y1, z0..z1. */
  near(y0: number, y1: number, z0: number, z1: number): boolean {
    const [a, b, c, d] = [this.clamp(1, y0), this.clamp(1, y1), this.clamp(2, z0), this.clamp(2, z1)];
    return this.solids.some(({ body }) => body.min[1] <= b && body.max[1] >= a && body.min[2] <= d && body.max[2] >= c);
  }

  /** What tells the row through (y, z): each body's mark and the indices at which it begins and ends among sorted `xs`. */
  cuts(y: number, z: number, xs: ArrayLike<number>): string {
    let out = '';
    this.visit(y, z, xs, (mark, from, to) => (out += `${mark} ${from} ${to} `));
    return out;
  }

  /** Marks at the sorted coordinates `xs` of the row through (y, z), from `at` on in `out`. `xs` must be clamped already. */
  row(y: number, z: number, xs: ArrayLike<number>, out: Uint16Array, at = 0): void {
    out.fill(0, at, at + xs.length);
    this.visit(y, z, xs, (mark, from, to) => void out.fill(mark, at + from, at + to));
  }

  private visit(y: number, z: number, xs: ArrayLike<number>, each: (mark: number, from: number, to: number) => void): void {
    const cy = this.clamp(1, y);
    const cz = this.clamp(2, z);
    for (const { body, mark } of this.solids) {
      if (cy < body.min[1] || cy > body.max[1] || cz < body.min[2] || cz > body.max[2]) continue;
      const spans = rowSpans(body.shape, cy, cz);
      for (let s = 0; s < spans.length; s += 2) each(mark, firstFrom(xs, spans[s]), firstFrom(xs, spans[s + 1]));
    }
  }
}

/** The body that fills each point of a grid of sorted coordinates (metres), by its number from 1; 0 for none. Values are in the order [z][y][x]. */
export function fillOf(bodies: readonly Body[], x: ArrayLike<number>, y: ArrayLike<number>, z: ArrayLike<number>): Uint16Array {
  const filling = new Filling(bodies);
  const out = new Uint16Array(x.length * y.length * z.length);
  for (let k = 0; k < z.length; k++) for (let j = 0; j < y.length; j++) filling.row(y[j], z[k], x, out, (k * y.length + j) * x.length);
  return out;
}
