import { normalAt, normalBelow } from './normal.ts';

/** How a parameter is spread about what it should be. */
export type Spread =
  | { kind: 'even'; from: number; to: number }
  /** `cut`: no value is farther off than so many deviations. */
  | { kind: 'normal'; middle: number; deviation: number; cut?: number }
  /** Each as likely as the others. */
  | { kind: 'list'; values: readonly number[] };

/** Parameters that go together: the correlation of what is normal under them. */
export interface Link {
  a: number;
  b: number;
  by: number;
}

/** Deviations beyond which a normal spread that is not cut counts as no case to look for. */
const usualReach = 3;
/** Deviations from the middle up to which a spread is looked at. */
const reachOf = (cut: number | undefined): number => cut ?? usualReach;

/** The value of a spread below which a share of all lies. */
export function quantile(spread: Spread, share: number): number {
  switch (spread.kind) {
    case 'even':
      return spread.from + (spread.to - spread.from) * share;
    case 'list':
      return nth(spread, share);
    case 'normal': {
      const { middle, deviation, cut } = spread;
      const beyond = cut === undefined ? 0 : normalBelow(-cut);
      const off = normalAt(beyond + (1 - 2 * beyond) * share);
      return middle + deviation * (cut === undefined ? off : Math.max(-cut, Math.min(cut, off)));
    }
  }
}

/** Least and largest value of a spread; of a normal one that is not cut, as far as one looks. */
export function endsOf(spread: Spread): [number, number] {
  if (spread.kind === 'even') return [spread.from, spread.to];
  if (spread.kind === 'list') return [Math.min(...spread.values), Math.max(...spread.values)];
  const reach = spread.deviation * reachOf(spread.cut);
  return [spread.middle - reach, spread.middle + reach];
}

/** Equal shares of a spread by which its moments are reckoned. */
const parts = 1000;
/** Mean and standard deviation of a spread. */
export function momentsOf(spread: Spread): { mean: number; deviation: number } {
  const values = Array.from({ length: parts }, (_, i) => quantile(spread, (i + 0.5) / parts));
  const mean = values.reduce((s, v) => s + v, 0) / parts;
  return { mean, deviation: Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / parts) };
}

const nth = ({ values }: { values: readonly number[] }, share: number): number =>
  values[Math.min(values.length - 1, Math.floor(share * values.length))];

/** The value at a share of the way between the ends of a spread. */
export function between(spread: Spread, share: number): number {
  if (spread.kind === 'list') return nth(spread, share);
  const [from, to] = endsOf(spread);
  return from + (to - from) * share;
}

/** At which share of the way between its ends a value of a spread lies. */
export function shareBetween(spread: Spread, value: number): number {
  if (spread.kind === 'list') return (spread.values.indexOf(value) + 0.5) / spread.values.length;
  const [from, to] = endsOf(spread);
  return to > from ? Math.min(1, Math.max(0, (value - from) / (to - from))) : 0.5;
}

/** A spread in another measure: x times `scale` and `shift`. */
export function movedSpread(spread: Spread, scale: number, shift: number): Spread {
  const of = (v: number): number => v * scale + shift;
  if (spread.kind === 'even') return { ...spread, from: of(spread.from), to: of(spread.to) };
  if (spread.kind === 'list') return { ...spread, values: spread.values.map(of) };
  return { ...spread, middle: of(spread.middle), deviation: spread.deviation * Math.abs(scale) };
}

/** Lower factor of the correlations, row by row; null where no parameters can be linked so. */
function factorOf(links: readonly Link[], d: number): number[][] | null {
  const c = Array.from({ length: d }, (_, i) => Array.from({ length: d }, (_, j) => Number(i === j)));
  for (const { a, b, by } of links) c[a][b] = c[b][a] = by;
  const l = c.map((row) => row.map(() => 0));
  for (let i = 0; i < d; i++)
    for (let j = 0; j <= i; j++) {
      let s = c[i][j];
      for (let k = 0; k < j; k++) s -= l[i][k] * l[j][k];
      if (i !== j) l[i][j] = s / l[j][j];
      else if (s > 1e-9) l[i][i] = Math.sqrt(s);
      else return null;
    }
  return l;
}

/** Whether parameters can be linked so: whether their correlations are those of anything. */
export const canLink = (links: readonly Link[], d: number): boolean => factorOf(links, d) !== null;

/**
 * Values of parameters from numbers of the unit cube. Those that are linked are so by a normal distribution under them (Gaussian copula: R. B. Nelsen, An
 * Introduction to Copulas, 2006, 2.3).
 * @throws RangeError where they cannot be linked so.
 */
export function drawing(spreads: readonly Spread[], links: readonly Link[]): (share: readonly number[]) => number[] {
  if (!links.length) return (share) => spreads.map((s, i) => quantile(s, share[i]));
  const l = factorOf(links, spreads.length);
  if (!l) throw new RangeError('No parameters can be linked so.');
  return (share) => {
    const z = share.map(normalAt);
    return spreads.map((s, i) => {
      const own = l[i].reduce((sum, v, k) => (k <= i ? sum + v * z[k] : sum), 0);
      return quantile(s, Math.min(1 - 1e-12, Math.max(1e-12, normalBelow(own))));
    });
  };
}
