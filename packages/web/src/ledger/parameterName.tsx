import { renameParameter } from '@jadebell/core/document';
import { useState } from 'react';
import { nameFault } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import { TypedField } from '../kit/Field.tsx';

/** Renames a parameter with all its uses; says why not where it cannot. */
export function useParameterRename(name: string): [string | null, (to: string) => void] {
  const [fault, setFault] = useState<string | null>(null);
  const rename = (to: string): void => {
    const { document, edit } = useProject.getState();
    if (!document || to === name) return setFault(null);
    const wrong = nameFault(document, 'parameters', to);
    setFault(wrong);
    if (!wrong) edit('rename parameter', (d) => renameParameter(d, name, to));
  };
  return [fault, rename];
}

/** A field for the name of a parameter. */
export function ParameterName({ name, onRename }: { name: string; onRename(to: string): void }) {
  return <TypedField look="plain" mono label={`name of parameter ${name}`} value={name} onChange={onRename} />;
}
