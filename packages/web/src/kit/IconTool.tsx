import { IconButton, type IconButtonProps } from '@mui/material';
import type { ReactNode } from 'react';

interface Props extends Omit<IconButtonProps, 'size' | 'title'> {
  /** Its name for those who cannot see it, and what is said of it when it is pointed at unless `hint` says it shorter. */
  label: string;
  hint?: string;
  icon: ReactNode;
  /** Pixels of the icon. */
  size?: number;
  href?: string;
}

/** A small button with an icon. */
export const IconTool = ({ label, hint, icon, size = 16, sx, ...rest }: Props) => (
  // The pointer sees a disabled button by what is around it.
  <span data-hint={hint ?? label}>
    <IconButton aria-label={label} {...rest} sx={{ p: '4px', '& svg': { fontSize: size }, ...sx }}>
      {icon}
    </IconButton>
  </span>
);
