import { useState } from 'react';
import { TypedField } from '../kit/Field.tsx';

/** The name of a line, edited in place by a double click or F2. */
export function NameField({ name, onRename }: { name: string; onRename(name: string): void }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <b
        tabIndex={0}
        role="button"
        aria-label={`name ${name}, press Enter to rename`}
        title="Double click to rename"
        onDoubleClick={() => setOpen(true)}
        onKeyDown={(e) => e.key === 'Enter' && (e.preventDefault(), setOpen(true))}
      >
        {name}
      </b>
    );
  return (
    <TypedField
      look="chip"
      mono
      whole
      autoFocus
      width={110}
      label="name"
      value={name}
      onChange={(text) => text && onRename(text)}
      onDone={() => setOpen(false)}
    />
  );
}
