import { ArrowDropDown } from './icons.tsx';
import { ButtonBase, ListSubheader, MenuItem, Select } from '@mui/material';
import { styled } from '@mui/material/styles';
import { useState } from 'react';
import { choiceIcon, failing as failingStyle, type Look, looks, outside } from './looks.ts';

/** One of the things to choose from, or the heading of those that follow. */
export type Option<T> = { value: T; label: string; disabled?: boolean } | { heading: string };

const Full = styled(Select, { shouldForwardProp: (name) => name !== 'look' })<{ look: Look }>({
  ...outside,
  '& .MuiSelect-icon': choiceIcon,
  '& .MuiSelect-select:focus-visible': { outline: '2px solid var(--jade)', outlineOffset: 1, background: 'none' },
  '&.Mui-error': failingStyle,
  // Twice the own class: the library's padding for its arrow has as many, and which comes later depends on what is drawn first.
  variants: Object.entries(looks).map(([look, [around, text]]) => ({
    props: { look: look as Look },
    style: { ...around, '&& .MuiSelect-select.MuiSelect-select': text, ...(look === 'chip' ? { '& .MuiSelect-icon': { display: 'none' } } : {}) },
  })),
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
    <ButtonBase
      role="combobox"
      aria-label={label}
      aria-haspopup="listbox"
      aria-expanded={false}
      aria-invalid={failing}
      title={hint}
      className={`choice-face ${look}${failing ? ' failing' : ''}`}
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
    </ButtonBase>
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
