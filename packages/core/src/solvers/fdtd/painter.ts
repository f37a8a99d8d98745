import { isSheet, rowSpans } from '../../geometry/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { Media } from './materials.ts';
import type { Axis } from '../../numerics/axis.ts';

/** First index of sorted `xs` with xs[i] > x. */
function after(xs: Float64Array, x: number): number {
  let lo = 0;
  let hi = xs.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (xs[mid] > x) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}

/** Answers which medium stands where, row by row along x. Later lines win. Sample points are kept off the outer walls, so bodies at a wall go on into the absorbing layers. */
export class Painter {
  private readonly solids;
  constructor(
    private readonly scene: GridScene,
    media: Media,
  ) {
    this.solids = scene.bodies
      .map((b, i) => ({ body: b, medium: media.ofBody[i] }))
      .filter(({ body }) => !isSheet(body))
      .sort((a, b) => a.body.order - b.body.order);
  }

  /** Moves a coordinate to just inside the computed region. */
  clamp(axis: Axis, x: number): number {
    const margin = 1e-7 * (this.scene.max[axis] - this.scene.min[axis]);
    return Math.min(Math.max(x, this.scene.min[axis] + margin), this.scene.max[axis] - margin);
  }

  /** Whether any solid comes within the rectangle y0..y1, z0..z1. */
  near(y0: number, y1: number, z0: number, z1: number): boolean {
    const a = this.clamp(1, y0);
    const b = this.clamp(1, y1);
    const c = this.clamp(2, z0);
    const d = this.clamp(2, z1);
    return this.solids.some(({ body }) => body.min[1] <= b && body.max[1] >= a && body.min[2] <= d && body.max[2] >= c);
  }

  /** What tells the row through (y, z): each body's medium and the indices at which it begins and ends among sorted `xs`. */
  cuts(y: number, z: number, xs: Float64Array): string {
    const cy = this.clamp(1, y);
    const cz = this.clamp(2, z);
    let out = '';
    for (const { body, medium } of this.solids) {
      if (cy < body.min[1] || cy > body.max[1] || cz < body.min[2] || cz > body.max[2]) continue;
      const spans = rowSpans(body.shape, cy, cz);
      for (let s = 0; s < spans.length; s += 2) out += `${medium} ${after(xs, spans[s])} ${after(xs, spans[s + 1])} `;
    }
    return out;
  }

  /** Media at the sorted coordinates `xs` of the row through (y, z). `xs` must be clamped already. */
  paint(y: number, z: number, xs: Float64Array, out: Uint16Array): void {
    out.fill(0, 0, xs.length);
    const cy = this.clamp(1, y);
    const cz = this.clamp(2, z);
    for (const { body, medium } of this.solids) {
      if (cy < body.min[1] || cy > body.max[1] || cz < body.min[2] || cz > body.max[2]) continue;
      const spans = rowSpans(body.shape, cy, cz);
      for (let s = 0; s < spans.length; s += 2) out.fill(medium, after(xs, spans[s]), after(xs, spans[s + 1]));
    }
  }
}

/**
 * Pieces of the half cells along one axis, cut also at faces that are no grid lines, so that averages over thin layers are
 * exact. Pieces of half cell h stand at start[h] .. start[h+1]; half cell 2i is the lower half of cell i.
 */
export interface Pieces {
  start: Int32Array;
  centre: Float64Array;
  width: Float64Array;
}

/** Cuts an axis into pieces. `round` lists stretches with curved bodies, whose half cells are cut in two. */
export function cutPieces(lines: Float64Array, faces: readonly number[], round: readonly [number, number][]): Pieces {
  const centre: number[] = [];
  const width: number[] = [];
  const start = new Int32Array(2 * (lines.length - 1) + 1);
  for (let h = 0; h < 2 * (lines.length - 1); h++) {
    const i = h >> 1;
    const mid = (lines[i] + lines[i + 1]) / 2;
    const [a, b] = h & 1 ? [mid, lines[i + 1]] : [lines[i], mid];
    const cuts = faces.filter((f) => f > a + 1e-6 * (b - a) && f < b - 1e-6 * (b - a));
    if (round.some(([r0, r1]) => b > r0 && a < r1)) cuts.push((a + b) / 2);
    const ends = [a, ...cuts.sort((p, q) => p - q), b];
    start[h] = centre.length;
    for (let p = 1; p < ends.length; p++) {
      centre.push((ends[p - 1] + ends[p]) / 2);
      width.push(ends[p] - ends[p - 1]);
    }
  }
  start[start.length - 1] = centre.length;
  return { start, centre: Float64Array.from(centre), width: Float64Array.from(width) };
}
