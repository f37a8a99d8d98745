import type { Problem, Project } from '@jadebell/core/document';
import { useCallback, useState } from 'react';
import { nameFault } from '../project/edits.ts';
import { useProject } from '../project/store.ts';

type Part = 'lines' | 'ports' | 'recorders' | 'sections';

/** Renaming of entries of a part of the project, and what to show with the entry whose new name was refused. */
export function useRename(part: Part, apply: (d: Project, from: string, to: string) => Project) {
  const [refused, setRefused] = useState<{ name: string; problem: Problem } | null>(null);
  const rename = useCallback(
    (from: string, to: string): void => {
      const { document, edit } = useProject.getState();
      if (!document) return;
      const wrong = nameFault(document, part, to);
      setRefused(
        wrong ? { name: from, problem: { severity: 'error', code: 'name', place: { part }, message: wrong, fix: 'Choose another name.' } } : null,
      );
      if (!wrong) edit('rename', (d) => apply(d, from, to));
    },
    [part, apply],
  );
  const refusedOf = (name: string): Problem | undefined => (refused?.name === name ? refused.problem : undefined);
  return { rename, refusedOf };
}
