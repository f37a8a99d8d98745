import type { ReactNode } from 'react';

/** A term and its value in a list of settings. */
export function SettingRow({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <dt>{title}</dt>
      <dd>{children}</dd>
    </>
  );
}
