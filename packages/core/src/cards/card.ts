import { z } from 'zod';
import type { ResultMeta } from '../results/index.ts';

/** Where a card stands on its board, in columns (of twelve) and rows. */
export const placeSchema = z.strictObject({
  x: z.number().int().min(0).max(11),
  y: z.number().int().min(0).max(1000),
  w: z.number().int().min(2).max(12),
  h: z.number().int().min(2).max(40),
});
export type CardPlace = z.infer<typeof placeSchema>;

/** Values of its own that a card keeps while the lens moves. */
export const pinSchema = z.strictObject({
  run: z.number().int().min(1).optional().describe('Number of the run'),
  frequency: z.number().positive().optional().describe('Hertz'),
  phase: z.number().optional().describe('Radians'),
});
export type Pin = z.infer<typeof pinSchema>;

/** What every card has. */
const cardBase = {
  id: z.string().regex(/^[a-z0-9]{1,16}$/),
  title: z.string().max(80).optional().describe('Absent: the title that goes with its kind'),
  place: placeSchema,
  pin: pinSchema.optional(),
};

/** Columns and rows that a new card takes. */
interface Size {
  w?: number;
  h?: number;
}
type Shape<K extends string, F extends z.ZodRawShape> = typeof cardBase & { kind: z.ZodLiteral<K> } & F;

/** What a kind of card says of itself. */
interface Definition<K extends string, F extends z.ZodRawShape> {
  kind: K;
  title: string;
  /** What it shows, in a few words. */
  about: string;
  fields: F;
  /** What a new one has for a run, beside defaults; null where it has nothing to show, or is made by other cards alone. */
  fresh(meta: ResultMeta): (z.input<z.ZodObject<F>> & Size & { title?: string }) | null;
}

/** A kind of card: its words, its schema, and a new one. */
export interface CardKind<K extends string, F extends z.ZodRawShape> extends Definition<K, F> {
  schema: z.ZodObject<Shape<K, F>, z.core.$strict>;
}

/** Makes a kind of card from what it says of itself. */
export const defineCard = <K extends string, F extends z.ZodRawShape>(d: Definition<K, F>): CardKind<K, F> => ({
  ...d,
  schema: z.strictObject({ ...cardBase, kind: z.literal(d.kind), ...d.fields }) as unknown as CardKind<K, F>['schema'],
});
