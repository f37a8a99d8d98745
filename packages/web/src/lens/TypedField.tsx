import { useEffect, useState } from 'react';

interface FieldProps {
  label: string;
  value: string;
  placeholder?: string;
  disabled?: boolean;
  why?: string | null;
  width?: number;
  /** Why a text cannot be taken; null if it can. */
  check(text: string): string | null;
  onChange(text: string): void;
}

/** A small field that takes its text with Enter or on leaving, and says why it does not. */
export function TypedField({ label, value, placeholder, disabled, why, width = 96, check, onChange }: FieldProps) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const fault = check(text.trim());
  const commit = (): void => {
    if (!fault && text.trim() !== value) onChange(text.trim());
  };
  return (
    <>
      <input
        className="chip mono"
        style={{ width }}
        aria-label={label}
        aria-invalid={fault !== null}
        title={why ?? fault ?? undefined}
        placeholder={placeholder}
        disabled={disabled}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') setText(value);
        }}
      />
      {fault && (
        <span role="alert" className="bad" style={{ display: 'block', maxWidth: 220, whiteSpace: 'normal', fontSize: 12 }}>
          {fault}
        </span>
      )}
    </>
  );
}
