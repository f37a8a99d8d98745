import type { Axis } from '../numerics/axis.ts';

export type Point2 = [number, number];
export type Point3 = [number, number, number];
/** An affine map, three rows of four: p -> A p + t. */
export type Affine = readonly number[];

/** Solids that need no other line; lengths in metres, angles in radians. */
export type SolidRecipe =
  | { form: 'box'; min: Point3; max: Point3 }
  /** A round rod from `base` along `axis`; `bore` is the inner radius of a tube, zero for a rod. */
  | { form: 'cylinder'; axis: Axis; base: Point3; height: number; radius: number; bore: number }
  /** Radii at the base and at the top; one may be zero. */
  | { form: 'cone'; axis: Axis; base: Point3; height: number; radii: [number, number] }
  | { form: 'ball'; centre: Point3; radii: Point3 }
  | { form: 'torus'; axis: Axis; centre: Point3; major: number; minor: number }
  /** Outlines (even-odd) in the plane of `normal`, raised by `height` from `offset`. */
  | { form: 'prism'; normal: Axis; offset: number; height: number; loops: Point2[][] }
  /** Skin over rings of as many points each, closed by caps. */
  | { form: 'rings'; rings: Point3[][] }
  /** A closed profile of (radius, height) turned about an axis through `at`. */
  | { form: 'revolve'; axis: Axis; at: Point3; profile: Point2[]; angle: number };

/** A flat sheet across an axis: outlines by the even-odd rule. */
export interface SheetRecipe {
  form: 'sheet';
  normal: Axis;
  offset: number;
  loops: Point2[][];
}

export interface CurveRecipe {
  form: 'curve';
  points: Point3[];
  closed: boolean;
  /** Indices of the points that the user gave; they have names of their own. */
  marks: number[];
}

/** What a line evaluates to: plain numbers, from which the geometry module builds with the lines it names as inputs. */
export type Recipe =
  | SolidRecipe
  | SheetRecipe
  | CurveRecipe
  /** Strips of a width along polylines in a plane, as in text. */
  | { form: 'strokes'; normal: Axis; offset: number; width: number; lines: Point2[][] }
  | { form: 'frame'; matrix: Affine }
  | { form: 'frame on face' }
  | { form: 'sweep'; profile: Point2[] }
  /** A round wire along its own path, or along the curve that it names; a coat is a dielectric up to a radius. */
  | { form: 'wire'; radius: number; path?: { points: Point3[]; closed: boolean }; coat?: { radius: number; permittivity: number } }
  | { form: 'trace'; normal: Axis; width: number; thickness: number; corners: 'mitred' | 'sharp' | 'round' | 'swept'; mitre: number; radius: number }
  | { form: 'join' | 'common' }
  | { form: 'cut' }
  | { form: 'split'; normal: Point3; offset: number; keep: 'above' | 'below' | 'both' }
  | { form: 'imprint'; normal: Point3; offset: number }
  /** The input at each of these places. */
  | { form: 'place'; places: Affine[]; as: 'one' | 'many' }
  | { form: 'along'; count: number; turn: boolean; as: 'one' | 'many' }
  | { form: 'thicken'; up: number; down: number }
  | { form: 'offset'; by: number; corners: 'sharp' | 'round' }
  | { form: 'extrude face'; by: number }
  | { form: 'copy face' }
  /** The nth edge between two faces of one body, from 1. */
  | { form: 'edge'; nth: number }
  | { form: 'section'; normal: Axis; offset: number }
  | { form: 'outline'; normal: Axis; offset: number }
  | { form: 'container'; below: Point3; above: Point3; hollow: boolean }
  | { form: 'import'; part: string; scale: number; at: Point3; turn: Point3; simplify: number }
  | { form: 'drawing'; part: string; normal: Axis; offset: number; scale: number; shift: Point2; thickness: number }
  | { form: 'nothing' };
export type Form = Recipe['form'];

/** Why values make no body, with the cure and the chip to mend. */
export interface Impossible {
  fault: string;
  fix: string;
  chip: string;
}

/** Normal axis and the in-plane axes of a named plane, as indices: u, w, normal. */
export const planeAxes = { xy: [0, 1, 2], yz: [1, 2, 0], zx: [2, 0, 1] } as const;
/** In-plane axes by the normal: (u, w) so that u x w = normal. */
export const inPlane = [
  [1, 2],
  [2, 0],
  [0, 1],
] as const;
