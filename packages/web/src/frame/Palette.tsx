import { Autocomplete, Dialog, DialogContent, type PopperProps, TextField } from '@mui/material';
import type { ReactNode } from 'react';
import type { Command } from './commands.ts';

/** Commands that have all words of a text, those first in which each stands at the beginning of a word, and in their order. */
export function found<C extends { title: string }>(commands: readonly C[], text: string): C[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (c: C, at: (title: string, word: string) => boolean): boolean => words.every((w) => at(` ${c.title.toLowerCase()}`, w));
  const all = commands.filter((c) => has(c, (t, word) => t.includes(word)));
  const first = all.filter((c) => has(c, (t, word) => t.includes(` ${word}`)));
  return [...first, ...all.filter((c) => !first.includes(c))];
}

/** The list stands below the field, in the dialog itself. */
const InPlace = ({ children }: PopperProps) => <div>{children as ReactNode}</div>;

/** Finds a command by typing. */
export function Palette({ open, commands, onClose }: { open: boolean; commands: Command[]; onClose(): void }) {
  const run = (c: Command | null): void => {
    onClose();
    c?.run();
  };
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm" aria-label="Command palette">
      <DialogContent sx={{ p: 1.5 }}>
        <Autocomplete
          open
          autoHighlight
          clearIcon={null}
          forcePopupIcon={false}
          options={commands}
          value={null}
          getOptionLabel={(c) => c.title}
          filterOptions={(all, { inputValue }) => found(all, inputValue)}
          noOptionsText="No command has these words."
          onChange={(_, c) => run(c as Command | null)}
          onClose={(_, why) => why === 'escape' && onClose()}
          slots={{ popper: InPlace }}
          slotProps={{ listbox: { sx: { maxHeight: 340 } } }}
          renderOption={({ key, ...props }, c) => (
            <li key={key} {...props}>
              {c.title}
              <span className="grow" />
              {c.keys && <kbd>{c.keys}</kbd>}
            </li>
          )}
          renderInput={(params) => (
            <TextField
              {...params}
              autoFocus
              size="small"
              placeholder="Find a command"
              slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps.htmlInput, 'aria-label': 'Find a command' } }}
            />
          )}
        />
      </DialogContent>
    </Dialog>
  );
}
