import { Table } from '@mui/material';
import { styled } from '@mui/material/styles';

/** A table of figures: its first column says of what they are. `loose` ones are as wide as what they hold, all of it from the left. */
export const Figures = styled(Table, { shouldForwardProp: (name) => name !== 'loose' })<{ loose?: boolean }>({
  '& .MuiTableCell-root': {
    padding: '2px 8px',
    fontSize: 12.5,
    lineHeight: 1.4,
    fontVariantNumeric: 'tabular-nums',
    textAlign: 'right',
    whiteSpace: 'nowrap',
    borderColor: 'var(--line)',
  },
  '& .MuiTableCell-root:first-of-type': { textAlign: 'left' },
  '& .MuiTableCell-head': { fontWeight: 600, color: 'var(--faint)' },
  // The arrow stands before its word, which stays over the figures.
  '& .MuiTableSortLabel-root': { flexDirection: 'row-reverse', color: 'inherit' },
  '& .MuiTableSortLabel-icon': { margin: '0 2px', fontSize: 14 },
  '& .MuiTableCell-root:first-of-type .MuiTableSortLabel-root': { flexDirection: 'row' },
  variants: [
    { props: { loose: true }, style: { width: 'auto', '& .MuiTableCell-root': { padding: '0 8px 0 2px', border: 0, textAlign: 'left' } } },
    { props: ({ loose }) => !loose, style: { '& .MuiTableCell-body:first-of-type': { whiteSpace: 'normal', minWidth: 150 } } },
  ],
});
