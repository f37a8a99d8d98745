import { z } from 'zod';
import { box } from './box.ts';
import { common, container, copyFace, crossSection, cut, extrudeFace, imprint, join, offset, outline, split, thicken } from './combine.ts';
import { arc, edgeCurve, equationCurve, helix, polyline, spline, straight } from './curves.ts';
import { cone, cylinder, tube } from './cylinder.ts';
import { disc, equation, polygon, rectangle, sector, text } from './flat.ts';
import {
  drawing,
  frame,
  frameFace,
  framePoints,
  imported,
  mirror,
  move,
  patternCurve,
  patternGrid,
  patternLine,
  patternPolar,
  patternTable,
  scale,
  section,
  turn,
} from './place.ts';
import { frustum, loft, prism, revolve, sweep, trace } from './prisms.ts';
import { ellipsoid, sphere, torus } from './round.ts';
import type { LineOfShape, Shape } from './shape.ts';
import { bentWire, cable, straightWire, wire } from './wires.ts';

/** Every kind of line, in the order in which the interface offers them. */
const all = [
  box, cylinder, tube, cone, sphere, ellipsoid, torus, frustum, prism, revolve, loft, sweep, imported,
  straightWire, bentWire, wire, cable,
  rectangle, disc, sector, polygon, equation, text, drawing,
  straight, polyline, arc, spline, helix, equationCurve, edgeCurve,
  trace, copyFace, crossSection, thicken, offset, extrudeFace, outline, container,
  join, cut, common, split, imprint,
  move, turn, scale, mirror, frame, framePoints, frameFace,
  patternLine, patternGrid, patternPolar, patternCurve, patternTable,
  section,
] as const; // prettier-ignore

export type Line = LineOfShape<(typeof all)[number]>;
export const shapes = all as unknown as readonly Shape<Line>[];

type Schemas = [z.core.$ZodTypeDiscriminable, ...z.core.$ZodTypeDiscriminable[]];
export const lineSchema = z.discriminatedUnion('kind', all.map((s) => s.schema) as unknown as Schemas) as unknown as z.ZodType<Line>;

const byKind = new Map(shapes.map((s) => [s.kind, s]));

/**
 * The shape of a line's kind.
 * @throws Error where there is no such kind.
 */
export function shapeOf(line: Line): Shape<Line> {
  const found = byKind.get(line.kind);
  if (!found) throw new Error(`No shape of kind ${line.kind}`);
  return found;
}
