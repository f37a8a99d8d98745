import { Dialog, DialogContent } from '@mui/material';
import { useState } from 'react';
import type { Command } from './commands.ts';

/** Finds a command by typing. */
export function Palette({ open, commands, onClose }: { open: boolean; commands: Command[]; onClose(): void }) {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const words = text.toLowerCase().split(/\s+/);
  const shown = commands.filter((c) => words.every((w) => c.title.toLowerCase().includes(w)));
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
