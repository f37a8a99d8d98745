// Cards of boards: one definition a kind, from its words and schema to a new one for a run. A new kind is a definition and a line here, and its component in
// the interface, which the compiler asks for.
import { z } from 'zod';
import type { ResultMeta } from '../results/index.ts';
import type { CardKind } from './card.ts';
import { curves, smith } from './curves.ts';
import { along, field, recorder, volume } from './fields.ts';
import { cut, figures, pattern, phaseCentre } from './patterns.ts';
import { evidence, modes, note, table, waves } from './tables.ts';
import { wires } from './wires.ts';

export { type CardPlace, type Pin, pinSchema, placeSchema } from './card.ts';
export { type CardTrace, type CurveForm, forms, type CurvesCard, type Marker, type SmithCard } from './curves.ts';
export * from './fields.ts';
export * from './patterns.ts';
export { firstTerms, termsOfS } from './terms.ts';
export type { NoteCard, TableCard } from './tables.ts';
export type { WiresCard } from './wires.ts';

/** Every kind of card, in the order in which the interface offers them. */
const all = [curves, smith, pattern, cut, figures, phaseCentre, field, volume, along, recorder, wires, modes, waves, table, evidence, note] as const;
type Schemas = (typeof all)[number]['schema'];

/** A card of a board: what it shows of the runs that the lens chooses. */
export type BoardCard = z.infer<Schemas>;
/** A card as it is written: what has a default may be absent. */
export type WrittenCard = z.input<Schemas>;
export type CardOf<K extends BoardCard['kind']> = Extract<BoardCard, { kind: K }>;
/** A card before it has its place. */
export type NewCard = {
  [K in WrittenCard['kind']]: Omit<Extract<WrittenCard, { kind: K }>, 'id' | 'place'> & { w?: number; h?: number };
}[WrittenCard['kind']];

export const cardSchema = z.discriminatedUnion('kind', all.map((c) => c.schema) as never) as unknown as z.ZodType<BoardCard, WrittenCard>;

/** A kind as those see it that treat all alike. */
export type AnyCardKind = Omit<CardKind<BoardCard['kind'], z.ZodRawShape>, 'fresh' | 'schema'> & {
  schema: z.ZodType<BoardCard, WrittenCard>;
  fresh(meta: ResultMeta): object | null;
};
export const cardKinds = all as unknown as readonly AnyCardKind[];
const byKind = new Map(cardKinds.map((c) => [c.kind, c]));
/** The kind of a card. */
export const cardKind = ({ kind }: Pick<BoardCard, 'kind'>): AnyCardKind => byKind.get(kind)!;

/** A new card of a kind for a run; null where it has nothing to show. */
export function freshCard({ kind, fresh }: AnyCardKind, meta: ResultMeta): NewCard | null {
  const own = fresh(meta);
  return own && ({ kind, ...own } as NewCard);
}

export const boardSchema = z.strictObject({
  name: z.string().min(1).max(60),
  cards: z.array(cardSchema).max(60),
});
export type Board = z.infer<typeof boardSchema>;

/** A card with the defaults of its kind filled in. */
export const cardWith = (card: WrittenCard): BoardCard => cardSchema.parse(card);

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
