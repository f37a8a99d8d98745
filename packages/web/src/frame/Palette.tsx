import { Dialog, DialogContent } from '@mui/material';
import { useState } from 'react';
import type { Command } from './commands.ts';

/** Commands that have all words of a text, those first in which each stands at the beginning of a word, and in their order. */
export function found<C extends { title: string }>(commands: readonly C[], text: string): C[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (c: C, at: (title: string, word: string) => boolean): boolean => words.every((w) => at(` ${c.title.toLowerCase()}`, w));
  const all = commands.filter((c) => has(c, (t, word) => t.includes(word)));
  const first = all.filter((c) => has(c, (t, word) => t.includes(` ${word}`)));
  return [...first, ...all.filter((c) => !first.includes(c))];
}

/** Finds a command by typing. */
export function Palette({ open, commands, onClose }: { open: boolean; commands: Command[]; onClose(): void }) {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const shown = found(commands, text);
  const close = (): void => {
    setText('');
    setAt(0);
    onClose();
  };
  const run = (c: Command | undefined): void => {
    close();
    c?.run();
  };
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="sm" aria-label="Command palette">
      <DialogContent sx={{ p: 1.5 }}>
        <input
          autoFocus
          className="chip"
          style={{ width: '100%', boxSizing: 'border-box', fontSize: 15, padding: '6px 10px', lineHeight: '24px' }}
          aria-label="Find a command"
          placeholder="Find a command"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            if (e.key === 'ArrowDown') setAt(Math.min(shown.length - 1, at + 1));
            else if (e.key === 'ArrowUp') setAt(Math.max(0, at - 1));
            else if (e.key === 'Enter') run(shown[at]);
            else return;
            e.preventDefault();
          }}
        />
        <ul className="palette-list">
          {shown.map((c, i) => (
            <li key={c.title}>
              <button type="button" aria-selected={i === at} onClick={() => run(c)} onPointerEnter={() => setAt(i)}>
                {c.title}
                {c.keys && <kbd>{c.keys}</kbd>}
              </button>
            </li>
          ))}
          {!shown.length && <li className="quiet pad">No command has these words.</li>}
        </ul>
      </DialogContent>
    </Dialog>
  );
}
