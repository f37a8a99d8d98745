import { z } from 'zod';
import { expression, nameText } from './chips.ts';

/** A named dimension or figure that expressions use. */
export const parameterSchema = z.strictObject({
  name: nameText,
  expression,
  note: z.string().max(500).optional(),
  group: z.string().max(60).optional(),
  dial: z.strictObject({ min: expression, max: expression }).optional().describe('Shown as a dial on the stage view, between these bounds'),
});
export type Parameter = z.infer<typeof parameterSchema>;
