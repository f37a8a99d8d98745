import { z } from 'zod';
import { nameText, parameterName } from '../entries/index.ts';
import { accuracies } from '../methods/index.ts';
import { studyCardSchema } from './cards.ts';
import { moveSchema } from './moves.ts';
import { goalSchema } from './search.ts';

/** How the values of several parameters come together to points. */
export const gatherings = {
  all: 'every combination of their values',
  beside: 'their first values together, then their second, ...',
  sobol: 'points spread evenly over all of them',
  latin: 'points spread at random, each parameter evenly',
} as const;
export type Gathering = keyof typeof gatherings;
/** Whether points are spread over what the parameters may be. */
export const isSpread = (together: Gathering): boolean => together === 'sobol' || together === 'latin';

/** Parameters whose deviations go together. */
const linkSchema = z.strictObject({
  a: parameterName.min(1),
  b: parameterName.min(1),
  by: z.number().gt(-1).lt(1).describe('Their correlation'),
});

/** A planned set of points, each an ordinary run of the project with some parameters at values of their own. */
export const studySchema = z.strictObject({
  name: nameText,
  note: z.string().max(500).optional(),
  moves: z.array(moveSchema).min(1).max(20),
  together: z
    .enum(Object.keys(gatherings) as [Gathering, ...Gathering[]])
    .default('all')
    .describe(
      'all: every combination of the values, the last parameter fastest; beside: the first values together, then the second, ...; sobol, latin: `points` of them, spread evenly (Sobol sequence) or at random (Latin hypercube)',
    ),
  points: z.number().int().min(2).max(10_000).optional().describe('How many points are spread; absent: 16'),
  accuracy: z.enum(accuracies).optional().describe('Absent: that of the project'),
  checks: z
    .number()
    .int()
    .min(0)
    .max(1000)
    .optional()
    .describe('Points besides, as what varies may come, by which a model through the others is checked; absent: none'),
  links: z.array(linkSchema).max(40).optional().describe('Parameters that vary together'),
  goals: z.array(goalSchema).max(20).optional().describe('What measures should be in all that may come: their yield is told'),
  cards: z.array(studyCardSchema).max(40).optional().describe('What is shown of it; absent: what suits what moves'),
});
export type Study = z.infer<typeof studySchema>;

/** Points that are spread where a study says nothing. */
export const pointsSpread = 16;
/** Most points of a study. */
export const mostPoints = 10_000;
