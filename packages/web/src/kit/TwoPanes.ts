import { styled } from '@mui/material/styles';
import { DialogContent } from '@mui/material';

/** The inside of a dialog that is a list and what is chosen of it. */
export const TwoPanes = styled(DialogContent)({
  display: 'grid',
  gridTemplateColumns: '230px 1fr',
  gap: 18,
  height: 560,
  '& .pane-list': {
    overflow: 'auto',
    borderRight: '1px solid var(--line)',
    paddingRight: 8,
  },
  '& .pane': {
    overflow: 'auto',
    paddingRight: 6,
  },
  '& .pane .result': {
    fontSize: 20,
    margin: '10px 0 6px',
  },
  '& .pane .source': {
    fontSize: 12,
    marginTop: 8,
  },
});
