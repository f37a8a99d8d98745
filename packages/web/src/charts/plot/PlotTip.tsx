import { Paper } from '@mui/material';
import type { ReactNode } from 'react';

/** What is read at a place of a chart, on the side where it hides the least. */
export function PlotTip({ side, children }: { side: { left?: number; right?: number; top?: number }; children: ReactNode }) {
  return (
    <Paper
      variant="outlined"
      role="status"
      sx={{ position: 'absolute', top: 12, zIndex: 2, px: 1, py: 0.375, maxWidth: '75%', fontSize: 12, pointerEvents: 'none', ...side }}
    >
      {children}
    </Paper>
  );
}
