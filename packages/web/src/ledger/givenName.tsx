import { renameGiven } from '@jadebell/core/document';
import { useState } from 'react';
import { nameFault } from '../project/edits.ts';
import { useProject } from '../project/store.ts';

/** Renames a given with all its uses; says why not where it cannot. */
export function useGivenRename(name: string): [string | null, (to: string) => void] {
  const [fault, setFault] = useState<string | null>(null);
  const rename = (to: string): void => {
    const { document, edit } = useProject.getState();
    if (!document || to === name) return setFault(null);
    const wrong = nameFault(document, 'givens', to);
    setFault(wrong);
    if (!wrong) edit('rename given', (d) => renameGiven(d, name, to));
  };
  return [fault, rename];
}

/** A field for the name of a given. */
export function GivenName({ name, onRename }: { name: string; onRename(to: string): void }) {
  return (
    <input
      className="plain-input name-input"
      aria-label={`name of given ${name}`}
      defaultValue={name}
      key={name}
      spellCheck={false}
      onBlur={(e) => onRename(e.target.value.trim())}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
      }}
    />
  );
}
