import { problem, ProblemError } from '../document/index.ts';
import { sameMesh, sameNumber } from '../numerics/tolerance.ts';

/** Largest ratio of neighbouring cells. */
export const maxRatio = 1.4;
/** Growth used to plan the cells: a little under the limit, as fitting to whole cells shifts sizes. */
export const growth = 1.3;

/** More cells than this along an axis are refused. */
export const mostCellsPerAxis = 20_000;

/** A coordinate that must be a grid line, with the cell size wanted beside it. */
export interface HardPoint {
  at: number;
  size: number;
  /** No line stands between this point and the next. */
  whole?: boolean;
}
/** A stretch of an axis where cells may not exceed `size`. */
export interface Limit {
  from: number;
  to: number;
  size: number;
}

/**
 * Grid lines from the first to the last hard point. Every hard point is a line; cells obey the limits; neighbours differ by
 * at most `maxRatio`; sizes grow geometrically away from small ones. Points must be sorted and distinct. Metres.
 */
export function gridLines(points: readonly HardPoint[], limits: readonly Limit[]): Float64Array {
  const sizes = points.map((p) => p.size);
  const intervals = points.length - 1;
  // A stretch's own limit, as a constraint at both of its ends within the stretch.
  const limit = (x: number): number => limits.reduce((m, l) => (x > l.from && x < l.to ? Math.min(m, l.size) : m), Infinity);
  const seeds: HardPoint[] = points.map((p) => ({ ...p }));
  for (const l of limits) seeds.push({ at: l.from, size: l.size }, { at: l.to, size: l.size });

  let lines: number[][] = [];
  for (let round = 0; round < 60; round++) {
    lines = [];
    for (let i = 0; i < intervals; i++) {
      const a = points[i].at;
      const b = points[i + 1].at;
      const inner = limit((a + b) / 2);
      const wanted = (x: number): number => {
        let h = inner;
        for (let s = 0; s < seeds.length; s++) h = Math.min(h, seeds[s].size + (growth - 1) * Math.abs(x - seeds[s].at));
        return Math.min(h, Math.max(limit(x), 0));
      };
      lines.push(points[i].whole ? [a, b] : fill(a, b, wanted));
    }
    // Where two intervals meet with too large a step, ask for smaller cells on the larger side and go round again.
    let good = true;
    for (let i = 1; i < intervals; i++) {
      const before = lines[i - 1];
      const left = before[before.length - 1] - before[before.length - 2];
      const right = lines[i][1] - lines[i][0];
      // A whole cell cannot shrink: smaller cells beside it are left alone.
      const fixed = left > right ? points[i - 1].whole : points[i].whole;
      if (!fixed && Math.max(left, right) > maxRatio * (1 - sameNumber) * Math.min(left, right)) {
        good = false;
        sizes[i] = Math.min(sizes[i] * 0.97, Math.min(left, right) * 1.02);
        seeds[i].size = sizes[i];
      }
    }
    if (good) break;
  }
  const out = [points[0].at, ...lines.flatMap((interval) => interval.slice(1))];
  return smoothed(out, new Set(points.filter((p) => p.whole).map((p) => p.at)));
}

/**
 * Whole cells in [a, b] whose sizes follow `wanted`: equal steps of the integral of 1/wanted, marched at a quarter cell.
 * @throws ProblemError where they would be too many.
 */
function fill(a: number, b: number, wanted: (x: number) => number): number[] {
  const xs = [a];
  const integral = [0];
  const tiny = sameNumber * (b - a);
  let previous = 1 / wanted(a + tiny);
  for (let x = a; x < b;) {
    const next = Math.min(b, x + Math.max(0.25 / previous, 1e-5 * (b - a)));
    const density = 1 / wanted(next === b ? b - tiny : next);
    integral.push(integral[integral.length - 1] + ((previous + density) / 2) * (next - x));
    xs.push(next);
    previous = density;
    x = next;
    if (xs.length > 8 * mostCellsPerAxis) break;
  }
  const total = integral[integral.length - 1];
  if (total > mostCellsPerAxis)
    throw new ProblemError([
      problem(
        'error',
        'grid.too-many',
        { part: 'solve' },
        `The grid would need ${Math.ceil(total)} cells along one axis.`,
        'Look for a very thin gap or strip beside a long body, or for a wrong unit; a larger smallest cell helps.',
      ),
    ]);
  const cells = Math.max(1, Math.ceil(total - sameMesh));
  const out = [a];
  let s = 0;
  for (let n = 1; n < cells; n++) {
    const target = (n * total) / cells;
    while (integral[s + 1] < target) s++;
    out.push(xs[s] + ((target - integral[s]) / (integral[s + 1] - integral[s])) * (xs[s + 1] - xs[s]));
  }
  out.push(b);
  return out;
}

/** Splits any cell that is still too large beside its neighbour; rarely needed after the rounds above. */
function smoothed(lines: number[], whole: Set<number>): Float64Array {
  for (let guard = 0; guard < 500; guard++) {
    const worst = lines.findIndex((_, i) => {
      if (i + 1 >= lines.length || whole.has(lines[i])) return false;
      const own = lines[i + 1] - lines[i];
      const left = i > 0 ? lines[i] - lines[i - 1] : own;
      const right = i + 2 < lines.length ? lines[i + 2] - lines[i + 1] : own;
      return own > maxRatio * (1 + sameNumber) * Math.min(left, right);
    });
    if (worst < 0) break;
    lines.splice(worst + 1, 0, (lines[worst] + lines[worst + 1]) / 2);
  }
  return Float64Array.from(lines);
}
