import { z } from 'zod';
import { axis, type Chip, expression, nameText, type SentencePart, vector3, vectorChips } from '../chips.ts';

const portBase = {
  name: nameText,
  resistance: expression.describe('Source resistance and reference impedance'),
  note: z.string().max(2000).optional(),
};

/** A lumped port across the gap between two bodies: it follows them when their dimensions change. */
export const gapPortSchema = z.strictObject({
  kind: z.literal('gap'),
  ...portBase,
  between: z.tuple([nameText, nameText]).describe('Names of the two lines whose bodies face each other; voltage counts from the first to the second'),
});

/** A lumped port along a straight path between two points, of a given width. */
export const pathPortSchema = z.strictObject({
  kind: z.literal('path'),
  ...portBase,
  from: vector3,
  to: vector3,
  width: expression.describe('Extent across the path; 0 mm for a single filament'),
  across: axis.describe('Axis along which the width lies'),
});

export const portSchema = z.discriminatedUnion('kind', [gapPortSchema, pathPortSchema]);
export type Port = z.infer<typeof portSchema>;

const resistance: Chip = { path: 'resistance', label: 'resistance', quantity: 'resistance', positive: true };

/** The chips of a port. */
export const portChips = (port: Port): Chip[] =>
  port.kind === 'gap'
    ? [resistance]
    : [...vectorChips('from', 'from', 3), ...vectorChips('to', 'to', 3), { path: 'width', label: 'width', quantity: 'length' }, resistance];

/** The sentence of a port in the ledger. */
export const portSentence = (port: Port): SentencePart[] =>
  port.kind === 'gap'
    ? [
        'Lumped port',
        { name: true },
        '· across the gap from',
        { body: 'between.0', label: 'first body' },
        'to',
        { body: 'between.1', label: 'second body' },
        '·',
        { chip: 'resistance' },
      ]
    : [
        'Lumped port',
        { name: true },
        '· from',
        { chip: 'from.0' },
        { chip: 'from.1' },
        { chip: 'from.2' },
        'to',
        { chip: 'to.0' },
        { chip: 'to.1' },
        { chip: 'to.2' },
        '· width',
        { chip: 'width' },
        {
          choice: 'across',
          label: 'width axis',
          options: [
            { value: 'x', label: 'along x' },
            { value: 'y', label: 'along y' },
            { value: 'z', label: 'along z' },
          ],
        },
        '·',
        { chip: 'resistance' },
      ];
