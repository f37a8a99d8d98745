import { z } from 'zod';
import { cardBase } from './common.ts';

/** Currents in wires: on the model, or along them. */
export const wiresCardSchema = z.strictObject({
  ...cardBase,
  kind: z.literal('wires'),
  view: z.enum(['model', 'along']).default('model'),
  form: z.enum(['peak', 'instant', 'phase']).default('peak').describe('size, at the phase of the lens, or the phase itself'),
  db: z.boolean().default(false),
  span: z.number().min(1).max(200).default(40).describe('dB'),
  of: z.array(z.string().max(80)).max(64).default([]).describe('Wires that are told along their length; none: the first few'),
});
export type WiresCard = z.infer<typeof wiresCardSchema>;
