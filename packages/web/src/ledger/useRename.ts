import type { Problem, Project } from '@jadebell/core/document';
import { useState } from 'react';
import { nameFault } from '../project/edits.ts';
import { useProject } from '../project/store.ts';

type Part = 'lines' | 'ports' | 'recorders' | 'sections';

/** Renaming of entries of a part of the project, and what to show with the entry whose new name was refused. */
export function useRename(part: Part, apply: (d: Project, from: string, to: string) => Project) {
  const edit = useProject((s) => s.edit);
  const [fault, setFault] = useState<{ name: string; text: string } | null>(null);
  const rename = (from: string, to: string): void => {
    const { document } = useProject.getState();
    if (!document) return;
    const wrong = nameFault(document, part, to);
    setFault(wrong ? { name: from, text: wrong } : null);
    if (!wrong) edit('rename', (d) => apply(d, from, to));
  };
  const withFault = (name: string, own: Problem[]): Problem[] =>
    fault?.name === name ? [...own, { severity: 'error', code: 'name', place: { part }, message: fault.text, fix: 'Choose another name.' }] : own;
  return { rename, withFault };
}
