import { closeAt, openAt, useAddress } from './address.ts';

const names = ['materials', 'calculator', 'import', 'export', 'guide', 'designs'] as const;
type DialogName = (typeof names)[number];

/** Opens one of the large dialogs. */
export const showDialog = (name: DialogName): void => openAt({ dialog: name });
export const closeDialog = (): void => closeAt('dialog');
/** Which of the large dialogs is open; null: none. */
export function useDialog(): DialogName | null {
  const told = useAddress('dialog');
  return names.find((n) => n === told) ?? null;
}
