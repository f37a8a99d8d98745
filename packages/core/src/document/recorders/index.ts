import { z } from 'zod';
import { axis, type Chip, expression, nameText, type SentencePart } from '../chips.ts';

export const farFieldSchema = z.strictObject({
  kind: z.literal('far-field'),
  name: nameText,
  step: expression.describe('Angular step of the pattern'),
});
export const fieldPlaneSchema = z.strictObject({
  kind: z.literal('field-plane'),
  name: nameText,
  normal: axis.describe('Axis the plane stands across'),
  at: expression.describe('Coordinate of the plane on that axis'),
});
export const recorderSchema = z.discriminatedUnion('kind', [farFieldSchema, fieldPlaneSchema]);
export type Recorder = z.infer<typeof recorderSchema>;

/** The chips of a recorder. */
export const recorderChips = (recorder: Recorder): Chip[] =>
  recorder.kind === 'far-field'
    ? [{ path: 'step', label: 'angular step', quantity: 'angle', positive: true }]
    : [{ path: 'at', label: 'position', quantity: 'length' }];

/** The sentence of a recorder in the ledger. */
export const recorderSentence = (recorder: Recorder): SentencePart[] =>
  recorder.kind === 'far-field'
    ? ['Far field', { name: true }, '· every', { chip: 'step' }]
    : [
        'Field on the plane',
        { name: true },
        {
          choice: 'normal',
          label: 'normal',
          options: [
            { value: 'x', label: 'x =' },
            { value: 'y', label: 'y =' },
            { value: 'z', label: 'z =' },
          ],
        },
        { chip: 'at' },
      ];
