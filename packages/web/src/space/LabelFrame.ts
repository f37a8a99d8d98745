import { styled } from '@mui/material/styles';

/** Words that follow points in space. */
export const LabelFrame = styled('div')({
  position: 'absolute',
  inset: 0,
  pointerEvents: 'none',
  overflow: 'hidden',
  '& > div': {
    position: 'absolute',
    left: 0,
    top: 0,
    width: 0,
    height: 0,
  },
  '& > div > div': {
    position: 'absolute',
  },
  '& .axis-letter.quiet': {
    fontWeight: 400,
    whiteSpace: 'nowrap',
  },
  '& .axis-letter.beside': {
    padding: '14px 0 0 14px',
  },
  '& .port-tag': {
    display: 'flex',
    alignItems: 'center',
    gap: 3,
    color: '#fff',
    background: '#6b3f6b',
    borderRadius: '10px 10px 3px 3px',
    padding: '0 6px 1px',
    fontSize: 11,
    fontWeight: 600,
    whiteSpace: 'nowrap',
    transform: 'translate(-50%, -140%)',
    pointerEvents: 'none',
  },
  '& .axis-letter': {
    fontSize: 11,
    fontWeight: 650,
    color: 'var(--faint)',
    transform: 'translate(-50%, -50%)',
    pointerEvents: 'none',
  },
});
