import { currentDocument, type Project, projectSchema } from '@jadebell/core/document';

/** A document as it was stored, maybe by an older version: what it leaves unsaid is filled in. One that is no longer allowed is given as it is. */
export function storedDocument(text: string): Project {
  const data = currentDocument(JSON.parse(text)) as Project;
  return projectSchema.safeParse(data).data ?? data;
}
