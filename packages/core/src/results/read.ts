import { z } from 'zod';
import { currentMeta, type StoredMeta } from './current.ts';
import type { ResultMeta } from './resultSet.ts';

const solved = z.array(z.looseObject({ name: z.string() }));
/** What every reader of a result counts on, of any version; kinds of recorders and solvers add their own beside it. */
export const storedMetaSchema = z.looseObject({
  format: z.literal('jadebell-result'),
  version: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  solver: z.string(),
  ports: z.array(z.looseObject({ name: z.string(), mode: z.int().optional(), modeName: z.string().optional() })),
  excitations: z.array(z.int()).optional(),
  recordAt: z.array(z.number()),
  farField: z.looseObject({ figures: z.array(z.looseObject({ frequency: z.number() })) }).nullable(),
  recorded: z.array(z.looseObject({ kind: z.string(), name: z.string() })).optional(),
  probes: solved.optional(),
  wires: solved.optional(),
  evidence: z.looseObject({}),
});

/**
 * Facts of a result from what was stored, today or by an earlier version.
 * @throws Error with a sentence that says which part does not fit.
 */
export function readMeta(data: unknown): ResultMeta {
  const { error } = storedMetaSchema.safeParse(data);
  if (!error) return currentMeta(data as StoredMeta);
  const [issue] = error.issues;
  throw new Error(`The result’s facts are damaged at ${issue.path.join('.') || 'their beginning'}: ${issue.message}.`);
}
