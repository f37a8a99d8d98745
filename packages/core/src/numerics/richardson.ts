/** What a figure comes to on ever finer meshes. */
export interface Limit {
  /** The figure on a mesh of no size. */
  value: number;
  /** Order at which it is approached, and what a mesh of size 1 is off by. */
  order: number;
  off: number;
  /** Standard deviation of the figures from the fit. */
  scatter: number;
  /** Of each figure, how far it may be from the limit (95 of 100), by the rules of the source. */
  errors: number[];
  /** Whether the order was found; else it is one that is taken. */
  found: boolean;
}

/** Orders between which one that was found is believed, and those that are tried. */
const believed = [0.5, 2.1] as const;
const tried = [0.1, 6] as const;
/** Orders that are tried between those, by equal ratios: two neighbours differ by 0.7 %, less than any figure tells. */
const steps = 600;
/** Fewest figures from which a limit is told. */
export const fewestMeshes = 3;

interface Fit {
  value: number;
  off: number;
  order: number;
  scatter: number;
}

/** The straight line through figures over sizes to a power. */
function fitted(h: readonly number[], y: readonly number[], order: number): Fit {
  const x = h.map((v) => v ** order);
  const n = x.length;
  const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / n;
  const [mx, my] = [mean(x), mean(y)];
  const across = x.reduce((s, v) => s + (v - mx) ** 2, 0);
  const off = across ? x.reduce((s, v, i) => s + (v - mx) * (y[i] - my), 0) / across : 0;
  const value = my - off * mx;
  const squares = x.reduce((s, v, i) => s + (y[i] - value - off * v) ** 2, 0);
  // Three figures determine value, slope and order: what is left of them is rounding.
  return { value, off, order, scatter: Math.sqrt(squares / Math.max(1, n - 3)) };
}

/**
 * What a figure comes to on ever finer meshes, by least squares on y = value + off * h^order over mesh sizes h of any unit: L. Eca and M. Hoekstra, J. Comput.
 * Phys. 262 (2014) 104, after L. F. Richardson, Phil. Trans. A 210 (1911) 307. Where no order between 0.5 and 2.1 is found the better of 1 and 2 is taken. Null of
 * fewer than three sizes.
 */
export function richardson(h: readonly number[], y: readonly number[]): Limit | null {
  if (new Set(h).size < fewestMeshes) return null;
  const [low, high] = tried;
  const fits = Array.from({ length: steps + 1 }, (_, i) => fitted(h, y, low * (high / low) ** (i / steps)));
  const least = (list: readonly Fit[]): Fit => list.reduce((best, f) => (f.scatter < best.scatter ? f : best));
  const free = least(fits);
  const found = free.order >= believed[0] && free.order <= believed[1];
  const fit = found ? free : least([fitted(h, y, 1), fitted(h, y, 2)]);
  // Figures that scatter more than they differ are trusted three times less.
  const range = (Math.max(...y) - Math.min(...y)) / (y.length - 1);
  const trust = found && fit.scatter < range ? 1.25 : 3;
  const errors = h.map((size, i) => {
    const off = fit.off * size ** fit.order;
    const missed = Math.abs(y[i] - fit.value - off);
    return fit.scatter < range || !range
      ? trust * Math.abs(off) + fit.scatter + missed
      : (3 * fit.scatter * (Math.abs(off) + fit.scatter + missed)) / range;
  });
  return { ...fit, errors, found };
}

/** The mesh size at which a figure is off by no more than wanted, as its fit foretells; Infinity where it does not change. */
export const sizeFor = ({ off, order }: Pick<Limit, 'off' | 'order'>, wanted: number): number =>
  off ? (wanted / Math.abs(off)) ** (1 / order) : Infinity;
