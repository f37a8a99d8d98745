import { styled } from '@mui/material/styles';

/** Handles of the picked line. */
export const HandleFrame = styled('div')({
  '&[hidden]': { display: 'none' },
  position: 'absolute',
  inset: 0,
  pointerEvents: 'none',
  overflow: 'hidden',
  '& .handle': {
    position: 'absolute',
    left: -12,
    top: -12,
    width: 24,
    height: 24,
    pointerEvents: 'auto',
    cursor: 'grab',
    touchAction: 'none',
  },
  '& .handle::after': {
    content: "''",
    position: 'absolute',
    inset: 6,
    border: '2px solid var(--panel)',
    background: 'var(--jade)',
    borderRadius: 3,
    boxShadow: '0 0 0 1px var(--jade)',
  },
  '& .handle.place::after': {
    borderRadius: '50%',
    background: 'var(--panel)',
    borderColor: 'var(--jade)',
  },
  '& .handle:active': {
    cursor: 'grabbing',
  },
});
