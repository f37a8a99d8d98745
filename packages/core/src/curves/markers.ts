/** A curve to be read: x ascending, NaN where there is nothing. */
export interface Curve {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

/** Where a marker stands on a curve: between samples after `index` where it follows a level. */
export interface Spot {
  x: number;
  y: number;
}

/** The sample nearest to `x`; null where the curve has none. */
export function nearest({ x, y }: Curve, at: number): Spot | null {
  let best: Spot | null = null;
  for (let i = 0; i < x.length; i++) if (Number.isFinite(y[i]) && (!best || Math.abs(x[i] - at) < Math.abs(best.x - at))) best = { x: x[i], y: y[i] };
  return best;
}

/** The value at x by linear interpolation, in the units of the curve; NaN outside it. */
export function valueAt({ x, y }: Curve, at: number): number {
  const n = x.length;
  if (!n || !(at >= x[0] && at <= x[n - 1])) return NaN;
  let [lo, hi] = [0, n - 1];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (x[mid] <= at) lo = mid;
    else hi = mid;
  }
  if (lo === hi || at === x[lo]) return y[lo];
  if (at === x[hi]) return y[hi];
  const t = (at - x[lo]) / (x[hi] - x[lo]);
  return y[lo] + t * (y[hi] - y[lo]);
}

/**
 * Peaks (`kind` 1) or dips (-1) in [from, to], the highest or deepest first: samples beyond both neighbours, of a plateau its first. The ends count only where no
 * sample inside qualifies. Values are those of samples: nothing is made up between them.
 */
export function extrema({ x, y }: Curve, kind: 1 | -1, from = -Infinity, to = Infinity): Spot[] {
  const found: Spot[] = [];
  let best: Spot | null = null;
  for (let i = 0; i < x.length; i++) {
    if (x[i] < from || x[i] > to || !Number.isFinite(y[i])) continue;
    if (!best || kind * y[i] > kind * best.y) best = { x: x[i], y: y[i] };
    if (i === 0 || i === x.length - 1 || !(kind * y[i] > kind * y[i - 1])) continue;
    let k = i + 1;
    while (k < x.length - 1 && y[k] === y[i]) k++;
    if (kind * y[k] < kind * y[i]) found.push({ x: x[i], y: y[i] });
  }
  found.sort((a, b) => kind * (b.y - a.y));
  return found.length ? found : best ? [best] : [];
}

/** Where the curve passes a level, by linear interpolation, in order of x; `rising` tells which way. */
export function crossings({ x, y }: Curve, level: number): (Spot & { rising: boolean })[] {
  const found: (Spot & { rising: boolean })[] = [];
  for (let i = 1; i < x.length; i++) {
    const [a, b] = [y[i - 1] - level, y[i] - level];
    if (!Number.isFinite(a) || !Number.isFinite(b) || a === b || a < 0 === b < 0) continue;
    const t = a / (a - b);
    found.push({ x: x[i - 1] + t * (x[i] - x[i - 1]), y: level, rising: b > a });
  }
  return found;
}

/** A stretch of x on one side of a level. An end that is the curve's own is open: the stretch may go on beyond. */
export interface Band {
  from: number;
  to: number;
  openFrom: boolean;
  openTo: boolean;
}

/** Stretches in which the curve lies below (`side` -1) or above (1) a level, in order of x. */
export function bands(curve: Curve, level: number, side: 1 | -1): Band[] {
  const { x, y } = curve;
  const out: Band[] = [];
  let open: { from: number; openFrom: boolean } | null = null;
  const inside = (v: number): boolean => side * (v - level) >= 0;
  const cross = (i: number): number => {
    const [a, b] = [y[i - 1] - level, y[i] - level];
    return a === b ? x[i] : x[i - 1] + (a / (a - b)) * (x[i] - x[i - 1]);
  };
  for (let i = 0; i < x.length; i++) {
    const known = Number.isFinite(y[i]);
    const before = i > 0 && Number.isFinite(y[i - 1]);
    if (known && inside(y[i])) open ??= { from: before ? cross(i) : x[i], openFrom: !before };
    else if (open) {
      out.push({ ...open, to: known ? cross(i) : x[i - 1], openTo: !known });
      open = null;
    }
  }
  if (open) out.push({ ...open, to: x[x.length - 1], openTo: true });
  return out;
}

export interface Statistics {
  min: Spot;
  max: Spot;
  /** Mean over x, by the trapezoidal rule; of samples where they all stand at one x. */
  mean: number;
  /** Peak to peak. */
  span: number;
  count: number;
}

/** Figures of a curve over [from, to]; null where it has no sample there. */
export function statistics({ x, y }: Curve, from = -Infinity, to = Infinity): Statistics | null {
  let [min, max]: (Spot | null)[] = [null, null];
  let [count, sum, area, width] = [0, 0, 0, 0];
  let last = -1;
  for (let i = 0; i < x.length; i++) {
    if (x[i] < from || x[i] > to || !Number.isFinite(y[i])) continue;
    const spot = { x: x[i], y: y[i] };
    if (!min || spot.y < min.y) min = spot;
    if (!max || spot.y > max.y) max = spot;
    if (last === i - 1 && last >= 0) {
      area += ((y[i] + y[last]) / 2) * (x[i] - x[last]);
      width += x[i] - x[last];
    }
    last = i;
    sum += y[i];
    count++;
  }
  if (!min || !max) return null;
  return { min, max, mean: width > 0 ? area / width : sum / count, span: max.y - min.y, count };
}

/** A limit over a stretch of x, straight from one end to the other. */
export interface Limit {
  from: Spot;
  to: Spot;
  side: 'below' | 'above';
}

/** Whether a curve keeps a limit, and where it is worst: margin > 0 is room. Null where the curve has no sample on the stretch. */
export function held(curve: Curve, { from, to, side }: Limit): { ok: boolean; margin: number; at: number } | null {
  const bound = (x: number): number => (to.x === from.x ? from.y : from.y + ((x - from.x) / (to.x - from.x)) * (to.y - from.y));
  let worst: { margin: number; at: number } | null = null;
  const look = (x: number, y: number): void => {
    if (!Number.isFinite(y)) return;
    const margin = side === 'below' ? bound(x) - y : y - bound(x);
    if (!worst || margin < worst.margin) worst = { margin, at: x };
  };
  for (let i = 0; i < curve.x.length; i++) if (curve.x[i] >= from.x && curve.x[i] <= to.x) look(curve.x[i], curve.y[i]);
  // The ends of the stretch need not be samples.
  for (const x of [from.x, to.x]) look(x, valueAt(curve, x));
  return worst && { ok: (worst as { margin: number }).margin >= 0, ...(worst as { margin: number; at: number }) };
}
