import { currentDocument, type Project, projectSchema, solvedDigest } from '@jadebell/core/document';
import { readMeta, type ResultMeta } from '@jadebell/core/results';
import type { z } from 'zod';

/** What a JSON column of a list holds: entries that are damaged are left out, the others stand. */
export function storedList<T>(entry: z.ZodType<T>, text: string | null): T[] {
  let list: unknown;
  try {
    list = JSON.parse(text ?? '[]');
  } catch {
    return [];
  }
  return Array.isArray(list) ? list.flatMap((e) => entry.safeParse(e).data ?? []) : [];
}

/** The facts of a result that was stored, or why they cannot be read; neither where there is none. */
export function storedMeta(text: string | null): { meta: ResultMeta | null; fault: string | null } {
  if (!text) return { meta: null, fault: null };
  try {
    return { meta: readMeta(JSON.parse(text)), fault: null };
  } catch (error) {
    return { meta: null, fault: (error as Error).message };
  }
}

/** A document as it was stored, maybe by an older version: what it leaves unsaid is filled in. One that is no longer allowed is given as it is. */
export function storedDocument(text: string): Project {
  const data = currentDocument(JSON.parse(text)) as Project;
  return projectSchema.safeParse(data).data ?? data;
}

/** The digest of what a stored document's run solves; null where it cannot be read. */
export function digestOfText(text: string): string | null {
  try {
    return solvedDigest(storedDocument(text));
  } catch {
    return null;
  }
}
