import { ButtonBase } from '@mui/material';
import { styled } from '@mui/material/styles';

/** How a value in a sentence looks, and opens. */
export const ChipFace = styled(ButtonBase, { shouldForwardProp: (name) => name !== 'failing' })<{ failing?: boolean }>({
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
  variants: [{ props: { failing: true }, style: { color: 'var(--brick)', borderColor: 'var(--brick)' } }],
});
