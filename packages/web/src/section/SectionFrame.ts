import { styled } from '@mui/material/styles';

/** A cross-section: picture, modes and studies. */
export const SectionFrame = styled('section')({
  height: '100%',
  display: 'grid',
  gridTemplateRows: 'auto minmax(0, 1fr) auto minmax(150px, 34%)',
  gridAutoRows: 'auto',
  background: 'var(--stage)',
  overflow: 'hidden',
  '&:has(> .MuiAlert-root)': {
    gridTemplateRows: 'auto auto minmax(0, 1fr) auto minmax(150px, 34%)',
  },
  '& > header': {
    padding: '8px 10px',
    gap: 8,
    fontSize: 12.5,
  },
  '& > header h2': {
    fontSize: 14,
  },
  '& .probe': {
    position: 'absolute',
    left: 8,
    bottom: 6,
    fontSize: 11.5,
    padding: '2px 8px',
    borderRadius: 6,
    background: 'color-mix(in srgb, var(--panel) 88%, transparent)',
  },
  '& .section-tabs': {
    padding: '6px 10px',
    gap: 4,
    borderTop: '1px solid var(--line)',
    background: 'var(--panel)',
    fontSize: 12.5,
  },
  '& .section-lower': {
    overflow: 'auto',
    background: 'var(--panel)',
  },
  '& .mode-table td:first-child.MuiTableCell-body': {
    minWidth: 0,
  },
  '& .mode-table tbody tr': {
    cursor: 'pointer',
  },
  '& .mode-table tr.selected, & .mode-table tbody tr:hover': {
    background: 'var(--wash)',
  },
  '& .mode-details': {
    padding: '6px 14px 10px',
  },
  '& .section-study': {
    display: 'flex',
    flexDirection: 'column',
    height: '100%',
  },
  '& .study-row': {
    padding: '4px 12px',
    gap: 6,
    flexWrap: 'wrap',
    fontSize: 13,
  },
  '& .study-chart': {
    flex: 1,
    minHeight: 120,
  },
});
