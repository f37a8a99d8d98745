import { z } from 'zod';
import {
  axis,
  type Chip,
  chosenLine,
  expression,
  lineName,
  nameText,
  type SentencePart,
  vector2,
  vector3,
  vectorChips,
} from '../../entries/index.ts';

/** Frequencies of a recorder's own, a row each. */
const frequencies = z
  .array(z.tuple([expression]))
  .max(200)
  .optional()
  .describe('Frequencies at which it records; absent: those of the project');

export const farFieldSchema = z.strictObject({
  kind: z.literal('far-field'),
  name: nameText,
  frequencies,
  step: expression.describe('Angular step of the pattern'),
});
export const fieldPlaneSchema = z.strictObject({
  kind: z.literal('field-plane'),
  name: nameText,
  frequencies,
  normal: axis.describe('Axis the plane stands across'),
  at: expression.describe('Coordinate of the plane on that axis'),
});
/** Power through a rectangle. */
export const fluxSchema = z.strictObject({
  kind: z.literal('flux'),
  name: nameText,
  frequencies,
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
  frequencies,
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
  start: expression.default('0 ns').describe('Time from which it is kept'),
  stop: expression.default('0 ns').describe('Time until which it is kept; 0 for the end of the run'),
  every: expression.default('0 ns').describe('Time between samples; 0 for as close as 4000 of them allow'),
});
/** Fields in a box, which may have no extent along some axes. */
export const fieldBoxSchema = z.strictObject({
  kind: z.literal('field-box'),
  name: nameText,
  frequencies,
  from: vector3.describe('One corner'),
  to: vector3.describe('The opposite corner; the same as the first along an axis makes a plane, a line or a point'),
  fields: z.enum(['e', 'h', 'eh']).describe('Which fields are kept'),
  components: z.enum(['all', 'x', 'y', 'z']).default('all').describe('Which of their components'),
  where: z.enum(['nodes', 'centres']).describe('Whether they are interpolated to the grid nodes or the middles of the cells'),
  every: expression.describe('Which of them is kept along each axis: 1 for each, 2 for every other'),
});
/** Waves of each mode of a cross-section, both ways. */
export const modeSchema = fluxSchema.extend({
  kind: z.literal('mode'),
  towards: z.enum(['up', 'down']).describe('up: the forward wave runs towards larger coordinates'),
  modes: expression.describe('How many modes of the cross-section, those of lowest cutoff first'),
});
/** Energy stored and power lost in a body. */
export const energySchema = z.strictObject({
  kind: z.literal('energy'),
  name: nameText,
  frequencies,
  body: lineName.describe('Name of the line whose body it is'),
});
/** Current in a wire over the band. */
export const wireProbeSchema = z.strictObject({
  kind: z.literal('wire-probe'),
  name: nameText,
  wire: chosenLine.describe('Name of the body that is a wire'),
  at: expression.describe('Place along the wire: 0 its start, 1 its end'),
});
export const recorderSchema = z.discriminatedUnion('kind', [
  farFieldSchema,
  fieldPlaneSchema,
  fieldLineSchema,
  fluxSchema,
  currentSchema,
  signalSchema,
  fieldBoxSchema,
  modeSchema,
  energySchema,
  wireProbeSchema,
]);
export type Recorder = z.infer<typeof recorderSchema>;

/** Whether a recorder keeps fields at the recorded frequencies. */
export const needsFrequency = <R extends { kind: Recorder['kind'] }>(r: R): r is Exclude<R, { kind: 'signal' | 'wire-probe' }> =>
  r.kind !== 'signal' && r.kind !== 'wire-probe';

const frequencyList: SentencePart = {
  list: 'frequencies',
  label: 'frequency',
  several: 'frequencies',
  none: 'the frequencies below',
  columns: [{ label: 'frequency', quantity: 'frequency' }],
  least: 0,
};

const normals = (['x', 'y', 'z'] as const).map((value) => ({ value, label: `${value} =` }));

/** What a kind of recorder is to the ledger. */
interface RecorderKind<R> {
  chips(recorder: R): Chip[];
  sentence(recorder: R): SentencePart[];
}
type OnRectangle = Extract<Recorder, { kind: 'flux' | 'current' | 'mode' }>;
/** Chips and sentence of what is taken on a rectangle. */
const onRectangle = (what: string, counted: string, more: { chips: Chip[]; sentence: SentencePart[] } = { chips: [], sentence: [] }) => ({
  chips: (r: OnRectangle): Chip[] => {
    const names = 'xyz'.replace(r.normal, '');
    return [
      { path: 'at', label: 'position', quantity: 'length' },
      ...vectorChips('from', 'from', 2, names),
      ...vectorChips('to', 'to', 2, names),
      ...more.chips,
    ];
  },
  sentence: (): SentencePart[] => [
    what,
    { name: true },
    { choice: 'normal', label: 'normal', options: normals },
    { chip: 'at' },
    '· from',
    { chip: 'from.0' },
    { chip: 'from.1' },
    'to',
    { chip: 'to.0' },
    { chip: 'to.1' },
    counted,
    {
      choice: 'towards',
      label: 'direction',
      options: [
        { value: 'up', label: 'upwards' },
        { value: 'down', label: 'downwards' },
      ],
    },
    ...more.sentence,
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
  flux: onRectangle('Power through the rectangle', '· counted'),
  current: onRectangle('Current through the rectangle', '· counted'),
  mode: onRectangle('Waves of the modes in the rectangle', '· forward', {
    chips: [{ path: 'modes', label: 'modes', quantity: 'number', whole: [1, 12] }],
    sentence: ['·', { chip: 'modes' }, 'modes'],
  }),
  energy: {
    chips: () => [],
    sentence: () => ['Energy and loss', { name: true }, '· in', { ref: 'body', label: 'body', accepts: 'any' }],
  },
  'field-box': {
    chips: () => [
      ...vectorChips('from', 'from', 3),
      ...vectorChips('to', 'to', 3),
      { path: 'every', label: 'every how many', quantity: 'number', whole: [1, 1000] },
    ],
    sentence: () => [
      'Fields',
      { name: true },
      {
        choice: 'fields',
        label: 'fields',
        options: [
          { value: 'e', label: 'E' },
          { value: 'h', label: 'H' },
          { value: 'eh', label: 'E and H' },
        ],
      },
      {
        choice: 'components',
        label: 'components',
        options: [
          { value: 'all', label: 'all components' },
          ...(['x', 'y', 'z'] as const).map((value) => ({ value, label: `along ${value} alone` })),
        ],
      },
      'in the box from',
      ...[0, 1, 2].map((i) => ({ chip: `from.${i}` })),
      'to',
      ...[0, 1, 2].map((i) => ({ chip: `to.${i}` })),
      '· at every',
      { chip: 'every' },
      {
        choice: 'where',
        label: 'places',
        options: [
          { value: 'nodes', label: 'nodes' },
          { value: 'centres', label: 'cell middles' },
        ],
      },
    ],
  },
  'wire-probe': {
    chips: () => [{ path: 'at', label: 'place along the wire', quantity: 'number' }],
    sentence: () => [
      'Current',
      { name: true },
      '· in the wire',
      { ref: 'wire', label: 'wire', accepts: 'metal' },
      'at',
      { chip: 'at' },
      'of its length, over the band',
    ],
  },
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
    chips: () => [
      ...vectorChips('at', 'at', 3),
      { path: 'start', label: 'start', quantity: 'time' },
      { path: 'stop', label: 'stop (0: end of the run)', quantity: 'time' },
      { path: 'every', label: 'time between samples (0: as close as 4000 allow)', quantity: 'time' },
    ],
    sentence: () => [
      'E over time at the point',
      { name: true },
      '·',
      { chip: 'at.0' },
      { chip: 'at.1' },
      { chip: 'at.2' },
      '· from',
      { chip: 'start' },
      'until',
      { chip: 'stop' },
      'every',
      { chip: 'every' },
    ],
  },
};

/** The frequencies of a recorder's own; none: those of the project. */
export const ownFrequencies = (recorder: Recorder): readonly [string][] => ('frequencies' in recorder && recorder.frequencies) || [];

/** The chips of a recorder. */
export const recorderChips = (recorder: Recorder): Chip[] => [
  ...(kinds[recorder.kind] as RecorderKind<Recorder>).chips(recorder),
  ...ownFrequencies(recorder).map((_, i): Chip => ({
    path: `frequencies.${i}.0`,
    label: `frequency ${i + 1}`,
    quantity: 'frequency',
    positive: true,
  })),
];

/** The sentence of a recorder in the ledger. */
export const recorderSentence = (recorder: Recorder): SentencePart[] => [
  ...(kinds[recorder.kind] as RecorderKind<Recorder>).sentence(recorder),
  ...(needsFrequency(recorder) ? ['· at', frequencyList] : []),
];
