import { Tooltip } from '@mui/material';
import type { ReactElement } from 'react';

/** Says more about a control when it is pointed at or focused; its name stays its own. */
export function Hint({ text, children }: { text: string | null | undefined; children: ReactElement }) {
  return text ? (
    <Tooltip title={text} describeChild>
      {children}
    </Tooltip>
  ) : (
    children
  );
}
