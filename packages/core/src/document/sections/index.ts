import { z } from 'zod';
import { axis, type Chip, expression, nameText, type SentencePart, vector2, vectorChips } from '../../entries/index.ts';

/** What bounds a section: metal, a plane of symmetry where H stands across, or edges that let waves out. */
export const sectionEdge = z.enum(['electric', 'magnetic', 'open']);
export type SectionEdge = z.infer<typeof sectionEdge>;

/** A cross-section whose modes are solved by themselves. The two axes of its plane are taken in the order x, y, z. */
export const sectionSchema = z.strictObject({
  name: nameText,
  note: z.string().max(2000).optional(),
  normal: axis.describe('Axis along which the guide runs'),
  at: expression.describe('Coordinate of the plane'),
  from: vector2.describe('One corner'),
  to: vector2.describe('The opposite corner'),
  edges: z.tuple([sectionEdge, sectionEdge, sectionEdge, sectionEdge]).describe('Low and high edge of the first axis, then of the second'),
  modes: expression.describe('How many modes are sought'),
  frequency: expression.describe('Frequency at which they are solved'),
  near: expression.describe('Effective index near which modes are sought; 0: those of the highest'),
  bend: expression.describe('Radius of a bend in the plane of `about`, at the middle of the section; positive: its centre lies towards smaller coordinates; 0: straight'), // prettier-ignore
  about: z.enum(['first', 'second']).describe('Axis along which the radius of a bend lies'),
  grid: z.enum(['automatic', 'uniform']).describe('automatic: by cells per wavelength in each material; uniform: by a cell for each axis'),
  perWavelength: expression.describe('Cells per wavelength in each material, of an automatic grid'),
  cell: vector2.describe('Cell along each axis, of a uniform grid'),
  boxes: z.array(z.tuple([expression, expression, expression, expression, expression])).max(50).describe('Boxes with their own cell: from and to along the first axis, from and to along the second, cell'), // prettier-ignore
});
export type SectionEntry = z.infer<typeof sectionSchema>;

/** Names of the two axes of a section's plane. */
export const sectionAxes = (s: Pick<SectionEntry, 'normal'>): string => 'xyz'.replace(s.normal, '');

/** The chips of a section. */
export function sectionChips(s: SectionEntry): Chip[] {
  const names = sectionAxes(s);
  const grid: Chip[] =
    s.grid === 'automatic'
      ? [{ path: 'perWavelength', label: 'cells per wavelength', quantity: 'number', positive: true }]
      : [0, 1].map((i) => ({ path: `cell.${i}`, label: `cell along ${names[i]}`, quantity: 'length', positive: true }));
  return [
    { path: 'at', label: 'coordinate', quantity: 'length' },
    ...vectorChips('from', 'from', 2, names),
    ...vectorChips('to', 'to', 2, names),
    { path: 'modes', label: 'modes', quantity: 'number', whole: [1, 20] },
    { path: 'frequency', label: 'frequency', quantity: 'frequency', positive: true },
    { path: 'near', label: 'index sought', quantity: 'number' },
    { path: 'bend', label: 'bend radius', quantity: 'length' },
    ...grid,
    ...s.boxes.flatMap((_, i) => boxColumns(names).map((c, k): Chip => ({ path: `boxes.${i}.${k}`, label: `box ${i + 1} ${c.label}`, quantity: 'length', positive: k === 4 }))), // prettier-ignore
  ];
}

const boxColumns = (names: string): { label: string; quantity: 'length' }[] =>
  [`${names[0]} from`, `${names[0]} to`, `${names[1]} from`, `${names[1]} to`, 'cell'].map((label) => ({ label, quantity: 'length' }));

const edgeOptions = [
  { value: 'electric', label: 'perfect electric' },
  { value: 'magnetic', label: 'perfect magnetic' },
  { value: 'open', label: 'absorbs (open)' },
];

/** The sentence of a section in the ledger. */
export function sectionSentence(s: SectionEntry): SentencePart[] {
  const names = sectionAxes(s);
  return [
    'Section',
    { name: true },
    '· across',
    { choice: 'normal', label: 'axis of the guide', options: ['x', 'y', 'z'].map((value) => ({ value, label: value })) },
    'at',
    { chip: 'at' },
    '·',
    names[0],
    { chip: 'from.0' },
    'to',
    { chip: 'to.0' },
    names[1],
    { chip: 'from.1' },
    'to',
    { chip: 'to.1' },
    '·',
    { chip: 'modes' },
    'modes at',
    { chip: 'frequency' },
    'near index',
    { chip: 'near' },
    '· edges',
    ...[0, 1, 2, 3].flatMap((i): SentencePart[] => [
      ...(i % 2 ? [] : [names[i >> 1]]),
      { choice: `edges.${i}`, label: `edge at ${i % 2 ? 'high' : 'low'} ${names[i >> 1]}`, options: edgeOptions },
    ]),
    '· bend radius',
    { chip: 'bend' },
    'along',
    { choice: 'about', label: 'axis of the radius', options: [{ value: 'first', label: names[0] }, { value: 'second', label: names[1] }] }, // prettier-ignore
    '· grid',
    { choice: 'grid', label: 'grid', options: [{ value: 'automatic', label: 'automatic' }, { value: 'uniform', label: 'uniform' }] }, // prettier-ignore
    ...(s.grid === 'automatic' ? [{ chip: 'perWavelength' }, 'cells per wavelength'] : [{ chip: 'cell.0' }, 'by', { chip: 'cell.1' }]),
    { list: 'boxes', label: 'finer region', columns: boxColumns(names), least: 0 },
  ];
}
