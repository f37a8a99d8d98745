import { styled } from '@mui/material/styles';

/** A view in space with what is laid over it. */
export const StageFrame = styled('div')({
  position: 'relative',
  height: '100%',
  background: 'var(--stage)',
  overflow: 'hidden',
  '& canvas': {
    display: 'block',
  },
  '& .over': {
    position: 'absolute',
    pointerEvents: 'none',
  },
  '& .over > *': {
    pointerEvents: 'auto',
  },
  '& .top-rows': {
    top: 10,
    left: 10,
    maxWidth: 'calc(100% - 130px)',
    display: 'flex',
    flexDirection: 'column',
    gap: 6,
  },
  '& .top-rows > *': {
    pointerEvents: 'none',
  },
  '& .top-rows > * > *': {
    pointerEvents: 'auto',
  },
  '& .add-row, & .stage-tools': {
    display: 'flex',
    flexWrap: 'wrap',
    gap: 4,
  },
  '& .add-row': {
    gap: 3,
  },
  '& .section-slider': {
    display: 'inline-flex',
    alignItems: 'center',
    gap: 6,
  },
  '& .views': {
    top: 10,
    right: 10,
    display: 'flex',
    gap: 2,
  },
  '& .tell': {
    left: 10,
    bottom: 10,
    maxWidth: 'calc(100% - 340px)',
    fontSize: 12,
    color: 'var(--faint)',
    display: 'flex',
    flexDirection: 'column',
    gap: 4,
  },
  '& .scale-bar': {
    border: '1px solid var(--ink)',
    borderTop: 0,
    height: 5,
  },
  '& .dials': {
    right: 10,
    bottom: 10,
    display: 'flex',
    flexDirection: 'column',
    gap: 4,
    maxHeight: '50%',
    overflow: 'auto',
  },
  '& .dial': {
    display: 'grid',
    gridTemplateColumns: 'minmax(56px, max-content) 130px 76px',
    gap: 8,
    alignItems: 'center',
    background: 'var(--panel)',
    border: '1px solid var(--line)',
    borderRadius: 6,
    padding: '1px 10px',
    fontSize: 12,
  },
});
