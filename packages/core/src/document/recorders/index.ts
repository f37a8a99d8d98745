import { z } from 'zod';
import { axis, type Chip, expression, nameText, type SentencePart, vector2, vector3, vectorChips } from '../chips.ts';

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
/** Power through a rectangle. */
export const fluxSchema = z.strictObject({
  kind: z.literal('flux'),
  name: nameText,
  normal: axis.describe('Axis the rectangle stands across'),
  towards: z.enum(['up', 'down']).describe('up: power counts that flows towards larger coordinates'),
  at: expression.describe('Coordinate of the rectangle on that axis'),
  from: vector2.describe('One corner, in the two other axes in the order x, y, z'),
  to: vector2.describe('The opposite corner'),
});
/** Current through a rectangle, by H around it. */
export const currentSchema = fluxSchema.extend({
  kind: z.literal('current'),
  towards: z.enum(['up', 'down']).describe('up: current counts that flows towards larger coordinates'),
});
/** The electric field along a line. */
export const fieldLineSchema = z.strictObject({
  kind: z.literal('field-line'),
  name: nameText,
  along: axis.describe('Axis the line runs along'),
  at: vector2.describe('Its place in the two other axes, in the order x, y, z'),
  from: expression.describe('Where it begins on its axis'),
  to: expression.describe('Where it ends'),
});
/** The electric field at a point over time. */
export const signalSchema = z.strictObject({
  kind: z.literal('signal'),
  name: nameText,
  at: vector3.describe('The point; the grid node nearest to it is taken'),
});
export const recorderSchema = z.discriminatedUnion('kind', [
  farFieldSchema,
  fieldPlaneSchema,
  fieldLineSchema,
  fluxSchema,
  currentSchema,
  signalSchema,
]);
export type Recorder = z.infer<typeof recorderSchema>;

/** Whether a recorder keeps fields at the recorded frequencies. */
export const needsFrequency = (r: { kind: Recorder['kind'] }): boolean => r.kind !== 'signal';

const normals = (['x', 'y', 'z'] as const).map((value) => ({ value, label: `${value} =` }));

/** What a kind of recorder is to the ledger. */
interface RecorderKind<R> {
  chips(recorder: R): Chip[];
  sentence(recorder: R): SentencePart[];
}
/** Chips and sentence of what is taken through a rectangle. */
const throughRectangle = (
  what: string,
): RecorderKind<Extract<Recorder, { kind: 'flux' }>> & RecorderKind<Extract<Recorder, { kind: 'current' }>> => ({
  chips: (r: Extract<Recorder, { kind: 'flux' | 'current' }>) => {
    const names = 'xyz'.replace(r.normal, '');
    return [{ path: 'at', label: 'position', quantity: 'length' }, ...vectorChips('from', 'from', 2, names), ...vectorChips('to', 'to', 2, names)];
  },
  sentence: () => [
    `${what} through the rectangle`,
    { name: true },
    { choice: 'normal', label: 'normal', options: normals },
    { chip: 'at' },
    '· from',
    { chip: 'from.0' },
    { chip: 'from.1' },
    'to',
    { chip: 'to.0' },
    { chip: 'to.1' },
    '· counted',
    {
      choice: 'towards',
      label: 'direction',
      options: [
        { value: 'up', label: 'upwards' },
        { value: 'down', label: 'downwards' },
      ],
    },
  ],
});

const kinds: { [K in Recorder['kind']]: RecorderKind<Extract<Recorder, { kind: K }>> } = {
  'far-field': {
    chips: () => [{ path: 'step', label: 'angular step', quantity: 'angle', positive: true }],
    sentence: () => ['Far field', { name: true }, '· every', { chip: 'step' }],
  },
  'field-plane': {
    chips: () => [{ path: 'at', label: 'position', quantity: 'length' }],
    sentence: () => ['Field on the plane', { name: true }, { choice: 'normal', label: 'normal', options: normals }, { chip: 'at' }],
  },
  flux: throughRectangle('Power'),
  current: throughRectangle('Current'),
  'field-line': {
    chips: (r) => [
      ...vectorChips('at', 'position', 2, 'xyz'.replace(r.along, '')),
      { path: 'from', label: 'from', quantity: 'length' },
      { path: 'to', label: 'to', quantity: 'length' },
    ],
    sentence: () => [
      'Field on the line',
      { name: true },
      { choice: 'along', label: 'direction', options: (['x', 'y', 'z'] as const).map((value) => ({ value, label: `along ${value}` })) },
      'at',
      { chip: 'at.0' },
      { chip: 'at.1' },
      '· from',
      { chip: 'from' },
      'to',
      { chip: 'to' },
    ],
  },
  signal: {
    chips: () => vectorChips('at', 'at', 3),
    sentence: () => ['E over time at the point', { name: true }, '·', { chip: 'at.0' }, { chip: 'at.1' }, { chip: 'at.2' }],
  },
};

/** The chips of a recorder. */
export const recorderChips = (recorder: Recorder): Chip[] => (kinds[recorder.kind] as RecorderKind<Recorder>).chips(recorder);

/** The sentence of a recorder in the ledger. */
export const recorderSentence = (recorder: Recorder): SentencePart[] => (kinds[recorder.kind] as RecorderKind<Recorder>).sentence(recorder);
