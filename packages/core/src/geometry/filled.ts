import type { Body } from './body.ts';
import type { Point3 } from '../shapes/index.ts';

/** Bodies in a region of space, which goes on beyond its walls as it ends there: what is laid on a grid. Metres. */
export interface Filled {
  bodies: readonly Body[];
  min: Readonly<Point3>;
  max: Readonly<Point3>;
}

/** The same over a band, Hz. */
export interface FilledOverBand extends Filled {
  band: { from: number; to: number };
}
