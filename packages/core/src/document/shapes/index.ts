import { z } from 'zod';
import { box, type BoxLine, boxSchema } from './box.ts';
import { cylinder, type CylinderLine, cylinderSchema } from './cylinder.ts';
import { polygon, type PolygonLine, polygonSchema } from './polygon.ts';
import { rectangle, type RectangleLine, rectangleSchema } from './rectangle.ts';
import type { Shape } from './shape.ts';

export * from './shape.ts';
export { crossingEdges, signedArea } from './polygon.ts';

export const lineSchema = z.discriminatedUnion('kind', [boxSchema, rectangleSchema, polygonSchema, cylinderSchema]);
export type Line = BoxLine | RectangleLine | PolygonLine | CylinderLine;

/** Every kind of line, in the order in which the interface offers them. */
export const shapes: readonly Shape<Line>[] = [box, rectangle, polygon, cylinder] as unknown as Shape<Line>[];

/** The shape of a line's kind. */
export function shapeOf(line: Line): Shape<Line> {
  const found = shapes.find((s) => s.kind === line.kind);
  if (!found) throw new Error(`No shape of kind ${(line as Line).kind}`);
  return found;
}
