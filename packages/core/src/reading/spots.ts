import { crossings, type Curve, extrema, nearest, type Spot } from '../curves/index.ts';
import type { Marker } from '../document/index.ts';

/** Where a marker stands on a curve now: it snaps to samples, or follows a peak, a dip, a level. Null where the curve has no such place. */
export function spotOf(marker: Marker, curve: Curve, view: { from?: number; to?: number } = {}): Spot | null {
  const n = marker.nth - 1;
  switch (marker.kind) {
    case 'at':
      return marker.x === undefined ? null : nearest(curve, marker.x);
    case 'peak':
      return extrema(curve, 1, view.from, view.to)[n] ?? null;
    case 'dip':
      return extrema(curve, -1, view.from, view.to)[n] ?? null;
    case 'level':
      return crossings(curve, marker.level ?? 0).filter((c) => c.x >= (view.from ?? -Infinity) && c.x <= (view.to ?? Infinity))[n] ?? null;
  }
}
