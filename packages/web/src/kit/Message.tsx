import { Alert, type AlertProps } from '@mui/material';
import type { CSSProperties, ReactNode } from 'react';

const colours = { bad: 'var(--brick)', warn: 'var(--amber)', told: 'var(--ink)' };
const severities = { bad: 'error', warn: 'warning', told: 'info' } as const;

interface Props {
  /** What went wrong, what to mind, or what is merely told. */
  tone?: keyof typeof colours;
  /** Across the whole width above what it is about, on a ground of its own; else a line in the text. */
  bar?: boolean;
  /** What can be done about it. */
  action?: ReactNode;
  /** Told at once to screen readers; else when they are idle. */
  role?: AlertProps['role'];
  style?: CSSProperties;
  className?: string;
  children: ReactNode;
}

/** A message: in the text where it belongs, or as a bar. */
export function Message({ tone = 'bad', bar, action, role = tone === 'told' ? 'status' : 'alert', children, ...rest }: Props) {
  return (
    <Alert
      severity={severities[tone]}
      icon={false}
      role={role}
      action={action}
      sx={{
        font: 'inherit',
        fontSize: bar ? 13 : 12.5,
        lineHeight: 1.4,
        color: colours[tone],
        background: bar ? (tone === 'told' ? 'var(--wash)' : 'var(--panel)') : 'none',
        border: 0,
        borderRadius: 0,
        padding: bar ? '4px 14px' : 0,
        ...(bar ? { borderBottom: '1px solid var(--line)' } : {}),
        alignItems: 'center',
        '& .MuiAlert-message': { padding: bar ? '2px 0' : 0, minWidth: 0, flex: 1 },
        '& .MuiAlert-action': { padding: 0, margin: 0 },
      }}
      {...rest}
    >
      {children}
    </Alert>
  );
}
