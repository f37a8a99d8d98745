import { namesUsed } from '@jadebell/core/expressions/uses';
import { type MouseEvent, useCallback, useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { removeLines } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import { copyLines, cutLines, pasteLines } from './clipboard.ts';

const none: ReadonlySet<string> = new Set();
const lineNames = (): string[] => useProject.getState().document?.lines.map((l) => l.name) ?? [];

/** Lines that are chosen together, and what the keyboard does with them, or with the picked one; a table that is pasted goes to `onTable`. */
export function useChosen(onTable: (text: string) => void) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(none);
  /** Shift takes all up to a line, Ctrl one more or less. */
  const choose = useCallback((e: MouseEvent, name: string): void => {
    const { picked } = useProject.getState();
    const names = lineNames();
    setChosen((old) => {
      const next = new Set(old);
      if (e.shiftKey) {
        const from = names.indexOf(picked ?? name);
        const to = names.indexOf(name);
        for (const n of names.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(n);
        return next;
      }
      if (!next.size && picked && picked !== name && names.includes(picked)) next.add(picked);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  }, []);
  /** The chosen lines, or the picked one. */
  const targets = (): ReadonlySet<string> => {
    const { picked } = useProject.getState();
    return chosen.size ? chosen : new Set(picked && lineNames().includes(picked) ? [picked] : []);
  };
  useHotkeys('mod+c', () => void copyLines(targets(), namesUsed), [chosen]);
  useHotkeys('mod+x', () => void cutLines(targets(), namesUsed), [chosen]);
  useHotkeys('delete', () => useProject.getState().edit('remove lines', (d) => removeLines(d, targets())), [chosen]);
  useHotkeys('escape', () => setChosen(none));
  useEffect(() => {
    const take = (e: ClipboardEvent): void => {
      if (/^(input|textarea|select)$/i.test((e.target as HTMLElement).tagName)) return;
      const text = e.clipboardData?.getData('text') ?? '';
      const made = pasteLines(text);
      if (made) setChosen(new Set(made));
      else if (text.includes('\t') || text.includes('\n')) onTable(text);
    };
    window.addEventListener('paste', take);
    return () => window.removeEventListener('paste', take);
  }, [onTable]);
  return { chosen, setChosen, choose };
}
