import { styled } from '@mui/material/styles';

/** A card: its head, its body, and lines of figures. */
export const CardFrame = styled('section')({
  '&.chosen': {
    borderColor: 'var(--jade)',
  },
  '& .probe': {
    position: 'absolute',
    left: 6,
    bottom: 4,
    background: 'var(--panel)',
    padding: '1px 6px',
    borderRadius: 4,
  },
  '& .readout': {
    maxHeight: '38%',
    overflow: 'auto',
    fontSize: 12,
  },
  '& .small-line': {
    fontSize: 12,
    padding: '0 6px',
    overflow: 'hidden',
    textOverflow: 'ellipsis',
  },
  display: 'flex',
  flexDirection: 'column',
  background: 'var(--panel)',
  border: '1px solid var(--line)',
  borderRadius: 6,
  minWidth: 0,
  overflow: 'hidden',
  '& > header': {
    display: 'flex',
    alignItems: 'center',
    gap: 8,
    padding: '5px 4px 3px 12px',
  },
  '& > header h3': {
    fontSize: 13,
    fontWeight: 650,
    whiteSpace: 'nowrap',
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    minWidth: 40,
  },
  '& > header .about': {
    fontSize: 12,
    minWidth: 0,
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    whiteSpace: 'nowrap',
  },
  '& .body': {
    flex: 1,
    minHeight: 0,
    position: 'relative',
    padding: '0 8px 6px',
  },
  '& .body.flush': {
    padding: 0,
  },
  '& .scroll': {
    overflow: 'auto',
    height: '100%',
  },
});
