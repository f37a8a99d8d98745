import { z } from 'zod';
import { vector3, vectorChips } from '../chips.ts';
import { lineBase, type Point3, type Shape } from './shape.ts';

const anchors = [
  { value: 'centre', label: 'centred at' },
  { value: 'base', label: 'standing on' },
  { value: 'corner', label: 'with its lowest corner at' },
] as const;

export const boxSchema = z.strictObject({
  kind: z.literal('box'),
  ...lineBase,
  size: vector3.describe('Extent along x, y, z'),
  anchor: z.enum(['centre', 'base', 'corner']).describe("What 'at' places: centre, middle of the lowest face, or lowest corner"),
  at: vector3,
});
export type BoxLine = z.infer<typeof boxSchema>;

export const box: Shape<BoxLine> = {
  kind: 'box',
  title: 'Box',
  about: 'A solid block with faces along the axes',
  schema: boxSchema,
  chips: () => [...vectorChips('size', 'extent along', 3).map((c) => ({ ...c, positive: true })), ...vectorChips('at', 'position', 3)],
  sentence: () => [
    'Box',
    { name: true },
    '·',
    { chip: 'size.0' },
    '×',
    { chip: 'size.1' },
    '×',
    { chip: 'size.2' },
    '·',
    { material: true },
    '·',
    { choice: 'anchor', label: 'anchor', options: anchors },
    { chip: 'at.0' },
    { chip: 'at.1' },
    { chip: 'at.2' },
  ],
  recipe(line, v) {
    const size = [v['size.0'], v['size.1'], v['size.2']];
    const at = [v['at.0'], v['at.1'], v['at.2']];
    const min = at.map((a, i) => {
      const centred = line.anchor === 'centre' || (line.anchor === 'base' && i < 2);
      return centred ? a - size[i] / 2 : a;
    }) as Point3;
    return { form: 'box', min, max: min.map((m, i) => m + size[i]) as Point3 };
  },
  fresh: (name) => ({
    kind: 'box',
    name,
    material: 'Polyimide film',
    size: ['20 mm', '10 mm', '1 mm'],
    anchor: 'centre',
    at: ['0 mm', '0 mm', '0 mm'],
  }),
};
