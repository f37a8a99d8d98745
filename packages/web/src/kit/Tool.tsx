import { ButtonBase, type ButtonBaseProps } from '@mui/material';
import { styled } from '@mui/material/styles';
import { Hint } from './Hint.tsx';

interface Look {
  /** Without frame and ground, for the middle of a line. */
  bare?: boolean;
}

const Face = styled(ButtonBase, { shouldForwardProp: (name) => name !== 'bare' })<Look>({
  minHeight: 24,
  padding: '2px 9px',
  fontFamily: 'inherit',
  fontSize: 12.5,
  fontWeight: 500,
  lineHeight: 1.4,
  whiteSpace: 'nowrap',
  color: 'var(--ink)',
  background: 'var(--panel)',
  border: '1px solid var(--line)',
  borderRadius: 6,
  '&:hover': { borderColor: 'var(--jade)' },
  '&[aria-pressed="true"]': { background: 'var(--wash)' },
  '&.Mui-disabled': { opacity: 0.5 },
  variants: [{ props: { bare: true }, style: { minWidth: 24, padding: '0 4px', border: 0, background: 'transparent' } }],
});

interface ToolProps extends Omit<ButtonBaseProps, 'title'>, Look {
  /** What it does, where its words do not say all. */
  hint?: string;
}

/** A small button; with `aria-pressed` one that stays down. */
export function Tool({ hint, ...rest }: ToolProps) {
  return rest.disabled ? (
    <Face {...rest} title={hint} />
  ) : (
    <Hint text={hint}>
      <Face {...rest} />
    </Hint>
  );
}
