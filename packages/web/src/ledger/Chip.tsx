import type { Problem, Quantity } from '@jadebell/core/document';
import { useEffect, useId, useRef, useState } from 'react';
import { previewExpression } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import type { Preview } from '../workers/protocol.ts';

interface Props {
  value: string;
  label: string;
  quantity: Quantity | 'any';
  problems?: Problem[];
  onChange(value: string): void;
}

/** A value inside a line: shows its expression, opens in place, tells the value as one types, and takes Enter, Tab or Escape. */
export function Chip({ value, label, quantity, problems = [], onChange }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const refocus = useRef(false);
  const id = useId();
  const open = draft !== null;

  useEffect(() => {
    const { document } = useProject.getState();
    if (draft === null || !document) return;
    let current = true;
    void previewExpression(document, draft || ' ', quantity).then((p) => current && setPreview(p));
    return () => {
      current = false;
    };
  }, [draft, quantity]);
  useEffect(() => {
    if (!open && refocus.current) {
      refocus.current = false;
      button.current?.focus();
    }
  }, [open]);

  const close = (keep: boolean): void => {
    if (draft === null) return;
    const text = draft.trim();
    if (keep && text && text !== value) onChange(text);
    setDraft(null);
    setPreview(null);
  };
  if (!open)
    return (
      <button
        ref={button}
        type="button"
        className={`chip${problems.length ? ' failing' : ''}`}
        aria-label={`${label}: ${value}`}
        aria-invalid={problems.length > 0}
        title={problems[0] ? `${problems[0].message} ${problems[0].fix}` : label}
        onClick={() => setDraft(value)}
      >
        {value}
      </button>
    );
  return (
    <span className="chip-edit">
      <input
        autoFocus
        aria-label={label}
        aria-describedby={id}
        aria-invalid={preview?.good === false}
        value={draft}
        size={Math.max(10, draft.length + 1)}
        spellCheck={false}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={() => close(true)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || e.key === 'Escape') {
            e.preventDefault();
            e.stopPropagation();
            refocus.current = true;
            close(e.key === 'Enter');
          }
        }}
      />
      <output id={id} className={preview?.good === false ? 'bad' : 'quiet'}>
        {preview ? (preview.good ? `= ${preview.text}` : preview.text) : ' '}
      </output>
    </span>
  );
}
