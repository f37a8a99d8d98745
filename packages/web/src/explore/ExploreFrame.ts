import { styled } from '@mui/material/styles';

/** The Explore stage: the ways in along its left edge, and the page of what is chosen. */
export const ExploreFrame = styled('div')({
  display: 'grid',
  gridTemplateColumns: '196px minmax(0, 1fr)',
  height: '100%',
  '& > nav': {
    background: 'var(--panel)',
    borderRight: '1px solid var(--line)',
    overflow: 'auto',
    padding: '8px 0',
  },
  '& > nav h2': { fontSize: 12, fontWeight: 650, color: 'var(--faint)', padding: '8px 14px 2px' },
  '& > nav .MuiListItemButton-root': { padding: '3px 14px', fontSize: 13, display: 'flex', gap: 6 },
  '& > nav .MuiListItemButton-root .quiet': { marginLeft: 'auto', fontSize: 12, whiteSpace: 'nowrap' },
  '& > nav .MuiButton-root': { marginLeft: 8 },
});

/** The page of all runs: a table over a chart. */
export const RunsFrame = styled('div')({
  display: 'grid',
  gap: 10,
  padding: 10,
  overflow: 'auto',
  height: '100%',
  boxSizing: 'border-box',
  gridTemplateColumns: 'minmax(0, 1fr)',
  gridTemplateRows: 'minmax(150px, auto) minmax(360px, 1fr)',
});

/** The page of a study: what is done, what is read, how far it is, and its cards. */
export const StudyFrame = styled('div')({
  height: '100%',
  overflow: 'auto',
  padding: 10,
  boxSizing: 'border-box',
  display: 'flex',
  flexDirection: 'column',
  gap: 8,
  fontSize: 13,
  '& a:not(.MuiButtonBase-root)': { color: 'var(--jade)' },
  '& .told': {
    display: 'grid',
    gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
    gap: 8,
    '& > section': { background: 'var(--panel)', border: '1px solid var(--line)', borderRadius: 6, padding: '6px 12px 8px', minWidth: 0 },
    '& header': { display: 'flex', alignItems: 'center', gap: 8, minHeight: 26 },
    '& h2': { fontSize: 13, fontWeight: 650 },
  },
  '& .statement': { display: 'flex', alignItems: 'baseline', flexWrap: 'wrap', gap: '4px 5px', padding: '2px 0', position: 'relative' },
  // What can be done with a sentence stays together at its end.
  '& .statement .acts': {
    display: 'inline-flex',
    alignItems: 'center',
    gap: 2,
    whiteSpace: 'nowrap',
    '& .MuiIconButton-root': { width: 24, height: 24 },
  },
  '& .statement .list-rows': {
    display: 'grid',
    gap: 2,
    padding: 8,
    border: '1px solid var(--line)',
    borderRadius: 6,
    background: 'var(--panel)',
    maxHeight: 260,
    overflow: 'auto',
  },
  '& .statement .list-row': { display: 'flex', gap: 6, alignItems: 'baseline' },
  '& .statement .list-editor': { display: 'inline-flex', flexDirection: 'column', gap: 3 },
  '& .statement .chip-edit': { display: 'inline-flex', flexDirection: 'column', verticalAlign: 'top' },
  '& .statement .chip-edit output': { fontSize: 11.5, maxWidth: 260 },
  '& .state': {
    display: 'flex',
    alignItems: 'center',
    flexWrap: 'wrap',
    gap: 10,
    background: 'var(--panel)',
    border: '1px solid var(--line)',
    borderRadius: 6,
    padding: '5px 12px',
  },
  '& .state .MuiLinearProgress-root': { flex: '1 1 160px', maxWidth: 320, height: 6, borderRadius: 3 },
  '& .cards': {
    flex: '1 0 auto',
    display: 'grid',
    gridTemplateColumns: 'repeat(2, minmax(0, 1fr))',
    alignItems: 'start',
    alignContent: 'start',
    gap: 8,
    '& > div': { display: 'grid', gridTemplateRows: 'minmax(0, 1fr)', height: 330 },
    '& > .wide': { gridColumn: '1 / -1' },
    '& .MuiTableCell-body:first-of-type': { minWidth: 60 },
    '& .MuiTableRow-root.chosen': { background: 'var(--wash)' },
  },
});
