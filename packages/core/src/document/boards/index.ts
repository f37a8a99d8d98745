import { z } from 'zod';
import { curvesCardSchema, smithCardSchema } from './curves.ts';
import { alongCardSchema, fieldCardSchema, recorderCardSchema, volumeCardSchema } from './fields.ts';
import { cutCardSchema, figuresCardSchema, patternCardSchema, phaseCentreCardSchema } from './patterns.ts';
import { wiresCardSchema } from './wires.ts';
import { evidenceCardSchema, modesCardSchema, noteCardSchema, tableCardSchema, wavesCardSchema } from './tables.ts';

export * from './common.ts';
export * from './curves.ts';
export * from './fields.ts';
export * from './patterns.ts';
export * from './tables.ts';
export * from './wires.ts';

export const cardSchema = z.discriminatedUnion('kind', [
  curvesCardSchema,
  smithCardSchema,
  patternCardSchema,
  cutCardSchema,
  phaseCentreCardSchema,
  figuresCardSchema,
  fieldCardSchema,
  volumeCardSchema,
  alongCardSchema,
  recorderCardSchema,
  wiresCardSchema,
  modesCardSchema,
  wavesCardSchema,
  tableCardSchema,
  evidenceCardSchema,
  noteCardSchema,
]);
/** A card of a board: what it shows of the runs that the lens chooses. */
export type BoardCard = z.infer<typeof cardSchema>;
export type CardOf<K extends BoardCard['kind']> = Extract<BoardCard, { kind: K }>;

export const boardSchema = z.strictObject({
  name: z.string().min(1).max(60),
  cards: z.array(cardSchema).max(60),
});
export type Board = z.infer<typeof boardSchema>;

/** A card with the defaults of its kind filled in. */
export const cardWith = (card: z.input<typeof cardSchema>): BoardCard => cardSchema.parse(card);

/** Measured or otherwise known curves that were brought in. */
export const dataSchema = z.strictObject({
  name: z.string().min(1).max(80),
  source: z.string().max(200).describe('File it came from'),
  over: z.enum(['frequency', 'number']).describe('What the first column measures: hertz, or something else'),
  columns: z
    .array(z.strictObject({ name: z.string().max(80), complex: z.boolean() }))
    .min(1)
    .max(400),
  reference: z.number().positive().optional().describe('Of S-parameters, ohms'),
  data: z
    .string()
    .max(12_000_000)
    .describe('Base64 of deflated little-endian float64: x, then the columns one after the other, complex ones as real and imaginary parts'),
});
export type DataSet = z.infer<typeof dataSchema>;
