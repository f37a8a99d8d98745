import { ListSubheader, MenuItem, Select } from '@mui/material';
import { styled } from '@mui/material/styles';

/** One of the things to choose from, or the heading of those that follow. */
export type Option<T> = { value: T; label: string; disabled?: boolean } | { heading: string };

type Look = 'plain' | 'chip' | 'tool';

// Twice the own class: the library's padding for its arrow has as many, and which comes later depends on what is drawn first.
const Face = styled(Select, { shouldForwardProp: (name) => name !== 'look' })<{ look: Look }>({
  fontSize: 13,
  lineHeight: '20px',
  color: 'inherit',
  maxWidth: '100%',
  '&& .MuiSelect-select.MuiSelect-select': { padding: '1px 22px 1px 6px', minHeight: 0 },
  '& .MuiSelect-icon': { fontSize: 18, right: 2, color: 'var(--faint)' },
  '& .MuiSelect-select:focus-visible': { outline: '2px solid var(--jade)', outlineOffset: 1, background: 'none' },
  border: '1px solid var(--line)',
  borderRadius: 6,
  background: 'var(--panel)',
  '&:hover': { borderColor: 'var(--jade)' },
  '&.Mui-error': { borderColor: 'var(--brick)', color: 'var(--brick)' },
  variants: [
    {
      props: { look: 'tool' },
      style: { fontSize: 12.5, fontWeight: 500, '&& .MuiSelect-select.MuiSelect-select': { padding: '1px 22px 1px 8px' } },
    },
    {
      props: { look: 'chip' },
      style: {
        borderRadius: 4,
        background: 'var(--paper)',
        '&& .MuiSelect-select.MuiSelect-select': {
          padding: '0 5px',
          minWidth: 0,
          textDecoration: 'underline dotted var(--faint)',
          textUnderlineOffset: 3,
          whiteSpace: 'normal',
        },
        '& .MuiSelect-icon': { display: 'none' },
      },
    },
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

/** A choice of one among a few. */
export function Choice<T extends string | number>({
  label,
  value,
  options,
  look = 'plain',
  shows,
  failing,
  disabled,
  hint,
  width,
  onChange,
}: Props<T>) {
  return (
    <Face
      variant="standard"
      disableUnderline
      displayEmpty
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
    </Face>
  );
}

/** What the list gives an option to be chosen by is left aside: a heading is none. */
const Heading = ({ children }: { children: string }) => <ListSubheader role="presentation">{children}</ListSubheader>;
Heading.muiSkipListHighlight = true;

const menu = { slotProps: { paper: { sx: { maxHeight: 420 } } } };

/** Options whose labels are their values. */
export const plainOptions = <T extends string>(values: readonly T[]): { value: T; label: string }[] =>
  values.map((value) => ({ value, label: value }));
