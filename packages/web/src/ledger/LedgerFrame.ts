import { styled } from '@mui/material/styles';

/** A ledger: parts with heads that stay, parameters, entries with their sentences, runs. */
export const LedgerFrame = styled('div')({
  height: '100%',
  overflow: 'auto',
  background: 'var(--panel)',
  fontSize: 13,
  '& section': {
    borderBottom: '1px solid var(--line)',
    paddingBottom: 6,
  },
  '& section > header': {
    display: 'flex',
    alignItems: 'center',
    gap: 6,
    padding: '8px 8px 4px 14px',
    position: 'sticky',
    top: 0,
    background: 'var(--panel)',
    zIndex: 2,
  },
  '& section > header h2': {
    fontSize: 13,
    fontWeight: 650,
  },
  '& .group-title': {
    display: 'flex',
    justifyContent: 'flex-start',
    alignItems: 'center',
    gap: 4,
    width: '100%',
    border: 0,
    background: 'none',
    font: 'inherit',
    fontSize: 12,
    color: 'var(--faint)',
    padding: '4px 14px 2px',
    cursor: 'pointer',
  },
  '& .parameter': {
    display: 'grid',
    gridTemplateColumns: '92px minmax(90px, auto) minmax(0, 1fr) auto',
    gap: 4,
    alignItems: 'baseline',
    padding: '1px 8px 1px 14px',
  },
  '& .parameter:hover, & .entry:hover': {
    background: 'color-mix(in srgb, var(--wash) 45%, transparent)',
  },
  '& .parameter .tools, & .entry .tools': {
    opacity: 0,
    display: 'flex',
    alignItems: 'center',
    height: 22,
  },
  '& .parameter:hover .tools, & .parameter:focus-within .tools, & .entry:hover .tools, & .entry:focus-within .tools, & .entry.selected .tools': {
    opacity: 1,
  },
  '& .chip-edit': {
    display: 'inline-flex',
    flexDirection: 'column',
    verticalAlign: 'top',
    maxWidth: '100%',
  },
  '& .chip-edit output': {
    fontSize: 11.5,
    padding: '1px 2px',
    maxWidth: 260,
    whiteSpace: 'normal',
  },
  '& .entry': {
    display: 'grid',
    gridTemplateColumns: '26px 18px minmax(0, 1fr) auto',
    alignItems: 'start',
    gap: 2,
    padding: '3px 6px 3px 6px',
    borderLeft: '3px solid transparent',
  },
  '& .entry.selected': {
    borderLeftColor: 'var(--jade)',
    background: 'color-mix(in srgb, var(--wash) 60%, transparent)',
  },
  '& .entry.lit': {
    background: 'color-mix(in srgb, var(--wash) 60%, transparent)',
  },
  '& .entry.muted .sentence': {
    opacity: 0.5,
    textDecoration: 'line-through',
  },
  '& .entry .number': {
    justifyContent: 'flex-end',
    textAlign: 'right',
    color: 'var(--faint)',
    fontSize: 11.5,
    lineHeight: '22px',
    cursor: 'grab',
    userSelect: 'none',
    background: 'none',
    border: 0,
    padding: '0 3px 0 0',
    touchAction: 'none',
  },
  '& .entry .glyph': {
    lineHeight: 0,
    paddingTop: 3,
    color: 'var(--faint)',
  },
  '& .entry .glyph svg': {
    width: 15,
    height: 15,
  },
  '& .sentence': {
    display: 'flex',
    flexWrap: 'wrap',
    gap: '3px 5px',
    alignItems: 'baseline',
    lineHeight: '22px',
  },
  '& .sentence b': {
    fontWeight: 650,
  },
  '& .check': {
    display: 'flex',
    gap: 8,
    padding: '3px 14px',
    alignItems: 'baseline',
    lineHeight: 1.4,
  },
  '& .cost': {
    padding: '4px 14px 8px',
    lineHeight: 1.5,
  },
  '& .progress-line': {
    height: 4,
    background: 'var(--line)',
    borderRadius: 2,
    overflow: 'hidden',
  },
  '& .progress-line > div': {
    height: '100%',
    background: 'var(--jade)',
  },
  '& .run-row': {
    padding: '5px 14px',
    display: 'grid',
    gap: 3,
    borderTop: '1px solid var(--line)',
  },
  '@media (prefers-reduced-motion: no-preference)': {
    '& .progress-line > div': {
      transition: 'width 0.3s',
    },
  },
  '& .list-editor': {
    display: 'inline',
  },
  '& .list-rows': {
    display: 'flex',
    flexDirection: 'column',
    gap: 2,
    margin: '4px 0 6px',
    padding: '4px 0 4px 8px',
    borderLeft: '2px solid var(--line)',
    maxHeight: 320,
    overflow: 'auto',
  },
  '& .list-row': {
    display: 'flex',
    alignItems: 'baseline',
    gap: 6,
  },
  '& .list-tools': {
    opacity: 0.25,
  },
  '& .list-row:hover .list-tools, & .list-row:focus-within .list-tools': {
    opacity: 1,
  },
  '& .refs': {
    display: 'inline-flex',
    flexWrap: 'wrap',
    gap: 3,
  },
  '& .refs.failing': {
    outline: '1px solid var(--brick)',
    borderRadius: 6,
  },
  '& .section-head': {
    display: 'flex',
    alignItems: 'center',
    gap: 4,
    padding: '4px 10px 2px',
    borderTop: '1px solid var(--line)',
    fontWeight: 600,
  },
  '& .section-head .grip': {
    cursor: 'grab',
    color: 'var(--faint)',
  },
  '& .entry.chosen': {
    background: 'var(--wash)',
  },
  '& .entry.dim .glyph': {
    opacity: 0.4,
  },
  '& .multi': {
    background: 'var(--wash)',
  },
  '& .ref': {
    display: 'inline-flex',
    alignItems: 'center',
    font: '12.5px/22px var(--mono)',
    background: 'var(--paper)',
    border: '1px solid var(--line)',
    borderRadius: 4,
    paddingLeft: 5,
  },
  '& .dense': {
    display: 'grid',
    gridTemplateColumns: 'minmax(60px, 1fr) minmax(50px, 0.6fr) minmax(60px, 0.8fr) minmax(90px, 1.8fr)',
    gap: 8,
    lineHeight: '22px',
  },
  '& .dense > *': {
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    whiteSpace: 'nowrap',
  },
});
