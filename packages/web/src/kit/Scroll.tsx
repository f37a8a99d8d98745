import type { ReactNode } from 'react';

/** A table that scrolls in its card, also by keyboard. */
export const Scroll = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="scroll" role="group" aria-label={`${label}, in figures`} tabIndex={0}>
    {children}
  </div>
);
