import { z } from 'zod';
import { nameText } from '../entries/index.ts';
import { accuracies } from '../methods/index.ts';
import { moveSchema } from './moves.ts';

/** A planned set of points, each an ordinary run of the project with some parameters at values of their own. */
export const studySchema = z.strictObject({
  name: nameText,
  note: z.string().max(500).optional(),
  moves: z.array(moveSchema).min(1).max(20),
  together: z
    .enum(['all', 'beside'])
    .default('all')
    .describe('all: every combination of the values, the last parameter fastest; beside: the first values together, then the second, ...'),
  accuracy: z.enum(accuracies).optional().describe('Absent: that of the project'),
});
export type Study = z.infer<typeof studySchema>;

/** Most points of a study. */
export const mostPoints = 10_000;
