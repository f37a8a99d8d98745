import type { ReactNode } from 'react';

/** A stretch that scrolls, also by keyboard. */
export const Scroll = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="scroll" role="region" aria-label={label} tabIndex={0}>
    {children}
  </div>
);
