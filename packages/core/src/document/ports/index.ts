import { z } from 'zod';
import {
  axis,
  type Chip,
  chosenLine,
  expression,
  faceText,
  lineName,
  nameText,
  type SentencePart,
  vector2,
  vector3,
  vectorChips,
} from '../../entries/index.ts';

const portBase = {
  name: nameText,
  resistance: expression.describe('Source resistance and reference impedance'),
  reactance: expression.optional().describe('Imaginary part of the reference impedance; absent: 0'),
  gap: z
    .enum(['kept', 'out'])
    .optional()
    .describe('out: what its gap adds to what it feeds is computed by reference runs, so that Read can take it out'),
  note: z.string().max(2000).optional(),
};

/** A lumped port across the gap between two bodies: it follows them when their dimensions change. */
export const gapPortSchema = z.strictObject({
  kind: z.literal('gap'),
  ...portBase,
  between: z.tuple([lineName, lineName]).describe('Names of the two lines whose bodies face each other; voltage counts from the first to the second'),
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

const guideBase = {
  name: nameText,
  note: z.string().max(2000).optional(),
  modes: expression.describe('How many modes of the cross-section it sends and takes, those of lowest cutoff first'),
  shift: expression.describe('Distance by which the reference plane lies inside the structure'),
  path: z
    .array(vector2)
    .max(2)
    .optional()
    .describe(
      'Two points of its plane, in the two other axes in the order x, y, z: the voltage of each mode from the first to the second is positive',
    ),
};

/** A guided port on a flat face of a body: the wave goes from the face into the body. */
export const facePortSchema = z.strictObject({ kind: z.literal('guide-face'), ...guideBase, face: faceText });

/** A guided port on a rectangle of a plane. */
export const planePortSchema = z.strictObject({
  kind: z.literal('guide-plane'),
  ...guideBase,
  normal: axis.describe('Axis along which the guide runs'),
  into: z.enum(['up', 'down']).describe('up: the wave goes towards larger coordinates'),
  at: expression.describe('Coordinate of the plane'),
  from: vector2.describe('One corner, in the two other axes in the order x, y, z'),
  to: vector2.describe('The opposite corner'),
});

const elementBase = {
  name: nameText,
  note: z.string().max(2000).optional(),
  form: z.enum(['series', 'parallel']).describe('How its parts are joined'),
  r: expression.describe('Resistance; 0 leaves it out'),
  l: expression.describe('Inductance; 0 leaves it out'),
  c: expression.describe('Capacitance; 0 leaves it out'),
};

/** A lumped element without a port, across the gap between two bodies. */
export const gapElementSchema = z.strictObject({ kind: z.literal('element-gap'), ...elementBase, between: gapPortSchema.shape.between });

/** A lumped element without a port, along a straight path. */
export const pathElementSchema = z.strictObject({
  kind: z.literal('element-path'),
  ...elementBase,
  from: vector3,
  to: vector3,
  width: pathPortSchema.shape.width,
  across: pathPortSchema.shape.across,
});

/** A plane wave that lights the whole structure. */
export const wavePortSchema = z.strictObject({
  kind: z.literal('plane-wave'),
  name: nameText,
  note: z.string().max(2000).optional(),
  theta: expression.describe('Angle from +z of the direction that it comes from'),
  phi: expression.describe('Angle from +x of that direction'),
  tilt: expression.describe('Angle of the main axis of E from the direction of growing theta towards that of growing phi'),
  minor: expression.describe('Minor over main axis of the ellipse of E: 0 linear, 1 right-hand circular, -1 left-hand circular (IEEE)'),
  strength: expression.optional().describe('V/m, peak, by which voltages and currents that it induces are told; absent: 1'),
  toTheta: expression.optional().describe('With count above 1: theta of the last direction of a sweep; absent: 90 deg'),
  toPhi: expression.optional().describe('Phi of the last direction of a sweep; absent: 0 deg'),
  count: expression.optional().describe('Directions of a sweep, the first being theta and phi; absent: 1'),
});

const onWire = {
  wire: chosenLine.describe('Name of the body that is a wire'),
  at: expression.describe('Place along the wire: 0 its start, 0.5 its middle, 1 its end'),
};

/** A port in a gap of no length in a wire; voltage and current count along the wire. */
export const wirePortSchema = z.strictObject({
  kind: z.literal('wire-port'),
  name: nameText,
  resistance: portBase.resistance,
  reactance: portBase.reactance,
  note: portBase.note,
  ...onWire,
});

/** A load in a wire: R, L, C, or an impedance over frequency. */
export const wireElementSchema = z.strictObject({
  kind: z.literal('element-wire'),
  ...elementBase,
  ...onWire,
  table: z
    .array(z.tuple([expression, expression, expression]))
    .max(1000)
    .optional()
    .describe('Frequency, resistance and reactance, rising; takes the place of R, L and C'),
});

/** A transmission line without loss between two places on wires. */
export const wireLineSchema = z.strictObject({
  kind: z.literal('element-line'),
  name: nameText,
  note: portBase.note,
  wires: z.tuple([onWire.wire, onWire.wire]).describe('The wires at its two ends'),
  at: z.tuple([expression, expression]).describe('Place along each, 0 to 1'),
  impedance: expression,
  length: expression.describe('Electrical length, as in vacuum'),
});

export const portSchema = z.discriminatedUnion('kind', [
  gapPortSchema,
  pathPortSchema,
  facePortSchema,
  planePortSchema,
  wavePortSchema,
  gapElementSchema,
  pathElementSchema,
  wirePortSchema,
  wireElementSchema,
  wireLineSchema,
]);
export type Port = z.infer<typeof portSchema>;

const resistance: Chip = { path: 'resistance', label: 'resistance', quantity: 'resistance', positive: true };

const gapChoice: SentencePart = {
  choice: 'gap',
  label: 'its gap',
  otherwise: 'kept',
  options: [
    { value: 'kept', label: 'gap kept' },
    { value: 'out', label: 'gap also taken out' },
  ],
};

const reactance: Chip = { path: 'reactance', label: 'reference reactance', quantity: 'resistance', otherwise: '0 ohm' };

const axes = (['x', 'y', 'z'] as const).map((value) => ({ value, label: `along ${value}` }));

const pathChips: Chip[] = [...vectorChips('from', 'from', 3), ...vectorChips('to', 'to', 3), { path: 'width', label: 'width', quantity: 'length' }];
const pathParts: SentencePart[] = [
  'from',
  { chip: 'from.0' },
  { chip: 'from.1' },
  { chip: 'from.2' },
  'to',
  { chip: 'to.0' },
  { chip: 'to.1' },
  { chip: 'to.2' },
  '· width',
  { chip: 'width' },
  { choice: 'across', label: 'width axis', options: axes },
  '·',
];
const gapParts: SentencePart[] = [
  'across the gap from',
  { ref: 'between.0', label: 'first body', accepts: 'metal' },
  'to',
  { ref: 'between.1', label: 'second body', accepts: 'metal' },
  '·',
];
const elementChips: Chip[] = [
  { path: 'r', label: 'resistance', quantity: 'resistance' },
  { path: 'l', label: 'inductance', quantity: 'inductance' },
  { path: 'c', label: 'capacitance', quantity: 'capacitance' },
];
const elementParts: SentencePart[] = [
  {
    choice: 'form',
    label: 'how its parts are joined',
    options: [
      { value: 'series', label: 'in series' },
      { value: 'parallel', label: 'in parallel' },
    ],
  },
  'R',
  { chip: 'r' },
  'L',
  { chip: 'l' },
  'C',
  { chip: 'c' },
];

const modes: Chip = { path: 'modes', label: 'modes', quantity: 'number', whole: [1, 12] };
const shift: Chip = { path: 'shift', label: 'reference plane shift', quantity: 'length' };
const modeSentence: SentencePart[] = [
  '·',
  { chip: 'modes' },
  'modes · reference plane',
  { chip: 'shift' },
  'inside · voltage along',
  { list: 'path', label: 'point', columns: ['first', 'second'].map((label) => ({ label: `${label} axis`, quantity: 'length' as const })), least: 0 },
];
/** Chips of the points of a voltage path. */
const pathPoints = ({ path = [] }: { path?: unknown[] }, names = ['first axis', 'second axis']): Chip[] =>
  path.flatMap((_, i) => names.map((n, k) => ({ path: `path.${i}.${k}`, label: `point ${i + 1} ${n}`, quantity: 'length' as const })));

const placeChip = (path: string, label: string): Chip => ({ path, label, quantity: 'number' });
const wirePart = (path: string, label: string): SentencePart => ({ ref: path, label, accepts: 'metal' });
const tableColumns = [
  { label: 'frequency', quantity: 'frequency' as const },
  { label: 'resistance', quantity: 'resistance' as const },
  { label: 'reactance', quantity: 'resistance' as const },
];

/** What a kind of port is to the ledger. */
interface PortKind<P> {
  chips(port: P): Chip[];
  sentence(port: P): SentencePart[];
}
const kinds: { [K in Port['kind']]: PortKind<Extract<Port, { kind: K }>> } = {
  gap: {
    chips: () => [resistance, reactance],
    sentence: () => [
      'Lumped port', { name: true }, '·', ...gapParts, { chip: 'resistance' }, '+ j', { chip: 'reactance' }, '·', gapChoice], // prettier-ignore
  },
  path: {
    chips: () => [...pathChips, resistance, reactance],
    sentence: () => ['Lumped port', { name: true }, '·', ...pathParts, { chip: 'resistance' }, '+ j', { chip: 'reactance' }, '·', gapChoice],
  },
  'element-gap': {
    chips: () => elementChips,
    sentence: () => ['Lumped element', { name: true }, '·', ...gapParts, ...elementParts],
  },
  'element-path': {
    chips: () => [...pathChips, ...elementChips],
    sentence: () => ['Lumped element', { name: true }, '·', ...pathParts, ...elementParts],
  },
  'wire-port': {
    chips: () => [placeChip('at', 'place along the wire'), resistance, reactance],
    sentence: () => [
      'Port', { name: true }, '· in the wire', wirePart('wire', 'wire'), 'at', { chip: 'at' }, 'of its length ·', { chip: 'resistance' }, '+ j', { chip: 'reactance' }], // prettier-ignore
  },
  'element-wire': {
    chips: ({ table = [] }) => [
      placeChip('at', 'place along the wire'),
      ...elementChips,
      ...table.flatMap((_, i) =>
        tableColumns.map((c, k): Chip => ({ path: `table.${i}.${k}`, label: `row ${i + 1} ${c.label}`, quantity: c.quantity })),
      ),
    ],
    sentence: () => [
      'Load', { name: true }, '· in the wire', wirePart('wire', 'wire'), 'at', { chip: 'at' }, 'of its length ·', ...elementParts, '· or by table', { list: 'table', label: 'row', columns: tableColumns, least: 0 }], // prettier-ignore
  },
  'element-line': {
    chips: () => [
      placeChip('at.0', 'place along the first wire'),
      placeChip('at.1', 'place along the second wire'),
      { path: 'impedance', label: 'impedance', quantity: 'resistance', positive: true },
      { path: 'length', label: 'electrical length', quantity: 'length', positive: true },
    ],
    sentence: () => [
      'Transmission line', { name: true }, '· from the wire', wirePart('wires.0', 'first wire'), 'at', { chip: 'at.0' }, 'to', wirePart('wires.1', 'second wire'), 'at', { chip: 'at.1' }, '·', { chip: 'impedance' }, '· electrical length', { chip: 'length' }], // prettier-ignore
  },
  'plane-wave': {
    chips: () => [
      { path: 'theta', label: 'theta', quantity: 'angle' },
      { path: 'phi', label: 'phi', quantity: 'angle' },
      { path: 'tilt', label: 'turn of E', quantity: 'angle' },
      { path: 'minor', label: 'axis ratio of E', quantity: 'number' },
      { path: 'strength', label: 'strength in V/m', quantity: 'number', otherwise: '1' },
      { path: 'count', label: 'number of directions', quantity: 'number', whole: [1, 361], otherwise: '1' },
      { path: 'toTheta', label: 'last theta', quantity: 'angle', otherwise: '90 deg' },
      { path: 'toPhi', label: 'last phi', quantity: 'angle', otherwise: '0 deg' },
    ],
    sentence: ({ count = '1' }) => [
      'Plane wave',
      { name: true },
      '· from theta',
      { chip: 'theta' },
      'phi',
      { chip: 'phi' },
      '· E turned',
      { chip: 'tilt' },
      'from theta, axis ratio',
      { chip: 'minor' },
      '·',
      { chip: 'strength' },
      'V/m ·',
      { chip: 'count' },
      ...(count.trim() === '1' ? (['direction'] as const) : ['directions to theta', { chip: 'toTheta' }, 'phi', { chip: 'toPhi' }]),
    ],
  },
  'guide-face': {
    chips: (port) => [modes, shift, ...pathPoints(port)],
    sentence: () => ['Guided port', { name: true }, '· on face', { face: 'face', label: 'face' }, ...modeSentence],
  },
  'guide-plane': {
    chips: (port) => {
      const names = 'xyz'.replace(port.normal, '');
      return [
        { path: 'at', label: 'coordinate', quantity: 'length' },
        ...vectorChips('from', 'from', 2, names),
        ...vectorChips('to', 'to', 2, names),
        modes,
        shift,
        ...pathPoints(port),
      ];
    },
    sentence: () => [
      'Guided port',
      { name: true },
      '·',
      { choice: 'normal', label: 'axis of the guide', options: axes },
      {
        choice: 'into',
        label: 'direction',
        options: [
          { value: 'up', label: 'upwards' },
          { value: 'down', label: 'downwards' },
        ],
      },
      'at',
      { chip: 'at' },
      '· from',
      { chip: 'from.0' },
      { chip: 'from.1' },
      'to',
      { chip: 'to.0' },
      { chip: 'to.1' },
      ...modeSentence,
    ],
  },
};

/** The chips of a port. */
export const portChips = (port: Port): Chip[] => (kinds[port.kind] as PortKind<Port>).chips(port);

/** The sentence of a port in the ledger. */
export const portSentence = (port: Port): SentencePart[] => (kinds[port.kind] as PortKind<Port>).sentence(port);
