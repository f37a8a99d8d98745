import type { ReactNode } from 'react';

/** A view in space with its colour scale beside it, so that the scale never lies on the model. */
export const InSpace = ({ scale, children }: { scale: ReactNode; children: ReactNode }) => (
  <div style={{ display: 'flex', height: '100%', background: 'var(--stage)' }}>
    <div style={{ position: 'relative', flex: 1, minWidth: 0 }}>{children}</div>
    <div style={{ alignSelf: 'end', paddingBottom: 8 }}>{scale}</div>
  </div>
);
