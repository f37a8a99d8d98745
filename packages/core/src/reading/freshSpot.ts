import type { DrawnTrace } from './traces.ts';

/** A stretch in the middle of what curves are over, and a height amid their values, in the units of the card's axes: where a new limit or note is put. */
export function freshSpot(drawn: readonly Pick<DrawnTrace, 'x' | 'y' | 'unit'>[]): { from: number; to: number; y: number } {
  const ends = (lists: readonly ArrayLike<number>[]): [number, number] => {
    let [low, high] = [Infinity, -Infinity];
    for (const list of lists)
      for (let i = 0; i < list.length; i++)
        if (Number.isFinite(list[i])) {
          low = Math.min(low, list[i]);
          high = Math.max(high, list[i]);
        }
    return low <= high ? [low, high] : [0, 0];
  };
  const [low, high] = ends(drawn.map((d) => d.x));
  const middle = (low + high) / 2;
  const half = (high - low) / 50;
  const [least, most] = ends(drawn.map((d) => d.y));
  // Of decibels engineers ask for 10 below first.
  return { from: middle - half, to: middle + half, y: drawn.some((d) => d.unit === 'dB') ? -10 : (least + most) / 2 };
}
