/** How a choice looks: by itself, in a sentence, in a bar. */
export type Look = 'plain' | 'chip' | 'tool';

/** Around a choice. */
export const outside = {
  fontSize: 13,
  lineHeight: '20px',
  color: 'inherit',
  maxWidth: '100%',
  border: '1px solid var(--line)',
  borderRadius: 6,
  background: 'var(--panel)',
  '&:hover': { borderColor: 'var(--jade)' },
} as const;
/** Of what is not taken. */
export const failing = { borderColor: 'var(--brick)', color: 'var(--brick)' };
/** Of the arrow of a choice. */
export const choiceIcon = { fontSize: 18, right: 2, color: 'var(--faint)' };
/** Around the text, and of the text itself, for each look. */
export const looks = {
  plain: [{}, { padding: '1px 22px 1px 6px', minHeight: 0 }],
  tool: [
    { fontSize: 12.5, fontWeight: 500 },
    { padding: '1px 22px 1px 8px', minHeight: 0 },
  ],
  chip: [
    { borderRadius: 4, background: 'var(--paper)' },
    {
      padding: '0 5px',
      minHeight: 0,
      minWidth: 0,
      textDecoration: 'underline dotted var(--faint)',
      textUnderlineOffset: 3,
      whiteSpace: 'normal',
    },
  ],
} as const;

/**
 * Of faces by their classes: values and choices in sentences, of which a ledger has hundreds. A styled component for each costs more than the button that
 * it styles.
 */
export const faces = {
  '.chip-face.chip-face': {
    padding: '0 5px',
    fontFamily: 'var(--mono)',
    fontSize: 12.5,
    lineHeight: '22px',
    textAlign: 'left',
    overflowWrap: 'anywhere',
    maxWidth: '100%',
    color: 'var(--ink)',
    background: 'var(--paper)',
    border: '1px solid var(--line)',
    borderRadius: 4,
    cursor: 'text',
    '&:hover': { borderColor: 'var(--jade)' },
    '&.failing': failing,
  },
  '.choice-face.choice-face': {
    ...outside,
    justifyContent: 'flex-start',
    fontFamily: 'inherit',
    '& > span': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: 16 },
    '& > svg': { ...choiceIcon, position: 'absolute' },
    ...Object.fromEntries(Object.entries(looks).map(([look, [around, text]]) => [`&.${look}`, { ...around, '& > span': text }])),
    '&.failing': failing,
  },
} as const;
