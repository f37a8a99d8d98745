import { styled } from '@mui/material/styles';

/** Settings, a name and a value a row. */
export const SettingList = styled('dl')({
  margin: 0,
  display: 'grid',
  gridTemplateColumns: '128px minmax(0, 1fr)',
  gap: '5px 8px',
  padding: '4px 14px 6px',
  alignItems: 'baseline',
  '& > dt': {
    color: 'var(--faint)',
  },
  '& > dd': {
    margin: 0,
    display: 'flex',
    flexWrap: 'wrap',
    gap: '4px 6px',
    alignItems: 'baseline',
  },
});
