import type { Manifold, Mesh } from 'manifold-3d';
import type { ConductorChoice } from '../entries/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { type Affine, apply, frameOf } from '../numerics/affine.ts';
import { cross, dot, minus, unit } from '../numerics/vector.ts';
import type { Box } from './boxMesh.ts';
import type { Exact } from './exact.ts';
import type { Loops } from './flat.ts';
import type { Axis } from '../numerics/axis.ts';
import { nothing, sameNumber } from '../numerics/tolerance.ts';

/** A solid: the kernel's body for drawing and combining, the exact shape for solvers. */
export interface SolidPart {
  readonly manifold: Manifold;
  exact: Exact | null;
  /** Its mesh, where it is known without the kernel's body. */
  readonly drawn?: DrawnMesh;
  /** A box that stands as it was made, whose surface has a closed form. */
  readonly box?: Box;
}
/** What is read of the kernel's meshes: corners, triangles, and the face of a made mesh that each came from. */
export type DrawnMesh = Pick<Mesh, 'numProp' | 'vertProperties' | 'triVerts' | 'runOriginalID' | 'runIndex' | 'faceID'>;
/** A flat sheet: outlines in the xy plane of `frame`. */
export interface SheetPart {
  frame: Affine;
  loops: Loops;
}
export interface CurvePart {
  points: Point3[];
  closed: boolean;
  marks: number[];
}

/** A round wire along an axis; a coat is a dielectric up to a radius. */
export interface WireAxis {
  radius: number;
  points: Point3[];
  closed: boolean;
  coat?: { radius: number; permittivity: number };
}

/** What one line of the ledger has become. */
export interface Item {
  /** Unlike for any two items of different content. */
  id: number;
  line: string;
  /** Name of its material, null for what has none. */
  material: string | null;
  /** How its metal conducts, where a line says so. */
  conductor: ConductorChoice | null;
  solid?: SolidPart;
  sheet?: SheetPart;
  curve?: CurvePart;
  frame?: Affine;
  /** Separate bodies of one line. */
  members?: Item[];
  /** Meshes made for it, in the register of origins. */
  meshes?: number[];
  /** Its axis, where it is a round wire. */
  wire?: WireAxis;
}

/** What an item is, for messages and for references that accept only some kinds. */
export const kindOf = (item: Item): 'solid' | 'sheet' | 'curve' | 'frame' | 'group' =>
  item.solid ? 'solid' : item.sheet ? 'sheet' : item.curve ? 'curve' : item.frame ? 'frame' : 'group';

/** Frame of a sheet across an axis: x, y along the plane's axes, z along the normal. */
export function axisFrame(normal: Axis, offset: number): Affine {
  const n = unit(normal);
  return frameOf(unit((normal + 1) % 3), unit((normal + 2) % 3), n, n.map((x) => x * offset) as Point3);
}

/** A frame with its origin at a point and z along a unit direction; its x lies level, or along x where z is upright. */
export function frameAlong(origin: Point3, z: Point3): Affine {
  const level = cross([0, 0, 1], z);
  const l = Math.hypot(...level);
  const x: Point3 = l < sameNumber ? [1, 0, 0] : (level.map((c) => c / l) as Point3);
  return frameOf(x, cross(z, x), z, origin);
}

const column = (m: Affine, c: number): Point3 => [m[c], m[4 + c], m[8 + c]];
/** Normal of a frame's xy plane. */
export const normalOf = (m: Affine): Point3 => column(m, 2);
/** Origin of a frame, metres. */
export const originOf = (m: Affine): Point3 => column(m, 3);

/** The axis a frame's normal lies along, or null if it is tilted. */
export function alignedAxis(frame: Affine): Axis | null {
  const n = normalOf(frame);
  const axis = n.findIndex((c) => Math.abs(Math.abs(c) - 1) < nothing);
  return axis < 0 ? null : (axis as Axis);
}

/** Outlines of one frame as seen in another of the same plane, or null if the planes differ by more than `tolerance`, metres or radians. */
export function inPlaneOf(target: Affine, inverse: Affine, { frame, loops }: SheetPart, tolerance: number): Loops | null {
  const n = normalOf(target);
  if (Math.abs(Math.abs(dot(n, normalOf(frame))) - 1) > sameNumber) return null;
  if (Math.abs(dot(n, minus(originOf(frame), originOf(target)))) > tolerance) return null;
  return loops.map((l) => l.map((p) => apply(inverse, apply(frame, [p[0], p[1], 0])).slice(0, 2) as [number, number]));
}

/** Points of a sheet's outline, which expressions can name; null for one of many points or with holes. */
export function sheetCorners(item: Item): Point3[] | null {
  if (!item.sheet || item.sheet.loops.length !== 1 || item.sheet.loops[0].length > 64) return null;
  const { frame, loops } = item.sheet;
  return loops[0].map((p) => apply(frame, [p[0], p[1], 0]));
}
