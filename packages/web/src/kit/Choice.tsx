import { ArrowDropDown } from './icons.tsx';
import { ButtonBase, ListSubheader, MenuItem, Select } from '@mui/material';
import { styled } from '@mui/material/styles';
import { useState } from 'react';

/** One of the things to choose from, or the heading of those that follow. */
export type Option<T> = { value: T; label: string; disabled?: boolean } | { heading: string };

type Look = 'plain' | 'chip' | 'tool';

const outside = {
  fontSize: 13,
  lineHeight: '20px',
  color: 'inherit',
  maxWidth: '100%',
  border: '1px solid var(--line)',
  borderRadius: 6,
  background: 'var(--panel)',
  '&:hover': { borderColor: 'var(--jade)' },
} as const;
const failing = { borderColor: 'var(--brick)', color: 'var(--brick)' };
const icon = { fontSize: 18, right: 2, color: 'var(--faint)' };
/** Around the text, and of the text itself, for each look. */
const looks = {
  plain: [{}, { padding: '1px 22px 1px 6px', minHeight: 0 }],
  tool: [
    { fontSize: 12.5, fontWeight: 500 },
    { padding: '1px 22px 1px 8px', minHeight: 0 },
  ],
  chip: [
    { borderRadius: 4, background: 'var(--paper)' },
    {
      padding: '0 5px',
      minHeight: 0,
      minWidth: 0,
      textDecoration: 'underline dotted var(--faint)',
      textUnderlineOffset: 3,
      whiteSpace: 'normal',
    },
  ],
} as const;

const Full = styled(Select, { shouldForwardProp: (name) => name !== 'look' })<{ look: Look }>({
  ...outside,
  '& .MuiSelect-icon': icon,
  '& .MuiSelect-select:focus-visible': { outline: '2px solid var(--jade)', outlineOffset: 1, background: 'none' },
  '&.Mui-error': failing,
  // Twice the own class: the library's padding for its arrow has as many, and which comes later depends on what is drawn first.
  variants: Object.entries(looks).map(([look, [around, text]]) => ({
    props: { look: look as Look },
    style: { ...around, '&& .MuiSelect-select.MuiSelect-select': text, ...(look === 'chip' ? { '& .MuiSelect-icon': { display: 'none' } } : {}) },
  })),
});

const Face = styled(ButtonBase, { shouldForwardProp: (name) => name !== 'look' && name !== 'failing' })<{ look: Look; failing?: boolean }>({
  ...outside,
  justifyContent: 'flex-start',
  fontFamily: 'inherit',
  '& > span': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: 16 },
  '& > svg': { ...icon, position: 'absolute' },
  variants: [
    ...Object.entries(looks).map(([look, [around, text]]) => ({ props: { look: look as Look }, style: { ...around, '& > span': text } })),
    { props: { failing: true }, style: failing },
  ],
});

interface Props<T> {
  label: string;
  value: T;
  options: readonly Option<T>[];
  /** A chip stands in a sentence, a tool in a bar. */
  look?: Look;
  /** What it shows instead of the chosen one's label. */
  shows?: string;
  failing?: boolean;
  disabled?: boolean;
  hint?: string;
  width?: number;
  onChange(value: NoInfer<T>): void;
}

type Woken = 'focus' | 'pointer' | 'press';

/**
 * A choice of one among a few. Until it is pointed at or has the focus only its face is drawn: a ledger has hundreds, of which each with its list takes
 * some milliseconds to make.
 */
export function Choice<T extends string | number>(props: Props<T>) {
  const { label, value, options, look = 'plain', shows, failing, hint, width } = props;
  const [woken, setWoken] = useState<Woken | null>(null);
  if (woken || props.disabled) return <Opened {...props} woken={woken} />;
  return (
    <Face
      role="combobox"
      aria-label={label}
      aria-haspopup="listbox"
      aria-expanded={false}
      aria-invalid={failing}
      title={hint}
      look={look}
      failing={failing}
      style={width === undefined ? undefined : { width }}
      onPointerEnter={() => setWoken('pointer')}
      onFocus={() => setWoken('focus')}
      // The press may come before what the pointer has woken is there.
      onMouseDown={(e) => {
        if (e.button !== 0) return;
        e.preventDefault();
        setWoken('press');
      }}
    >
      <span>{shows ?? (options.find((o) => 'value' in o && o.value === value) as { label: string } | undefined)?.label}</span>
      {look !== 'chip' && <ArrowDropDown />}
    </Face>
  );
}

function Opened<T extends string | number>(props: Props<T> & { woken: Woken | null }) {
  const { label, value, options, look = 'plain', shows, failing, disabled, hint, width, woken, onChange } = props;
  return (
    <Full
      variant="standard"
      disableUnderline
      displayEmpty
      autoFocus={woken === 'focus' || woken === 'press'}
      defaultOpen={woken === 'press'}
      look={look}
      value={value}
      error={failing}
      disabled={disabled}
      renderValue={shows === undefined ? undefined : () => shows}
      onChange={(e) => onChange(e.target.value as T)}
      SelectDisplayProps={{ title: hint }}
      inputProps={{ 'aria-label': label }}
      MenuProps={menu}
      style={width === undefined ? undefined : { width }}
    >
      {options.map((o) =>
        'heading' in o ? (
          <Heading key={`heading ${o.heading}`}>{o.heading}</Heading>
        ) : (
          <MenuItem key={o.value} value={o.value} disabled={o.disabled}>
            {o.label || ' '}
          </MenuItem>
        ),
      )}
    </Full>
  );
}

/** What the list gives an option to be chosen by is left aside: a heading is none. */
const Heading = ({ children }: { children: string }) => <ListSubheader role="presentation">{children}</ListSubheader>;
Heading.muiSkipListHighlight = true;

const menu = { slotProps: { paper: { sx: { maxHeight: 420 } } } };

/** Options whose labels are their values. */
export const plainOptions = <T extends string>(values: readonly T[]): { value: T; label: string }[] =>
  values.map((value) => ({ value, label: value }));
