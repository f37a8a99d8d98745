import { styled } from '@mui/material/styles';

/** The home page with its cards. */
export const ShelfPage = styled('div')({
  maxWidth: 1180,
  margin: '0 auto',
  padding: '28px 24px 60px',
  '& .shelf-head': {
    display: 'flex',
    alignItems: 'end',
    gap: 12,
    margin: '26px 0 14px',
  },
  '& .shelf-grid': {
    display: 'grid',
    gridTemplateColumns: 'repeat(auto-fill, minmax(270px, 1fr))',
    gap: 14,
  },
  '& .shelf-card': {
    display: 'flex',
    flexDirection: 'column',
    position: 'relative',
    background: 'var(--panel)',
    border: '1px solid var(--line)',
    borderRadius: 6,
    overflow: 'hidden',
  },
  '& .shelf-card:hover': {
    borderColor: 'var(--jade)',
  },
  '& .shelf-card > a': {
    color: 'inherit',
    textDecoration: 'none',
    display: 'block',
  },
  '& .shelf-card .picture': {
    background: 'var(--stage)',
    borderBottom: '1px solid var(--line)',
    aspectRatio: '16 / 9',
    width: '100%',
    display: 'block',
  },
  '& .shelf-card .about': {
    padding: '10px 12px 4px',
  },
  '& .shelf-card .about h3': {
    fontSize: 15,
    fontWeight: 650,
  },
  '& .shelf-card .about p': {
    fontSize: 13,
    marginTop: 3,
    minHeight: '2.6em',
    display: '-webkit-box',
    WebkitLineClamp: 2,
    WebkitBoxOrient: 'vertical',
    overflow: 'hidden',
  },
  '& .shelf-card .foot': {
    marginTop: 'auto',
    display: 'flex',
    alignItems: 'center',
    padding: '0 6px 6px 12px',
    fontSize: 12,
    color: 'var(--faint)',
  },
});
