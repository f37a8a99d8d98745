import { styled } from '@mui/material/styles';

/** The Read stage: lens, boards, cards on their grid, settings beside. */
export const ReadFrame = styled('div')({
  display: 'flex',
  flexDirection: 'column',
  height: '100%',
  minHeight: 0,
  '& .read-body': {
    flex: 1,
    minHeight: 0,
    display: 'flex',
  },
  '& .lens': {
    display: 'flex',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: '4px 14px',
    padding: '5px 12px',
    background: 'var(--panel)',
    borderBottom: '1px solid var(--line)',
    fontSize: 13,
  },
  '& .lens label, & .lens .group': {
    display: 'flex',
    alignItems: 'center',
    gap: 5,
  },
  '& .board-tabs': {
    display: 'flex',
    alignItems: 'center',
    gap: 10,
    padding: '4px 12px 0',
    fontSize: 13,
  },
  '& .board': {
    flex: 1,
    minWidth: 0,
    overflow: 'auto',
    position: 'relative',
    scrollbarGutter: 'stable',
  },
  '& .card-cell > .card': {
    height: '100%',
  },
  '& .react-grid-placeholder': {
    background: 'var(--wash) !important',
    borderRadius: 6,
    opacity: '0.8 !important',
  },
  '& .react-grid-item > .react-resizable-handle': {
    opacity: 0,
  },
  '& .react-grid-item:hover > .react-resizable-handle': {
    opacity: 0.6,
  },
  '& .card-settings': {
    width: 308,
    flex: 'none',
    display: 'flex',
    flexDirection: 'column',
    background: 'var(--panel)',
    borderLeft: '1px solid var(--line)',
    fontSize: 13,
  },
  '& .card-settings > header': {
    padding: '6px 8px 6px 14px',
    borderBottom: '1px solid var(--line)',
  },
  '& .card-settings > header h3': {
    fontSize: 14,
  },
  '& .card-settings-body': {
    overflow: 'auto',
    padding: '4px 14px 20px',
  },
  '& .settings-part': {
    padding: '8px 0',
    borderBottom: '1px solid var(--line)',
  },
  '& .settings-part h4': {
    margin: 0,
    fontSize: 12.5,
    fontWeight: 650,
  },
  '& .settings-row': {
    display: 'grid',
    gridTemplateColumns: '84px 1fr',
    alignItems: 'center',
    gap: 6,
    padding: '3px 0',
  },
  '& .settings-trace': {
    display: 'flex',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 4,
    padding: '4px 0',
  },
  '& .card-cell .card > header': {
    cursor: 'grab',
  },
});
