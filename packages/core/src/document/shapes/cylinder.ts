import { z } from 'zod';
import { axis, expression, vector3, vectorChips } from '../chips.ts';
import { lineBase, type Point3, type Shape } from './shape.ts';

export const cylinderSchema = z.strictObject({
  kind: z.literal('cylinder'),
  ...lineBase,
  axis,
  radius: expression,
  height: expression.describe('Length along the axis'),
  at: vector3.describe('Middle of the end face with the lowest coordinate'),
});
export type CylinderLine = z.infer<typeof cylinderSchema>;

export const cylinder: Shape<CylinderLine> = {
  kind: 'cylinder',
  title: 'Cylinder',
  about: 'A solid round rod along an axis',
  schema: cylinderSchema,
  chips: () => [
    { path: 'radius', label: 'radius', quantity: 'length', positive: true },
    { path: 'height', label: 'length', quantity: 'length', positive: true },
    ...vectorChips('at', 'position', 3),
  ],
  sentence: () => [
    'Cylinder',
    { name: true },
    {
      choice: 'axis',
      label: 'axis',
      options: [
        { value: 'x', label: 'along x' },
        { value: 'y', label: 'along y' },
        { value: 'z', label: 'along z' },
      ],
    },
    '· radius',
    { chip: 'radius' },
    '· length',
    { chip: 'height' },
    '·',
    { material: true },
    '· starting at',
    { chip: 'at.0' },
    { chip: 'at.1' },
    { chip: 'at.2' },
  ],
  recipe: (line, v) => ({
    form: 'cylinder',
    axis: ['x', 'y', 'z'].indexOf(line.axis) as 0 | 1 | 2,
    base: [v['at.0'], v['at.1'], v['at.2']] as Point3,
    height: v.height,
    radius: v.radius,
  }),
  fresh: (name) => ({
    kind: 'cylinder',
    name,
    material: 'Copper',
    axis: 'z',
    radius: '1 mm',
    height: '10 mm',
    at: ['0 mm', '0 mm', '0 mm'],
  }),
};
