import { GaussianProcess } from './gaussianProcess.ts';
import { nelderMead } from './nelderMead.ts';
import { normalBelow } from './normal.ts';
import { searchFunction } from './search.ts';
import { fewestPoints } from './sensitivity.ts';
import { sobol } from './sequences.ts';
import { between, drawing, type Link, shareBetween, type Spread } from './spreads.ts';

/** Cases by which shares are reckoned, those by which a middle is sought, and what a search may try. */
const cases = 16_384;
const fewCases = 512;
const tries = 240;
/** Bars of a histogram. */
const bars = 40;
/** Error that a model is taken to have at least, of the deviation of its figure: a goal is a slope of this width, not a step, while a middle is sought. */
const leastError = 0.05;

/** A figure at places of the unit cube, and at others that are kept for the check. */
export interface Sampled {
  x: number[][];
  y: number[];
  /** It is in decibels, whose dips are sharp where the power itself is smooth. */
  decibels?: boolean;
  checks: { x: number[][]; y: number[] };
}

/** What a figure should lie between. */
export interface Limits {
  figure: number;
  low: number;
  high: number;
}

/** What is asked of a tolerance; all places and spreads in the unit cube. */
export interface ToleranceTask {
  spreads: Spread[];
  links: Link[];
  figures: Sampled[];
  limits: Limits[];
  /** How far the middle of each may be moved; 0 where it stays. */
  shifts: number[];
}

/** A figure in all that may come. */
export interface FigureSpread {
  /** Points by which it is modelled. */
  points: number;
  /** Root mean square of what is missed at a point by what the others foretell. */
  error: number;
  /** The same at points that were kept for it, and how many these are; null without. */
  checked: { error: number; points: number } | null;
  mean: number;
  deviation: number;
  /** Values below which one in a hundred, half, and all but one in a hundred lie. */
  percentiles: [number, number, number];
  /** From the least to the largest, and how many cases of all lie in each of as many equal parts. */
  bars: { from: number; to: number; shares: number[] };
  /** The least and the largest value anywhere, and where. */
  worst: Extreme[];
}
export interface Extreme {
  value: number;
  place: number[];
}

/** How many of all cases keep a goal; `least`, `most`: if the models err by their error for the worse, or for the better. */
export interface Kept {
  share: number;
  least: number;
  most: number;
}

export interface Tolerance {
  /** Of each figure; null where its points are too few. */
  figures: (FigureSpread | null)[];
  /** All goals together, and each by itself; null where a figure of them is not known. */
  kept: Kept | null;
  each: (Kept | null)[];
  /** Standard error of a share by as many random cases. */
  standardError: number;
  /** Where the middles should lie for the most that keeps all goals, as steps from where they are; null where none may be moved. */
  centre: { steps: number[]; kept: Kept } | null;
}

/** What stands for the solver: the figure that is foretold at a place, and what is missed at each point by what the others foretell. */
interface Model {
  mean(place: readonly number[]): number;
  leftOut(): number[];
}

/** Of the least power that was solved, what is foretold at least: a process may swing below nothing. */
const leastPower = 0.1;

/** A process through figures, and one through the powers of figures in decibels. */
const plain = (x: number[][], y: number[], like?: GaussianProcess): Model & { process: GaussianProcess } => {
  const process = new GaussianProcess(x, y, like);
  return { process, mean: (p) => process.mean(p), leftOut: () => process.leftOut() };
};
const ofPowers = (x: number[][], y: number[], like?: GaussianProcess): Model & { process: GaussianProcess } => {
  const powers = y.map((v) => 10 ** (v / 10));
  const least = leastPower * Math.min(...powers);
  const inDecibels = (v: number): number => 10 * Math.log10(Math.max(v, least));
  const process = new GaussianProcess(x, powers, like);
  return {
    process,
    mean: (p) => inDecibels(process.mean(p)),
    leftOut: () => process.leftOut().map((missed, i) => y[i] - inDecibels(powers[i] - missed)),
  };
};

/** A model of a figure, and how far it errs. */
interface Modelled {
  process: Model;
  error: number;
  checked: FigureSpread['checked'];
  points: number;
}

const root = (list: readonly number[]): number => Math.sqrt(list.reduce((s, v) => s + v * v, 0) / list.length);

function modelled({ x, y, decibels, checks }: Sampled, d: number): Modelled | null {
  if (x.length < fewestPoints(d)) return null;
  // Of a figure in decibels whichever of both foretells its own points better.
  const [make, model] = (decibels ? [plain, ofPowers] : [plain])
    .map((of) => [of, of(x, y)] as const)
    .reduce((best, other) => (root(other[1].leftOut()) < root(best[1].leftOut()) ? other : best));
  const misses = checks.x.map((p, i) => model.mean(p) - checks.y[i]);
  // What was kept for the check is known from then on.
  const whole = misses.length ? make([...x, ...checks.x], [...y, ...checks.y], model.process) : model;
  return {
    process: whole,
    error: root(model.leftOut()),
    checked: misses.length ? { error: root(misses), points: misses.length } : null,
    points: x.length + checks.x.length,
  };
}

/** What a model errs by: at points that were kept for that where there are any. */
const errorOf = (m: Modelled): number => m.checked?.error ?? m.error;

/** Values of the models in so many cases, with the middles moved by steps. */
function valuesOf(models: readonly (Modelled | null)[], draws: readonly (readonly number[])[], steps: readonly number[]): (Float64Array | null)[] {
  const place = new Array<number>(steps.length);
  return models.map((m) => {
    if (!m) return null;
    return Float64Array.from(draws, (draw) => {
      for (let k = 0; k < place.length; k++) place[k] = draw[k] + steps[k];
      return m.process.mean(place);
    });
  });
}

/** Share of cases in which all of some limits are kept, if each figure may err by so much. */
function keptOf(values: readonly (Float64Array | null)[], models: readonly (Modelled | null)[], limits: readonly Limits[]): Kept | null {
  if (!limits.length || limits.some((l) => !values[l.figure])) return null;
  const n = values[limits[0].figure]!.length;
  const share = (sign: number): number => {
    let count = 0;
    for (let i = 0; i < n; i++)
      count += Number(
        limits.every(({ figure, low, high }) => {
          const [v, slack] = [values[figure]![i], sign * errorOf(models[figure]!)];
          return v >= low - slack && v <= high + slack;
        }),
      );
    return count / n;
  };
  return { share: share(0), least: share(-1), most: share(1) };
}

/** Where a figure is least (sign 1) or largest (-1) between the ends of all spreads: a search from the most extreme case. */
function extremeOf({ process }: Modelled, values: Float64Array, draws: readonly number[][], spreads: readonly Spread[], sign: number): Extreme {
  let at = 0;
  for (let i = 1; i < values.length; i++) if (sign * values[i] < sign * values[at]) at = i;
  const inside = (p: readonly number[]): number[] => p.map((v, k) => between(spreads[k], v));
  const start = draws[at].map((v, k) => shareBetween(spreads[k], v));
  const found = searchFunction(
    nelderMead({ dimensions: spreads.length, start, seed: 1, together: 1 }),
    (p) => ({ cost: sign * process.mean(inside(p)), misses: [] }),
    tries,
  );
  const place = inside(found.x);
  return { value: process.mean(place), place };
}

function spreadOf(m: Modelled, values: Float64Array, draws: readonly number[][], spreads: readonly Spread[]): FigureSpread {
  const sorted = values.toSorted();
  const n = sorted.length;
  const mean = sorted.reduce((s, v) => s + v, 0) / n;
  const [from, to] = [sorted[0], sorted[n - 1]];
  const shares = new Array<number>(bars).fill(0);
  for (const v of sorted) shares[to > from ? Math.min(bars - 1, Math.floor(((v - from) / (to - from)) * bars)) : 0] += 1 / n;
  return {
    points: m.points,
    error: m.error,
    checked: m.checked,
    mean,
    deviation: root(Array.from(sorted, (v) => v - mean)),
    percentiles: [0.01, 0.5, 0.99].map((p) => sorted[Math.floor(p * n)]) as [number, number, number],
    bars: { from, to, shares },
    worst: [1, -1].map((sign) => extremeOf(m, values, draws, spreads, sign)),
  };
}

/**
 * What parameters that are spread make of figures: Gaussian processes through what was solved stand for the solver in many cases, those of a Sobol sequence.
 * Shares are told with those that hold if all models err by their error, and a middle is sought at which the most cases keep the goals.
 */
export function toleranceOf({ spreads, links, figures, limits, shifts }: ToleranceTask): Tolerance {
  const d = spreads.length;
  const draw = drawing(spreads, links);
  const draws = sobol(cases, d).map(draw);
  const models = figures.map((f) => modelled(f, d));
  const still = shifts.map(() => 0);
  const values = valuesOf(models, draws, still);
  const kept = keptOf(values, models, limits);
  const share = kept?.share ?? 0;
  const moving = shifts.flatMap((s, i) => (s > 0 ? [i] : []));
  return {
    figures: models.map((m, i) => m && spreadOf(m, values[i]!, draws, spreads)),
    kept,
    each: limits.map((l) => keptOf(values, models, [l])),
    standardError: Math.sqrt((share * (1 - share)) / cases),
    centre: kept && moving.length ? centred(models, draws, values, limits, shifts, moving) : null,
  };
}

/** The steps of the middles at which most cases keep all goals, each goal a slope as wide as its model errs. */
function centred(
  models: readonly (Modelled | null)[],
  draws: readonly number[][],
  values: readonly (Float64Array | null)[],
  limits: readonly Limits[],
  shifts: readonly number[],
  moving: readonly number[],
): NonNullable<Tolerance['centre']> {
  const some = draws.slice(0, fewCases);
  const widths = limits.map(({ figure }) => {
    const own = values[figure]!;
    const mean = own.reduce((s, v) => s + v, 0) / own.length;
    return Math.max(errorOf(models[figure]!), leastError * root(Array.from(own, (v) => v - mean))) || 1e-300;
  });
  const asked = models.map((m, i) => (limits.some((l) => l.figure === i) ? m : null));
  const stepsOf = (p: readonly number[]): number[] => {
    const steps = shifts.map(() => 0);
    moving.forEach((k, i) => (steps[k] = (2 * p[i] - 1) * shifts[k]));
    return steps;
  };
  const hopeOf = (p: readonly number[]): number => {
    const own = valuesOf(asked, some, stepsOf(p));
    let sum = 0;
    for (let i = 0; i < some.length; i++) {
      let all = 1;
      limits.forEach(({ figure, low, high }, n) => {
        const v = own[figure]![i];
        all *= Math.max(0, normalBelow((high - v) / widths[n]) - normalBelow((low - v) / widths[n]));
      });
      sum += all;
    }
    // Where nothing is kept its logarithm still says which way is up.
    return Math.log(sum / some.length + 1e-300);
  };
  const found = searchFunction(
    nelderMead({ dimensions: moving.length, start: moving.map(() => 0.5), seed: 1, together: 1 }),
    (p) => ({ cost: -hopeOf(p), misses: [] }),
    tries,
  );
  const steps = stepsOf(found.x);
  return { steps, kept: keptOf(valuesOf(asked, draws, steps), models, limits)! };
}
