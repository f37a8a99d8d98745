import { styled } from '@mui/material/styles';

/** The bar along the top. */
export const HeaderBar = styled('header')({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) auto minmax(0, 1fr)',
  alignItems: 'center',
  gap: 12,
  height: 52,
  padding: '0 12px',
  background: 'var(--panel)',
  borderBottom: '1px solid var(--line)',
  '& .side': {
    display: 'flex',
    alignItems: 'center',
    gap: 8,
    minWidth: 0,
  },
  '& .side.right': {
    justifyContent: 'flex-end',
    gap: 4,
  },
  '& img': {
    width: 26,
    height: 26,
    display: 'block',
  },
});

/** The five stages. */
export const CourseNav = styled('nav')({
  display: 'flex',
  gap: 2,
  '& a': {
    display: 'flex',
    alignItems: 'center',
    gap: 6,
    height: 49,
    padding: '0 14px',
    color: 'var(--faint)',
    textDecoration: 'none',
    borderBottom: '3px solid var(--line)',
    fontWeight: 500,
  },
  '& a[aria-current]': {
    color: 'var(--ink)',
    borderColor: 'var(--jade)',
    fontWeight: 650,
  },
  '& .state': {
    fontSize: 11,
    fontWeight: 600,
  },
  '& .state.ready': {
    color: 'var(--jade)',
  },
});

/** The workbench: header, messages, and below them what the stage is. */
export const Bench = styled('div')({
  display: 'flex',
  flexDirection: 'column',
  height: '100%',
  '& main': {
    flex: 1,
    minHeight: 0,
  },
  '& .divider': {
    width: 5,
    background: 'var(--line)',
    cursor: 'col-resize',
  },
  '& .divider:hover, & .divider[data-separator="active"]': {
    background: 'var(--jade)',
  },
});
