import type { Project } from '@jadebell/core/document';
import { useState } from 'react';

/** What of a project no model depends on. */
const aside: ReadonlySet<string> = new Set<keyof Project>(['boards', 'data', 'lens', 'title', 'note']);

/** Whether two projects make the same model: all that matters to it is one and the same. */
export const sameModel = (a: Project, b: Project): boolean => {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  for (const k of keys) if (!aside.has(k) && a[k as keyof Project] !== b[k as keyof Project]) return false;
  return true;
};

/** The project as it last differed in what makes its model: work on boards does not have it evaluated anew. */
export function useModelPart(document: Project | null): Project | null {
  const [last, setLast] = useState(document);
  const next = last && document && sameModel(last, document) ? last : document;
  if (next !== last) setLast(next);
  return next;
}
