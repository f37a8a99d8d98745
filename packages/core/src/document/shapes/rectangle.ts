import { z } from 'zod';
import { planeChoice, planeName, vector2, vector3, vectorChips } from '../chips.ts';
import { lineBase, planeAxes, type Shape } from './shape.ts';

const anchors = [
  { value: 'centre', label: 'centred at' },
  { value: 'corner', label: 'with its lowest corner at' },
] as const;

export const rectangleSchema = z.strictObject({
  kind: z.literal('rectangle'),
  ...lineBase,
  plane: planeName,
  size: vector2.describe('Extent along the two axes of the plane, in the order of its name'),
  anchor: z.enum(['centre', 'corner']),
  at: vector3,
});
export type RectangleLine = z.infer<typeof rectangleSchema>;

export const rectangle: Shape<RectangleLine> = {
  kind: 'rectangle',
  title: 'Rectangle',
  about: 'A flat rectangular sheet of no thickness',
  schema: rectangleSchema,
  chips: (line) => [
    ...vectorChips('size', 'extent along', 2, line.plane).map((c) => ({ ...c, positive: true })),
    ...vectorChips('at', 'position', 3),
  ],
  sentence: () => [
    'Rectangle',
    { name: true },
    planeChoice,
    '·',
    { chip: 'size.0' },
    '×',
    { chip: 'size.1' },
    '·',
    { material: true },
    '·',
    { choice: 'anchor', label: 'anchor', options: anchors },
    { chip: 'at.0' },
    { chip: 'at.1' },
    { chip: 'at.2' },
  ],
  recipe(line, v) {
    const [u, w, n] = planeAxes[line.plane];
    const du = v['size.0'];
    const dw = v['size.1'];
    const back = line.anchor === 'centre' ? 0.5 : 0;
    const u0 = v[`at.${u}`] - back * du;
    const w0 = v[`at.${w}`] - back * dw;
    return {
      form: 'sheet',
      normal: n,
      offset: v[`at.${n}`],
      outline: [
        [u0, w0],
        [u0 + du, w0],
        [u0 + du, w0 + dw],
        [u0, w0 + dw],
      ],
    };
  },
  fresh: (name) => ({
    kind: 'rectangle',
    name,
    material: 'Copper',
    plane: 'xy',
    size: ['20 mm', '2 mm'],
    anchor: 'centre',
    at: ['0 mm', '0 mm', '0 mm'],
  }),
};
