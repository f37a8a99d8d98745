import type { Point3 } from '../../document/index.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Field number of samples that stand in no array of the grid. */
export const apart = 6 as const;

/** A free part of an edge of the grid, by parts of its length; `sample` is its number among those apart, null where the array of the grid holds it. */
export interface EdgePart {
  from: number;
  to: number;
  sample: number | null;
}
/** An edge that sheets cross, or that bounds a face which they part. */
export interface SplitEdge {
  component: Axis;
  at: Point3;
  parts: EdgePart[];
}
/** A part of an edge as one of the sides of a part of a face: the derivative that it belongs to (0: along the first axis after the normal) and its sign in the curl. */
export interface Side {
  edge: SplitEdge;
  part: number;
  along: 0 | 1;
  sign: 1 | -1;
}
/** Metal that bounds a part of a face: its length, metres, lengthened where it leans, and 1 + its class. */
export interface Wall {
  length: number;
  mark: number;
}
/** A part of a face, with the number of its sample. */
export interface SplitPart {
  sample: number;
  /** Free area as a part of the face's, the area that it needs for the time step, and that with which it counts: more than it has where nobody lends. */
  area: number;
  counts: number;
  wanted: number;
  sides: Side[];
  /** Lossy solid metal that bounds it. */
  walls: Wall[];
}
/** A face of which one part is free. */
export interface CutFace {
  normal: Axis;
  at: Point3;
  part: Omit<SplitPart, 'sample'>;
}
/** A face that sheets part. */
export interface SplitFace {
  normal: Axis;
  at: Point3;
  parts: SplitPart[];
  /** Sheets between two parts: length, metres, lengthened where it leans; 1 + class, and the number of the sample that holds the jump of H. */
  joints: (Wall & { one: number; other: number; sample: number })[];
}
