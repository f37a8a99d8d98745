import { dot, look, type Search, type Task, type Told, within } from './search.ts';

/** Step by which slopes are taken: below it the noise of a mesh that changes outweighs them. */
const slopeStep = 1e-3;
/** Share of the foretold gain that a step has to bring (Armijo). */
const least = 1e-4;
const smallest = 1e-6;

/**
 * The quasi-Newton method of Broyden, Fletcher, Goldfarb and Shanno with slopes by differences, on the faces of the cube by projection (J. Nocedal and S. J.
 * Wright, Numerical Optimization, 2nd ed., chapters 6 and 16.7).
 */
export function* quasiNewton({ dimensions: n, start }: Task): Search {
  let x = within(start);
  let { cost } = yield* look(x);
  // Differences to one side while they say enough, to both near the end.
  let both = false;
  let slope = yield* slopeAt(x, cost, both);
  let inverse = unit(n);
  for (let fresh = true; ;) {
    // A direction that leads out of the cube counts nothing.
    const free = slope.map((g, i) => !((x[i] <= 0 && g > 0) || (x[i] >= 1 && g < 0)));
    if (!slope.some((g, i) => free[i] && Math.abs(g) > 0)) return;
    let way = inverse.map((row, i) => (free[i] ? -row.reduce((s, v, k) => s + (free[k] ? v * slope[k] : 0), 0) : 0));
    if (dot(way, slope) >= 0) {
      inverse = unit(n);
      way = slope.map((g, i) => (free[i] ? -g : 0));
    }
    // The first step, of which nothing is known yet, is a tenth of the cube.
    const long = Math.hypot(...way);
    if (fresh || long > 0.5) way = way.map((w) => (w * (fresh ? 0.1 : 0.5)) / long);
    let [t, next, told] = [1, x, Infinity];
    for (; t > smallest; t /= 3) {
      next = within(x.map((v, i) => v + t * way[i]));
      told = (yield* look(next)).cost;
      if (told <= cost + least * dot(slope, next.map((v, i) => v - x[i]))) break; // prettier-ignore
    }
    if (!(told < cost)) {
      if (both && fresh) return;
      if (!both) slope = yield* slopeAt(x, cost, (both = true));
      [fresh, inverse] = [true, unit(n)];
      continue;
    }
    const [s, old] = [next.map((v, i) => v - x[i]), slope];
    [x, cost] = [next, told];
    slope = yield* slopeAt(x, cost, both);
    inverse = updated(inverse, s, slope.map((g, i) => g - old[i])); // prettier-ignore
    fresh = false;
    if (Math.hypot(...s) < smallest) return;
  }
}

const unit = (n: number): number[][] => Array.from({ length: n }, (_, i) => Array.from({ length: n }, (__, k) => Number(i === k)));

function* slopeAt(x: readonly number[], cost: number, both: boolean): Generator<number[][], number[], readonly Told[]> {
  const moved = (i: number, step: number): number[] => x.map((w, k) => (k === i ? w + step : w));
  const up = x.map((v) => (v + slopeStep <= 1 ? slopeStep : -slopeStep));
  const down = x.map((v) => (v - slopeStep >= 0 && v + slopeStep <= 1 ? -slopeStep : 0));
  const told = yield [...up.map((s, i) => moved(i, s)), ...(both ? down.map((s, i) => moved(i, s)) : [])];
  return up.map((s, i) => {
    const [high, low] = [told[i].cost, both ? told[x.length + i].cost : cost];
    return Number.isFinite(high) && Number.isFinite(low) ? (high - low) / (both ? s - down[i] : s) : 0;
  });
}

/** The inverse of the curvature after a step s that changed the slope by y. */
function updated(h: number[][], s: readonly number[], y: readonly number[]): number[][] {
  const sy = dot(s, y);
  if (!(sy > 1e-12)) return h;
  const hy = h.map((row) => dot(row, y));
  const more = (sy + dot(y, hy)) / sy ** 2;
  return h.map((row, i) => row.map((v, k) => v + more * s[i] * s[k] - (hy[i] * s[k] + s[i] * hy[k]) / sy));
}
