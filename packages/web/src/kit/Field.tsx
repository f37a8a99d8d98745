import { InputBase, type InputBaseProps } from '@mui/material';
import { styled } from '@mui/material/styles';
import { type KeyboardEvent, type Ref, useEffect, useId, useRef, useState } from 'react';

type Look = 'plain' | 'chip' | 'search' | 'title' | 'table' | 'note';

const framed = { border: '1px solid var(--line)', background: 'var(--paper)', '&.Mui-focused': { borderColor: 'var(--jade)' } };
const Face = styled(InputBase, { shouldForwardProp: (name) => name !== 'look' && name !== 'mono' })<{ look: Look; mono?: boolean }>({
  font: 'inherit',
  color: 'inherit',
  minWidth: 0,
  maxWidth: '100%',
  '& .MuiInputBase-input': { padding: 0, height: 'auto', minHeight: 20, lineHeight: '20px', textOverflow: 'ellipsis', color: 'inherit' },
  '&.Mui-error': { borderColor: 'var(--brick)' },
  variants: [
    { props: { mono: true }, style: { '& .MuiInputBase-input': { fontFamily: 'var(--mono)', fontSize: 12.5 } } },
    {
      props: { look: 'plain' },
      style: {
        width: '100%',
        borderRadius: 4,
        padding: '1px 4px',
        '&:hover': { background: 'var(--paper)' },
        '&.Mui-focused': { outline: '2px solid var(--jade)', outlineOffset: 1 },
      },
    },
    { props: { look: 'chip' }, style: { ...framed, borderRadius: 4, padding: '0 5px', '&.Mui-error': { borderColor: 'var(--brick)' } } },
    { props: { look: 'search' }, style: { ...framed, borderRadius: 6, padding: '1px 6px' } },
    {
      props: { look: 'table' },
      style: { ...framed, width: '100%', borderRadius: 6, padding: 8, '& textarea': { whiteSpace: 'pre', tabSize: 14 } },
    },
    {
      props: { look: 'note' },
      style: { width: '100%', height: '100%', padding: '6px 4px', '& textarea.MuiInputBase-input': { height: '100%' } },
    },
    {
      props: { look: 'title' },
      style: {
        border: '1px solid transparent',
        borderRadius: 6,
        padding: '2px 6px',
        width: '100%',
        minWidth: 60,
        maxWidth: 200,
        '& .MuiInputBase-input': { fontSize: 15, fontWeight: 600 },
        '&:hover, &.Mui-focused': { borderColor: 'var(--line)' },
      },
    },
  ],
});

/** Why what is typed cannot be taken. */
const Fault = styled('span')({ display: 'block', maxWidth: 260, whiteSpace: 'normal', fontSize: 12, color: 'var(--brick)' });

interface Common {
  label: string;
  value: string;
  look?: Look;
  mono?: boolean;
  width?: number | string;
  placeholder?: string;
  disabled?: boolean;
  hint?: string | null;
  maxLength?: number;
  autoFocus?: boolean;
}

interface FieldProps extends Common {
  failing?: boolean;
  /** Element that says more about it. */
  describedBy?: string;
  /** Characters that it is wide enough for. */
  size?: number;
  rows?: number;
  type?: 'text' | 'search';
  input?: Ref<HTMLInputElement>;
  onChange(text: string): void;
  onLeave?(): void;
  onKeyDown?(e: KeyboardEvent): void;
  onFocus?: InputBaseProps['onFocus'];
}

/** A field of one line, or of `rows`, that tells each change of its text. */
export function Field({
  label,
  value,
  look = 'chip',
  mono,
  width,
  placeholder,
  disabled,
  hint,
  maxLength,
  autoFocus,
  failing,
  describedBy,
  size,
  rows,
  type,
  input,
  onChange,
  onLeave,
  onKeyDown,
  onFocus,
}: FieldProps) {
  // prettier-ignore
  return (
    <Face
      look={look}
      mono={mono}
      value={value}
      placeholder={placeholder}
      disabled={disabled}
      error={failing}
      autoFocus={autoFocus}
      multiline={rows !== undefined}
      rows={rows}
      type={type}
      inputRef={input}
      style={width === undefined ? undefined : { width }}
      inputProps={{ 'aria-label': label, 'aria-describedby': describedBy, maxLength, size, spellCheck: false, title: hint ?? undefined }}
      onChange={(e) => onChange(e.target.value)}
      onBlur={onLeave}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
    />
  );
}

interface TypedProps extends Common {
  /** Why a text cannot be taken; null if it can. */
  check?(text: string): string | null;
  /** Takes a text that differs. */
  onChange(text: string): void;
  /** It was left, with what it held or without. */
  onDone?(): void;
  /** Its whole text is chosen as it opens. */
  whole?: boolean;
}

/** A field that takes its text with Enter or on leaving, gives the old one back with Escape, and says below it why a text is not taken. */
export function TypedField({ value, check, onChange, onDone, whole, ...rest }: TypedProps) {
  const [text, setText] = useState(value);
  const input = useRef<HTMLInputElement>(null);
  const given = useRef(false);
  const id = useId();
  useEffect(() => setText(value), [value]);
  const fault = check?.(text.trim()) ?? null;
  const take = (): void => {
    const trimmed = text.trim();
    if (!fault && trimmed !== value) onChange(trimmed);
  };
  const leave = (): void => {
    if (given.current) setText(value);
    else take();
    given.current = false;
    onDone?.();
  };
  const onKeyDown = (e: KeyboardEvent): void => {
    if (e.key !== 'Enter' && e.key !== 'Escape') return;
    const back = e.key === 'Escape';
    // With nothing to give back, Escape is for what the field stands in.
    if (!back || onDone || text !== value) e.stopPropagation();
    if (onDone) {
      given.current = back;
      input.current?.blur();
    } else if (back) setText(value);
    else take();
  };
  return (
    <>
      <Field
        {...rest}
        value={text}
        input={input}
        failing={fault !== null}
        describedBy={fault ? id : undefined}
        hint={fault ?? rest.hint}
        onChange={setText}
        onFocus={whole ? (e) => e.target.select() : undefined}
        onLeave={leave}
        onKeyDown={onKeyDown}
      />
      {fault && (
        <Fault id={id} role="alert">
          {fault}
        </Fault>
      )}
    </>
  );
}
