import { useState } from 'react';

/** The name of a line, edited in place by a double click or F2. */
export function NameField({ name, onRename }: { name: string; onRename(name: string): void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const close = (keep: boolean): void => {
    const text = draft?.trim();
    if (keep && text && text !== name) onRename(text);
    setDraft(null);
  };
  if (draft === null)
    return (
      <b
        tabIndex={0}
        role="button"
        aria-label={`name ${name}, press Enter to rename`}
        title="Double click to rename"
        onDoubleClick={() => setDraft(name)}
        onKeyDown={(e) => e.key === 'Enter' && (e.preventDefault(), setDraft(name))}
      >
        {name}
      </b>
    );
  return (
    <input
      autoFocus
      className="plain-input name-input"
      style={{ width: 110, background: 'var(--paper)' }}
      aria-label="name"
      value={draft}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={() => close(true)}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === 'Escape') {
          e.stopPropagation();
          close(e.key === 'Enter');
        }
      }}
    />
  );
}
