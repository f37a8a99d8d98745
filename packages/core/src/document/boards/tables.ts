import { z } from 'zod';
import { cardBase } from './common.ts';

export const evidenceCardSchema = z.strictObject({ ...cardBase, kind: z.literal('evidence') });
export const modesCardSchema = z.strictObject({ ...cardBase, kind: z.literal('modes') });
export const wavesCardSchema = z.strictObject({ ...cardBase, kind: z.literal('waves') });
/** Solution data per frequency. */
export const tableCardSchema = z.strictObject({
  ...cardBase,
  kind: z.literal('table'),
  what: z.enum(['s', 'modes', 'figures', 'runs']).default('s'),
});
export type TableCard = z.infer<typeof tableCardSchema>;
export const noteCardSchema = z.strictObject({ ...cardBase, kind: z.literal('note'), text: z.string().max(5000).default('') });
export type NoteCard = z.infer<typeof noteCardSchema>;
