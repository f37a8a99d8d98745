const steps = [1, 2, 2.5, 5, 10];
/** Steps of angles in degrees, as parts of a turn. */
const turnSteps = [1, 2, 5, 10, 15, 30, 45, 60, 90, 180, 360];

/** Round values within [min, max], about `count` of them; of a logarithmic axis 1, 2, 5 of each decade or the decades alone. */
export function ticksOf(min: number, max: number, log: boolean, count: number, angles = false): number[] {
  if (log) {
    const decades = Math.log10(max / min);
    const parts = decades > count ? [1] : decades > count / 2 ? [1, 3] : [1, 2, 5];
    const out: number[] = [];
    const skip = Math.max(1, Math.ceil(decades / count));
    for (let d = Math.floor(Math.log10(min)); d <= Math.ceil(Math.log10(max)); d += skip)
      for (const m of parts) {
        const v = m * 10 ** d;
        if (v >= min * (1 - 1e-9) && v <= max * (1 + 1e-9)) out.push(v);
      }
    if (out.length >= 2) return out;
  }
  const rough = (max - min) / count;
  if (!(rough > 0)) return [min];
  const power = 10 ** Math.floor(Math.log10(rough));
  const turn = angles && rough > 0.7 ? turnSteps.find((s) => s >= rough * (1 - 1e-9)) : undefined;
  const step = turn ?? steps.map((s) => s * power).find((s) => s >= rough * (1 - 1e-9))!;
  const out: number[] = [];
  for (let k = Math.ceil(min / step - 1e-9); k * step <= max + 1e-6 * step; k++) out.push(k * step);
  return out;
}

/** A tick as text with as many digits as its step asks for. */
export function tickText(v: number, ticks: readonly number[], size: number): string {
  const step = ticks.length > 1 ? Math.abs(ticks[1] - ticks[0]) / size : 1;
  const x = v / size;
  if (x !== 0 && (Math.abs(x) >= 1e6 || Math.abs(x) < 1e-4)) return x.toExponential(1);
  const power = 10 ** Math.floor(Math.log10(step) + 1e-9);
  // A step of 2.5 needs a digit more than one of 2.
  const more = Math.abs(step / power - Math.round(step / power)) > 1e-6 ? 1 : 0;
  const digits = Math.max(0, Math.min(8, -Math.round(Math.log10(power)) + more));
  return x.toFixed(digits).replace(/^-(0(\.0*)?)$/, '$1');
}

/** The span of values with a little room, on round bounds; given bounds are kept. */
export function spanOf(
  lists: readonly ArrayLike<number>[],
  given: { min?: number; max?: number },
  log: boolean,
  round: boolean,
  angles = false,
): [min: number, max: number] {
  let [lo, hi] = [Infinity, -Infinity];
  for (const list of lists)
    for (let i = 0; i < list.length; i++) {
      const v = list[i];
      if (!Number.isFinite(v) || (log && v <= 0)) continue;
      if (v < lo) lo = v;
      if (v > hi) hi = v;
    }
  if (lo > hi) [lo, hi] = log ? [1, 10] : [0, 1];
  if (round && !log) {
    if (hi - lo < 1e-9 * Math.max(Math.abs(lo), Math.abs(hi), 1e-30)) {
      const room = Math.abs(lo) * 0.1 || 1;
      [lo, hi] = [lo - room, hi + room];
    }
    const inner = ticksOf(lo, hi, false, 6, angles);
    const step = inner.length > 1 ? inner[1] - inner[0] : hi - lo;
    lo = Math.floor(lo / step + 1e-9) * step + 0;
    hi = Math.ceil(hi / step - 1e-9) * step + 0;
  }
  let [min, max] = [given.min ?? lo, given.max ?? hi];
  if (log && !(min > 0)) min = lo > 0 ? lo : 1e-12;
  if (!(max > min)) max = log ? min * 10 : min + (Math.abs(min) || 1);
  return [min, max];
}
