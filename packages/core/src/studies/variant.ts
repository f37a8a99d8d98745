import { z } from 'zod';
import { expression, lineName, nameText, parameterName } from '../entries/index.ts';

/** A named set of values of parameters, and of lines that are muted. */
export const variantSchema = z.strictObject({
  name: nameText,
  note: z.string().max(500).optional(),
  values: z.array(z.strictObject({ parameter: parameterName.min(1), expression })).max(2000),
  muted: z.array(lineName).max(5000).describe('Lines that are muted; all others sound'),
});
export type Variant = z.infer<typeof variantSchema>;
