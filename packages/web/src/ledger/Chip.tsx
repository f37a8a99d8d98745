import type { Problem, Quantity } from '@jadebell/core/document';
import { useEffect, useId, useRef, useState } from 'react';
import { previewExpression } from '../project/model.ts';
import { useStage } from '../project/stageState.ts';
import type { Preview } from '../workers/protocol.ts';
import { ChipFace } from '../kit/ChipFace.tsx';
import { Field } from '../kit/Field.tsx';

interface Props {
  value: string;
  label: string;
  quantity: Quantity | 'any';
  problems?: Problem[];
  /** A function of t. */
  sampled?: boolean;
  /** Shown in place of the expression, where several lines differ. */
  placeholder?: string;
  onChange(value: string): void;
}

/** A value inside a line: shows its expression, opens in place, tells the value as one types, and takes Enter, Tab or Escape. */
export function Chip({ value, label, quantity, problems = [], sampled, placeholder, onChange }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const input = useRef<HTMLInputElement>(null);
  const refocus = useRef(false);
  const id = useId();
  const open = draft !== null;

  useEffect(() => {
    if (draft === null) return;
    if (!draft.trim()) {
      setPreview({ text: 'Type an expression, or pick in the stage view.', good: false, si: null });
      return;
    }
    let current = true;
    void previewExpression(draft, quantity, sampled).then((p) => current && setPreview(p));
    return () => {
      current = false;
    };
  }, [draft, quantity, sampled]);
  // While it is open, what is picked in the stage view goes into it.
  useEffect(() => {
    if (!open) return;
    const letter = /\b([xyz])$/.exec(label)?.[1];
    const editor = {
      axis: letter ? 'xyz'.indexOf(letter) : null,
      insert: (text: string): void => {
        const field = input.current;
        if (!field) return;
        const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length];
        setDraft(field.value.slice(0, from) + text + field.value.slice(to));
        requestAnimationFrame(() => field.setSelectionRange(from + text.length, from + text.length));
        field.focus();
      },
    };
    useStage.getState().set({ editor });
    return () => {
      if (useStage.getState().editor === editor) useStage.getState().set({ editor: null });
    };
  }, [open, label]);
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
      <ChipFace
        ref={button}
        failing={problems.length > 0}
        aria-label={`${label}: ${value || placeholder || 'none'}`}
        aria-invalid={problems.length > 0}
        title={problems[0] ? `${problems[0].message} ${problems[0].fix}` : label}
        onClick={() => setDraft(value)}
      >
        {placeholder ?? value}
      </ChipFace>
    );
  return (
    <span className="chip-edit">
      <Field
        mono
        autoFocus
        input={input}
        label={label}
        describedBy={id}
        failing={preview?.good === false}
        value={draft}
        size={Math.max(10, draft.length + 1)}
        onFocus={(e) => e.target.select()}
        onChange={setDraft}
        onLeave={() => close(true)}
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
