import { currentDocument, type Project, projectSchema } from '@jadebell/core/document';
import type { z } from 'zod';

/** What a JSON column holds; what is damaged is taken as `otherwise`. */
export function storedJson<T>(schema: z.ZodType<T>, text: string | null, otherwise: T): T {
  if (text === null) return otherwise;
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    return otherwise;
  }
}

/** A document as it was stored, maybe by an older version: what it leaves unsaid is filled in. One that is no longer allowed is given as it is. */
export function storedDocument(text: string): Project {
  const data = currentDocument(JSON.parse(text)) as Project;
  return projectSchema.safeParse(data).data ?? data;
}
