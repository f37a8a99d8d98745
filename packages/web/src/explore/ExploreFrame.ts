import { styled } from '@mui/material/styles';

/** The Explore stage. */
export const ExploreFrame = styled('div')({
  display: 'grid',
  gap: 10,
  padding: 10,
  overflow: 'auto',
  height: '100%',
  boxSizing: 'border-box',
});
