import { readReference, referenceOf } from '@jadebell/core/s';
import { useState } from 'react';
import type { Run } from '../api/types.ts';

/** The impedance that S is referred to: empty for the ports' own, else ohms, complex ones as 50-20j. */
export function ReferenceField({ run, value, onChange }: { run: Run; value: string; onChange(next: string): void }) {
  const [text, setText] = useState(value);
  const { ports, excitations } = run.meta!;
  const wanting =
    excitations.length < ports.length
      ? 'S can be referred to another impedance only where every port was excited.'
      : ports.every((p) => referenceOf(p) === null)
        ? 'The modes of these ports have no impedance of their own to come from.'
        : null;
  const bad = text.trim() !== '' && !readReference(text);
  const commit = (): void => {
    if (!bad) onChange(text.trim());
  };
  return (
    <label title={wanting ?? 'Reference impedance of S in ohm; empty: each port its own. Complex ones as 50-20j.'}>
      referred to
      <input
        className="chip mono"
        style={{ width: 78 }}
        aria-label="Reference impedance"
        aria-invalid={bad}
        placeholder="own"
        disabled={wanting !== null}
        value={wanting ? '' : text}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {bad ? (
        <span role="alert" className="bad">
          ohms, such as 50 or 50-20j
        </span>
      ) : (
        'ohm'
      )}
    </label>
  );
}
