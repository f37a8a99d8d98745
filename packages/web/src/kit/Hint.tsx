import { cloneElement, type ReactElement } from 'react';

/** What `Hints` and screen readers say more of a control; its name stays its own. */
export const hinted = (text: string | null | undefined): { 'data-hint'?: string; 'aria-description'?: string } =>
  text ? { 'data-hint': text, 'aria-description': text } : {};

/** Says more about a control when it is pointed at or focused. */
export const Hint = ({ text, children }: { text: string | null | undefined; children: ReactElement<object> }) =>
  text ? cloneElement(children, hinted(text)) : children;
