import { z } from 'zod';

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
export const cardBase = {
  id: z.string().regex(/^[a-z0-9]{1,16}$/),
  title: z.string().max(80).optional().describe('Absent: the title that goes with its kind'),
  place: placeSchema,
  pin: pinSchema.optional(),
};
